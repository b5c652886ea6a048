import { memo } from "react";
import type { Face } from "@/core/plan";
import type { UnitSystem } from "@/core/units";
import { figure } from "../format";
import { AreaPatterns, areaBox, areaFill, areaName } from "./sketch-areas";

export type SketchSpot = {
  readonly id: string;
  readonly at: readonly [number, number];
  readonly meanUm: number | null;
  readonly result: "in" | "watch" | "out" | "open" | "next";
};
export type SketchFace = {
  readonly id: string;
  readonly name: string;
  readonly outline: readonly (readonly [number, number])[];
  readonly recessFromY: number | null;
  /** Width and height, mm, where it was measured. */
  readonly sizeMm?: readonly [number, number] | null;
  readonly areas?: Face["areas"];
  readonly spots: readonly SketchSpot[];
};
export type SketchMark = { readonly face: string; readonly x: number; readonly y: number; readonly label: string };

const LEAST = 128;
const LONG = 340;
const WIDEST = 300;
const GAP = 58;
/** Width and height a face is drawn at, px: in its own proportions where it was measured, upright where not. */
function sizeOf({ sizeMm }: SketchFace): readonly [number, number] {
  if (!sizeMm) return [LEAST, LONG];
  const [w, h] = sizeMm;
  const scale = Math.min(WIDEST / w, LONG / h);
  return [Math.max(LEAST, w * scale), Math.max(LEAST, h * scale)];
}
/** Thin and thick on the map; the middle of the range is left clear. */
export const THIN_COLOUR = "#2f6f9f";
export const THICK_COLOUR = "#9a5a1c";
const STRONGEST = 0.62;

function patchOf(meanUm: number, { lowUm, highUm }: { lowUm: number; highUm: number }) {
  const share = Math.max(0, Math.min(1, (meanUm - lowUm) / (highUm - lowUm || 1)));
  return { colour: share < 0.5 ? THIN_COLOUR : THICK_COLOUR, strength: Math.abs(share - 0.5) * 2 * STRONGEST };
}

/** The part's faces with their spots: value inside, state by outline, colour and the word under it. */
export function PartSketch({
  faces,
  units,
  marks = [],
  scale,
  onSpot,
  onPlace,
}: {
  faces: readonly SketchFace[];
  units: UnitSystem;
  marks?: readonly SketchMark[];
  /** Draws thin and thick places as a map behind the spots, between these two. */
  scale?: { readonly lowUm: number; readonly highUm: number };
  onSpot?: (face: string, spot: string) => void;
  onPlace?: (face: string, x: number, y: number) => void;
}) {
  const sizes = faces.map(sizeOf);
  const width = sizes.reduce((sum, [w]) => sum + w + GAP, 0);
  const tallest = Math.max(LEAST, ...sizes.map(([, h]) => h));
  let next = 8;
  const lefts = sizes.map(([w]) => {
    const left = next;
    next += w + GAP;
    return left;
  });
  return (
    <svg
      viewBox={`0 0 ${width} ${tallest + 40}`}
      width={width}
      className="h-auto max-h-[62vh] max-w-full overflow-visible"
      role="group"
      aria-label="Part sketch"
    >
      {faces.some((f) => (f.areas?.length ?? 0) > 0) && <AreaPatterns />}
      {faces.map((face, i) => {
        const [W, H] = sizes[i] as readonly [number, number];
        const left = lefts[i] ?? 0;
        const px = (x: number) => left + (x / 100) * W;
        const py = (y: number) => 24 + (y / 100) * H;
        return (
          <g key={face.id}>
            <text x={left} y="14" style={{ fill: "var(--ink)", fontSize: 12.5 }}>
              {face.name}
            </text>
            <path
              d={`M${face.outline.map(([x, y]) => `${px(x)} ${py(y)}`).join("L")}Z`}
              fill="var(--raised)"
              stroke="var(--ink-2)"
              strokeWidth="1.5"
            />
            {face.areas?.map((a) => {
              const box = areaBox(a, px, py);
              return (
                <g key={`${a.kind} ${a.from} ${a.to}`}>
                  <title>{a.note || areaName[a.kind]}</title>
                  <rect {...box} fill={areaFill(a.kind)} stroke={a.kind === "bare" ? "var(--out)" : "var(--ink-3)"} />
                  <text x={box.x + 3} y={box.y + 12} style={{ fill: "var(--ink)", fontSize: 11 }}>
                    {a.kind === "bare" ? "bare" : a.kind}
                  </text>
                </g>
              );
            })}
            {onPlace && (
              <foreignObject x={px(0)} y={py(0)} width={W} height={H}>
                <button
                  type="button"
                  aria-label={`Place it on ${face.name}`}
                  className="block h-full w-full cursor-crosshair border-0 bg-transparent p-0"
                  onClick={(e) => {
                    // By keyboard there is no place to read: the middle of the face, to be said in words beside it.
                    if (e.detail === 0) return onPlace(face.id, 50, 50);
                    const box = e.currentTarget.getBoundingClientRect();
                    onPlace(
                      face.id,
                      Math.round(((e.clientX - box.left) / box.width) * 100),
                      Math.round(((e.clientY - box.top) / box.height) * 100),
                    );
                  }}
                />
              </foreignObject>
            )}
            {face.recessFromY !== null && (
              <line
                x1={left}
                x2={left + W}
                y1={py(face.recessFromY)}
                y2={py(face.recessFromY)}
                stroke="var(--rule-strong)"
                strokeDasharray="5 4"
              />
            )}
            {scale &&
              face.spots.map((spot) => {
                if (spot.meanUm === null) return null;
                const { colour, strength } = patchOf(spot.meanUm, scale);
                return (
                  <circle
                    key={`patch-${spot.id}`}
                    cx={px(spot.at[0])}
                    cy={py(spot.at[1])}
                    r="40"
                    fill={colour}
                    opacity={strength}
                  />
                );
              })}
            {face.spots.map((spot) => (
              <SpotMark
                key={spot.id}
                spot={spot}
                x={px(spot.at[0])}
                y={py(spot.at[1])}
                units={units}
                face={face.id}
                onSpot={onSpot}
              />
            ))}
            {marks
              .filter((m) => m.face === face.id)
              .map((m) => (
                <g key={`${m.x}${m.y}${m.label}`}>
                  <path d={`M${px(m.x) - 9} ${py(m.y) - 9}l18 18m0-18l-18 18`} stroke="var(--sorrel)" strokeWidth="3" />
                  <text x={px(m.x) + 13} y={py(m.y) - 8} style={{ fill: "var(--sorrel)", fontWeight: 600 }}>
                    {m.label}
                  </text>
                </g>
              ))}
          </g>
        );
      })}
    </svg>
  );
}

/** One spot; drawn anew only when what it shows is another, since a gauge changes one of hundreds at a time. */
const SpotMark = memo(
  DrawnSpot,
  (a, b) =>
    a.x === b.x &&
    a.y === b.y &&
    a.units === b.units &&
    a.face === b.face &&
    a.onSpot === b.onSpot &&
    a.spot.id === b.spot.id &&
    a.spot.meanUm === b.spot.meanUm &&
    a.spot.result === b.spot.result,
);

function DrawnSpot({
  spot,
  x,
  y,
  units,
  face,
  onSpot,
}: {
  spot: SketchSpot;
  x: number;
  y: number;
  units: UnitSystem;
  face: string;
  onSpot: ((face: string, spot: string) => void) | undefined;
}) {
  const onChoose = onSpot && (() => onSpot(face, spot.id));
  const text =
    spot.meanUm === null ? "" : units === "us" ? figure(spot.meanUm, "thickness", units).text : spot.meanUm.toFixed(0);
  const shape =
    spot.result === "next" ? (
      <>
        <circle r="18" fill="var(--raised)" stroke="var(--sorrel)" strokeWidth="3" />
        <circle r="23.5" fill="none" stroke="var(--sorrel)" strokeWidth="1.2" />
      </>
    ) : spot.result === "open" ? (
      <circle r="17" fill="none" stroke="var(--unknown)" strokeWidth="1.6" strokeDasharray="3 3" />
    ) : spot.result === "out" ? (
      <rect x="-16" y="-16" width="32" height="32" fill="var(--out-tint)" stroke="var(--out)" strokeWidth="2.4" />
    ) : spot.result === "watch" ? (
      <path d="M0 -22 20 14H-20Z" fill="var(--watch-tint)" stroke="var(--watch)" strokeWidth="2.4" />
    ) : (
      <circle r="17" fill="var(--in-tint)" stroke="var(--in)" strokeWidth="1.6" />
    );
  const words = { in: "in", watch: "thin or thick, allowed", out: "out", open: "not read", next: "next" }[spot.result];
  const body = (
    <>
      {shape}
      <text
        textAnchor="middle"
        y={spot.result === "watch" ? 9 : 4.5}
        style={{ fill: "var(--ink)", fontWeight: 650, fontSize: 13 }}
      >
        {text}
      </text>
      <text x="26" y="4" style={{ fontSize: 12 }}>
        {spot.id}
      </text>
    </>
  );
  if (!onChoose)
    return (
      <g transform={`translate(${x},${y})`}>
        <title>{`${spot.id} ${text} ${words}`}</title>
        {body}
      </g>
    );
  return (
    <g
      transform={`translate(${x},${y})`}
      role="button"
      tabIndex={0}
      className="cursor-pointer"
      aria-label={`Spot ${spot.id}, ${text || "no reading"}, ${words}`}
      onClick={onChoose}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          onChoose();
        }
      }}
    >
      <circle r="24" fill="transparent" />
      {body}
    </g>
  );
}
