"use client";
import { type PointerEvent, useRef, useState } from "react";
import type { SitePlanDocument } from "@/core/kinds";
import type { VerdictResult } from "@/core/verdict";
import { Choice } from "../fields/choice";
import { fieldsOf } from "../fields/in-form";
import { OneOf } from "../fields/one-of-later";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

export type SiteStructure = { readonly code: string; readonly name: string; readonly result: VerdictResult };
export type SitePicture = { readonly recordId: string; readonly fileId: string; readonly caption: string };
type Place = SitePlanDocument["marks"][number]["at"];
type Mode = "draw" | "place" | "write";

const WIDTH = 1000;
const HEIGHT = 640;
const colour: Record<VerdictResult, string> = {
  in: "var(--in)",
  watch: "var(--watch)",
  out: "var(--out)",
  unknown: "var(--ink-3)",
};

/** Letters on a plan: readable over a picture. */
const lettering = {
  fontFamily: "inherit",
  fill: "var(--ink)",
  paintOrder: "stroke",
  stroke: "var(--raised)",
  strokeWidth: 6,
} as const;

/** A plan as it stands: what is drawn, over a picture or on paper, and each structure by its shape and name. */
export function PlanDrawing({
  document,
  fileId,
  structures,
  drawing,
  onPoint,
  label,
}: {
  document: SitePlanDocument;
  fileId: string | null;
  structures: readonly SiteStructure[];
  /** A line that is being drawn. */
  drawing?: readonly Place[];
  onPoint?: (at: Place) => void;
  label: string;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const known = new Map(structures.map((s) => [s.code, s]));
  const at = ([x, y]: Place) => `${x * WIDTH},${y * HEIGHT}`;
  const point = (e: PointerEvent<SVGSVGElement>) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box || !onPoint) return;
    const held = (value: number) => Math.min(1, Math.max(0, value));
    onPoint([held((e.clientX - box.left) / box.width), held((e.clientY - box.top) / box.height)]);
  };
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role={onPoint ? "img" : "group"}
      aria-label={label}
      className={`w-full border border-rule-strong bg-raised ${onPoint ? "cursor-crosshair touch-none" : ""}`}
      onPointerUp={point}
    >
      {fileId && (
        <image
          href={`/api/files/${fileId}`}
          width={WIDTH}
          height={HEIGHT}
          preserveAspectRatio="xMidYMid meet"
          opacity="0.85"
        />
      )}
      {[...document.lines, ...(drawing && drawing.length > 0 ? [drawing] : [])].map((line, i) => (
        <polyline
          // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name and are never moved
          key={i}
          points={line.map((p) => at(p as Place)).join(" ")}
          fill="none"
          stroke="var(--ink)"
          strokeWidth="4"
          strokeLinejoin="round"
          strokeLinecap="round"
        />
      ))}
      {document.words.map((w) => (
        <text
          key={`${w.text} ${w.at.join()}`}
          x={w.at[0] * WIDTH}
          y={w.at[1] * HEIGHT}
          textAnchor="middle"
          style={{ ...lettering, fontSize: 26 }}
        >
          {w.text}
        </text>
      ))}
      {document.marks.flatMap((m) => {
        const s = known.get(m.structure);
        if (!s) return [];
        const [x, y] = [m.at[0] * WIDTH, m.at[1] * HEIGHT];
        const mark = (
          <>
            {s.result === "in" && <circle cx={x} cy={y} r="13" fill={colour.in} />}
            {s.result === "watch" && <path d={`M${x} ${y - 15}l15 27h-30Z`} fill={colour.watch} />}
            {s.result === "out" && <rect x={x - 12} y={y - 12} width="24" height="24" fill={colour.out} />}
            {s.result === "unknown" && (
              <circle
                cx={x}
                cy={y}
                r="12"
                fill="var(--raised)"
                stroke={colour.unknown}
                strokeWidth="4"
                strokeDasharray="6 5"
              />
            )}
            <text
              x={Math.min(WIDTH - 60, Math.max(60, x))}
              y={y + 36}
              textAnchor="middle"
              style={{ ...lettering, fontSize: 22, fontWeight: 650 }}
            >
              {s.name}
            </text>
          </>
        );
        return [
          onPoint ? (
            <g key={m.structure}>{mark}</g>
          ) : (
            <a key={m.structure} href={`/field/${m.structure.toLowerCase()}`} aria-label={s.name}>
              {mark}
            </a>
          ),
        ];
      })}
    </svg>
  );
}

/** Draws a site: lines and words by tapping, structures placed, over a photo of one's own or on blank paper. */
export function PlanEditor({
  structure,
  structures,
  pictures,
  begun,
  beganOver,
}: {
  structure: string;
  structures: readonly SiteStructure[];
  pictures: readonly SitePicture[];
  begun: SitePlanDocument;
  beganOver: string;
}) {
  const held = useEntryForm(`site plan ${structure}`, { document: begun, picture: beganOver, note: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const [document, setDocument] = held.field("document");
  const [picture, setPicture] = held.field("picture");
  const [mode, setMode] = useState<Mode>("draw");
  const [line, setLine] = useState<readonly Place[]>([]);
  const [placing, setPlacing] = useState(structures[0]?.code ?? "");
  const [text, setText] = useState("");
  const [before, setBefore] = useState<readonly SitePlanDocument[]>([]);
  const change = (next: SitePlanDocument) => {
    setBefore([...before.slice(-30), document]);
    setDocument(next);
  };
  const endLine = () => {
    if (line.length > 1) change({ ...document, lines: [...document.lines, line.map((p): Place => [p[0], p[1]])] });
    setLine([]);
  };
  const point = (at: Place) => {
    if (mode === "draw") setLine([...line, at]);
    else if (mode === "write") {
      if (text.trim()) change({ ...document, words: [...document.words, { at, text: text.trim().slice(0, 40) }] });
    } else if (placing) {
      change({
        ...document,
        marks: [...document.marks.filter((m) => m.structure !== placing), { structure: placing, at }],
      });
      const unplaced = structures.find(
        (s) => s.code !== placing && !document.marks.some((m) => m.structure === s.code),
      );
      if (unplaced) setPlacing(unplaced.code);
    }
  };
  const fileId = pictures.find((p) => p.recordId === picture)?.fileId ?? null;
  return (
    <Entry
      held={held}
      id="site-plan"
      sending={recorder}
      button="Record the plan"
      primary
      className="mt-3 grid gap-3"
      send={() =>
        recorder.send({
          kind: "site-plan",
          structure,
          picture: picture === "" ? null : picture,
          document: line.length > 1 ? { ...document, lines: [...document.lines, [...line]] } : document,
          note: held.values.note,
        })
      }
    >
      <div className="flex flex-wrap items-end gap-4">
        <OneOf
          label="A tap"
          value={mode}
          options={[
            { value: "draw", label: "draws a line" },
            { value: "place", label: "places a structure" },
            { value: "write", label: "writes words" },
          ]}
          onChange={(next) => {
            endLine();
            setMode(next as Mode);
          }}
        />
        {mode === "place" && (
          <div className="field min-w-[240px]">
            <label htmlFor="placing">Which structure</label>
            <Choice id="placing" className="input" value={placing} onChange={setPlacing}>
              {structures.map((s) => (
                <option key={s.code} value={s.code}>
                  {`${s.name} (${s.code})${document.marks.some((m) => m.structure === s.code) ? ", placed" : ""}`}
                </option>
              ))}
            </Choice>
          </div>
        )}
        {mode === "write" && (
          <div className="field">
            <label htmlFor="plan-words">Words</label>
            <input
              id="plan-words"
              className="input"
              maxLength={40}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          </div>
        )}
        {mode === "draw" && line.length > 0 && (
          <button type="button" className="btn" onClick={endLine}>
            End this line
          </button>
        )}
        <button
          type="button"
          className="btn"
          disabled={before.length === 0 && line.length === 0}
          onClick={() => {
            if (line.length > 0) return setLine(line.slice(0, -1));
            const last = before.at(-1);
            if (!last) return;
            setBefore(before.slice(0, -1));
            setDocument(last);
          }}
        >
          Undo
        </button>
      </div>
      <PlanDrawing
        document={document}
        fileId={fileId}
        structures={structures}
        drawing={line}
        onPoint={point}
        label="The plan: tap to draw, place or write"
      />
      <div className="field max-w-[420px]">
        <label htmlFor="plan-picture">Drawn over</label>
        <Choice id="plan-picture" className="input" value={picture} onChange={setPicture}>
          <option value="">blank paper</option>
          {pictures.map((p) => (
            <option key={p.recordId} value={p.recordId}>
              {p.caption}
            </option>
          ))}
        </Choice>
        <span className="small soft">
          Attach a photo of an own map, drawing or view to a structure of the site first.
        </span>
      </div>
      <F.Words name="note" label="Note" most={200} />
    </Entry>
  );
}
