"use client";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { type Face, moveArea, moveCorner, moveSpot, onField, type SketchPoint, sizeArea } from "@/core/plan";
import { AreaPatterns, areaBox, areaFill, areaName } from "../charts/sketch-areas";
import type { Mark } from "./marks-form";

/** What is chosen on a face: by its kind and its place in the list. */
export type Chosen = { readonly kind: "corner" | "spot" | "area" | "mark"; readonly at: number };

const LONG = 460;
const LEAST = 190;
const PAD = 26;
/** Seen of a handle, and what a finger may hit, px. */
const SEEN = 8;
const HIT = 22;

/** Width and height a face is drawn at, px, in its own proportions where it was measured. */
export function drawnSize(sizeMm: Face["sizeMm"]): readonly [number, number] {
  if (sizeMm === null) return [LONG * 0.72, LONG];
  const [w, h] = sizeMm;
  const scale = LONG / Math.max(w, h);
  return [Math.max(LEAST, w * scale), Math.max(LEAST, h * scale)];
}

/** Things that have no name but their place in the list. */
const numbered = <T,>(items: readonly T[]) => items.map((item, at) => ({ item, at, key: String(at) }));

/** One face to draw on: corners, spots, areas and marks are dragged, or moved by the arrow keys; a tap elsewhere places. */
export function SketchCanvas({
  face,
  marks,
  chosen,
  choose,
  change,
  changeMark,
  place,
  remove,
}: {
  face: Face;
  marks: readonly Mark[];
  chosen: Chosen | null;
  choose: (chosen: Chosen | null) => void;
  /** `settled` once a move is over: then it can be undone as one. */
  change: (face: Face, settled: boolean) => void;
  changeMark: (at: number, to: SketchPoint, settled: boolean) => void;
  place: (at: SketchPoint) => void;
  remove: (chosen: Chosen) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ chosen: Chosen; from: SketchPoint; begun: Face; sizes: boolean } | null>(null);
  const [w, h] = drawnSize(face.sizeMm);
  const px = (x: number) => PAD + (x / 100) * w;
  const py = (y: number) => PAD + (y / 100) * h;
  const onIt = (e: PointerEvent): SketchPoint => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return [50, 50];
    const x = ((e.clientX - box.left) / box.width) * (w + 2 * PAD) - PAD;
    const y = ((e.clientY - box.top) / box.height) * (h + 2 * PAD) - PAD;
    return [(x / w) * 100, (y / h) * 100];
  };
  const moved = (one: Chosen, to: SketchPoint, by: SketchPoint, begun: Face, sizes: boolean): Face => {
    if (one.kind === "corner") return moveCorner(begun, one.at, to);
    if (one.kind === "spot") return moveSpot(begun, one.at, to);
    return sizes ? sizeArea(begun, one.at, to) : moveArea(begun, one.at, by);
  };
  const hold =
    (one: Chosen, sizes = false) =>
    (e: PointerEvent) => {
      e.stopPropagation();
      choose(one);
      svg.current?.setPointerCapture(e.pointerId);
      setDrag({ chosen: one, from: onIt(e), begun: face, sizes });
    };
  const onMove = (e: PointerEvent, settled: boolean) => {
    if (!drag) return;
    const to = onIt(e);
    if (settled) setDrag(null);
    if (Math.hypot(to[0] - drag.from[0], to[1] - drag.from[1]) < 0.5) return;
    if (drag.chosen.kind === "mark") return changeMark(drag.chosen.at, onField(to), settled);
    change(moved(drag.chosen, to, [to[0] - drag.from[0], to[1] - drag.from[1]], drag.begun, drag.sizes), settled);
  };
  const placeOf = (one: Chosen): SketchPoint =>
    (one.kind === "corner"
      ? face.outline[one.at]
      : one.kind === "spot"
        ? face.spots[one.at]?.at
        : marks[one.at]?.at) ?? [0, 0];
  const onKey = (one: Chosen) => (e: KeyboardEvent) => {
    const step = e.shiftKey ? 5 : 1;
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[e.key] as
      | SketchPoint
      | undefined;
    if (e.key === "Delete" || e.key === "Backspace") {
      e.preventDefault();
      return remove(one);
    }
    if (!by) return;
    e.preventDefault();
    const now = placeOf(one);
    const to: SketchPoint = [now[0] + by[0], now[1] + by[1]];
    if (one.kind === "mark") return changeMark(one.at, onField(to), true);
    change(moved(one, to, by, face, false), true);
  };
  const handle = (one: Chosen, label: string) => ({
    role: "button",
    tabIndex: 0,
    "aria-label": label,
    className: "cursor-grab outline-offset-2",
    onPointerDown: hold(one),
    onFocus: () => choose(one),
    onKeyDown: onKey(one),
  });
  const isChosen = (kind: Chosen["kind"], at: number) => chosen?.kind === kind && chosen.at === at;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${w + 2 * PAD} ${h + 2 * PAD}`}
      width={w + 2 * PAD}
      className="h-auto max-w-full touch-none select-none"
      role="group"
      aria-label={`Sketch of ${face.name}`}
      onPointerDown={(e) => {
        choose(null);
        place(onField(onIt(e)));
      }}
      onPointerMove={(e) => onMove(e, false)}
      onPointerUp={(e) => onMove(e, true)}
      onPointerCancel={() => setDrag(null)}
    >
      <AreaPatterns />
      <rect width={w + 2 * PAD} height={h + 2 * PAD} fill="transparent" />
      <path
        d={`M${face.outline.map(([x, y]) => `${px(x)} ${py(y)}`).join("L")}Z`}
        fill="var(--raised)"
        stroke="var(--ink-2)"
        strokeWidth="2"
      />
      {numbered(face.areas).map(({ item: a, at, key }) => {
        const box = areaBox(a, px, py);
        const one: Chosen = { kind: "area", at };
        return (
          <g key={key} {...handle(one, `Area ${at + 1}, ${areaName[a.kind]}`)}>
            <rect
              {...box}
              fill={areaFill(a.kind)}
              stroke={isChosen("area", at) ? "var(--sorrel)" : a.kind === "bare" ? "var(--out)" : "var(--ink-3)"}
              strokeWidth={isChosen("area", at) ? 3 : 1.2}
            />
            <text x={box.x + 5} y={box.y + 15} className="small" style={{ fill: "var(--ink)", fontWeight: 650 }}>
              {areaName[a.kind]}
            </text>
            {isChosen("area", at) && (
              <g onPointerDown={hold(one, true)} className="cursor-nwse-resize">
                <circle cx={px(a.to[0])} cy={py(a.to[1])} r={HIT} fill="transparent" />
                <circle cx={px(a.to[0])} cy={py(a.to[1])} r={SEEN} fill="var(--sorrel)" />
              </g>
            )}
          </g>
        );
      })}
      {face.recessFromY !== null && (
        <g>
          <line
            x1={PAD}
            x2={PAD + w}
            y1={py(face.recessFromY)}
            y2={py(face.recessFromY)}
            stroke="var(--rule-strong)"
            strokeDasharray="6 4"
          />
          <text x={PAD + 4} y={py(face.recessFromY) - 5} style={{ fontSize: 12 }}>
            recess below
          </text>
        </g>
      )}
      {numbered(face.outline).map(({ item: [x, y], at, key }) => (
        <g
          key={key}
          transform={`translate(${px(x)},${py(y)})`}
          {...handle({ kind: "corner", at }, `Corner ${at + 1} of ${face.name}, at ${x}, ${y}`)}
        >
          <circle r={HIT} fill="transparent" />
          <rect
            x={-SEEN}
            y={-SEEN}
            width={2 * SEEN}
            height={2 * SEEN}
            fill={isChosen("corner", at) ? "var(--sorrel)" : "var(--bench)"}
            stroke="var(--ink-2)"
            strokeWidth="2"
          />
        </g>
      ))}
      {face.spots.map((s, at) => (
        <g
          key={s.id}
          transform={`translate(${px(s.at[0])},${py(s.at[1])})`}
          {...handle({ kind: "spot", at }, `Spot ${s.id}, ${groupName[s.group]}, at ${s.at[0]}, ${s.at[1]}`)}
        >
          <circle r={HIT} fill="transparent" />
          {s.group === "face" ? (
            <circle
              r="13"
              fill="var(--bench)"
              stroke={isChosen("spot", at) ? "var(--sorrel)" : "var(--ink-2)"}
              strokeWidth={isChosen("spot", at) ? 3.5 : 1.8}
            />
          ) : (
            <path
              d={s.group === "edge" ? "M0-15 15 0 0 15-15 0Z" : "M-14-12H14L0 14Z"}
              fill="var(--bench)"
              stroke={isChosen("spot", at) ? "var(--sorrel)" : "var(--ink-2)"}
              strokeWidth={isChosen("spot", at) ? 3.5 : 1.8}
            />
          )}
          <text x="18" y="4.5" style={{ fontSize: 13, fontWeight: 600, fill: "var(--ink)" }}>
            {s.id}
          </text>
        </g>
      ))}
      {numbered(marks).map(({ item: m, at, key }) =>
        m.face === face.id ? (
          <g
            key={key}
            transform={`translate(${px(m.at[0])},${py(m.at[1])})`}
            {...handle({ kind: "mark", at }, `Mark ${at + 1}, ${m.kind}, at ${m.at[0]}, ${m.at[1]}`)}
          >
            <circle r={HIT} fill="transparent" />
            <path d="M-8-8l16 16m0-16l-16 16" stroke="var(--sorrel)" strokeWidth={isChosen("mark", at) ? 5 : 3} />
            <text
              x={m.at[0] > 75 ? -12 : 12}
              y="-8"
              textAnchor={m.at[0] > 75 ? "end" : "start"}
              style={{ fill: "var(--sorrel)", fontWeight: 650, fontSize: 13 }}
            >
              {`${at + 1} ${m.kind === "centre-of-mass" ? "mass" : m.kind}`}
            </text>
          </g>
        ) : null,
      )}
    </svg>
  );
}
export const groupName: Record<Face["spots"][number]["group"], string> = {
  face: "in the open",
  edge: "on an edge",
  recess: "in a recess",
};
