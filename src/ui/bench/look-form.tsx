"use client";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { type FaultsOfFace, judgeFaults } from "@/core/bench";
import type { Face } from "@/core/plan";
import type { Acceptance } from "@/core/site";
import { PartSketch } from "../charts/part-sketch";
import { fieldsOf } from "../fields/in-form";
import { countOf, plainly } from "../format";
import { Entry } from "../forms/entry";
import { type EntryForm, useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { useKeysWithin } from "../frame/use-keys-within";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { NotedPlaces } from "../thickness/noted-places";
import { faultName } from "../words/verdict";
import { FacesLooked } from "./faces-looked";
import { type DefectName, FaultFields, type FaultValues, faultBegun, piecesIn, type TypedFault } from "./fault-fields";

const withClass = (f: FaultsOfFace | undefined) =>
  f && (
    <Verdict result={f.result}>
      {f.result === "watch" ? "within" : "beyond"} zone {f.zone}:{" "}
      {f.most === 0 ? "none passes" : `${f.most} to ${f.largestAllowedMm} mm pass`}
    </Verdict>
  );

/**
 * The look, face by face: each in the light and from the distance of its zone, a fault tapped where it sits, a face without
 * one said to have none. Nothing is ticked beforehand, and what was found is recorded with the look.
 */
export function LookForm({
  rack,
  faces,
  acceptance,
  noted = [],
  asked,
  defects,
  pieces,
  baseline,
}: {
  rack: string;
  faces: readonly Face[];
  acceptance: Acceptance;
  /** Places noted under the lamp: looked at as well. */
  noted?: readonly { readonly face: string; readonly x: number; readonly y: number; readonly what: string }[];
  asked: { readonly distanceM: number | null; readonly lightLux: number | null; readonly note: string } | null;
  defects: readonly DefectName[];
  /** Pieces on the rack. */
  pieces: number;
  /** Panel of ten that this powder gives when it is right; null where nobody has said. */
  baseline: number | null;
}) {
  const held = useEntryForm(`look ${rack}`, {
    ...faultBegun,
    clear: [] as readonly string[],
    faults: [] as readonly TypedFault[],
    /** Where it was tapped; a face alone where it was said by key. */
    tapped: null as { readonly face: string; readonly x: number | null; readonly y: number | null } | null,
    distance: "",
    light: "",
    smooth: "",
    note: "",
  });
  const { units } = usePreferences();
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { clear, faults, note } = held.values;
  const [tapped, setTapped] = held.field("tapped");
  const [, setClear] = held.field("clear");
  const [, setFaults] = held.field("faults");
  const [at, setAt] = useState(0);
  const [wrong, setWrong] = useState<string | null>(null);
  const begunAt = useRef<number | null>(null);
  // It begins with the first thing that is said of a face, not with the page.
  const begin = () => {
    begunAt.current ??= Date.now();
  };
  const face = faces[at];
  const done = (id: string) => clear.includes(id) || faults.some((f) => f.face === id);
  const left = faces.filter((f) => !done(f.id));
  const judged = judgeFaults(faults, faces, acceptance);
  const within = useRef<HTMLDivElement>(null);
  const keyed = useRef<(e: KeyboardEvent) => void>(() => {});
  useKeysWithin(within, (e) => keyed.current(e));
  if (!face) return null;
  const zone = acceptance[face.zone];
  const next = () => {
    const after = [...faces.keys()].map((i) => (at + 1 + i) % faces.length);
    const to = after.find((i) => i !== at && !done(faces[i]?.id ?? ""));
    if (to !== undefined) setAt(to);
  };
  const nothing = () => {
    begin();
    if (faults.some((f) => f.face === face.id)) return next();
    setClear((was) => [...new Set([...was, face.id])]);
    next();
  };
  const tap = (x: number | null, y: number | null) => {
    begin();
    setWrong(null);
    setTapped({ face: face.id, x, y });
    setClear((was) => was.filter((id) => id !== face.id));
  };
  const keep = () => {
    if (!tapped) return;
    const { kind, sub, faultNote } = held.values;
    const [size, count] = [held.live("size"), held.live("count")];
    const which = piecesIn(held.values.pieces, pieces);
    if (kind === "") return setWrong("Choose what it is.");
    for (const [name, typed, value] of [
      ["Largest", held.values.size, size],
      ["How many", held.values.count, count],
    ] as const)
      if (typed.trim() !== "" && value === null) return setWrong(`${name}: “${typed}” is no number.`);
    if (which === null)
      return setWrong(`“${held.values.pieces}” are no pieces of this rack: it has 1 to ${pieces}. Type them as 3 7-9.`);
    setFaults((was) => [
      ...was,
      {
        ...tapped,
        id: uuidv7(),
        defect: kind,
        subKind: sub || null,
        sizeMm: size,
        count: Math.max(1, Math.round(count ?? 1)),
        pieces: which.length > 0 ? which : null,
        note: faultNote,
      },
    ]);
    setWrong(null);
    setTapped(null);
    held.again(["sub", "size", "count", "pieces", "faultNote"]);
  };
  const onKey = (e: KeyboardEvent) => {
    if (
      e.target instanceof HTMLInputElement ||
      e.target instanceof HTMLTextAreaElement ||
      e.ctrlKey ||
      e.metaKey ||
      e.altKey
    )
      return;
    if (e.key === "n" && !tapped) nothing();
    else if (e.key === "f" && !tapped) tap(null, null);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  keyed.current = onKey;
  return (
    <Entry
      held={held}
      id="look"
      sending={recorder}
      button="Record the look"
      primary={left.length === 0}
      label="The look"
      className="grid gap-3"
      begin={["clear", "faults", "tapped", "distance", "light", "smooth", "note"]}
      send={async (read) => {
        const [distanceM, lightLux] = [read.maybe("distance", "length"), read.maybe("light")];
        const smoothness = read.maybe("smooth");
        if (tapped) read.refuse(null, "Keep the fault that was tapped, or take it off, first.");
        const looked = faces.filter((f) => done(f.id)).map((f) => f.id);
        if (looked.length === 0) read.refuse(null, "Say of each face what was seen on it: a fault, or nothing.");
        const kept = await recorder.send({
          kind: "look",
          rack,
          faces: looked,
          distanceM,
          lightLux,
          found: faults.length > 0,
          seconds:
            begunAt.current === null ? null : Math.min(36_000, Math.round((Date.now() - begunAt.current) / 1000)),
          smoothness,
          faults: faults.map(({ id: _, ...f }) => ({
            ...f,
            extentPercent: null,
            pieces: f.pieces === null ? null : [...f.pieces],
            piecesAffected: f.pieces?.length ?? null,
            piecesSeen: f.pieces === null ? null : pieces,
          })),
          note,
        });
        if (kept) {
          setAt(0);
          begunAt.current = null;
        }
        return kept;
      }}
    >
      <h2>
        The look
        {asked && (
          <span className="soft font-normal">
            , asked for
            {asked.distanceM === null ? "" : ` from ${plainly(asked.distanceM, "length", units)}`}
            {asked.lightLux === null ? "" : ` in ${asked.lightLux} lux or more`}
            {asked.note ? `: ${asked.note}` : ""}
          </span>
        )}
      </h2>
      <NotedPlaces noted={noted} faces={faces} todo="Noted under the lamp, look there as well" />
      <div ref={within} className="grid grid-cols-[auto_minmax(0,1fr)] gap-6 max-[820px]:grid-cols-1">
        <div>
          <FacesLooked faces={faces} at={at} go={setAt} clear={clear} faults={faults} />
          <PartSketch
            faces={[{ ...face, spots: [] }]}
            units={units}
            marks={[
              ...faults.map((f, i) => ({ ...f, label: `${i + 1}` })),
              ...(tapped ? [{ ...tapped, label: "here" }] : []),
            ].flatMap(({ face: of, x, y, label }) =>
              of === face.id && x !== null && y !== null ? [{ face: of, x, y, label }] : [],
            )}
            onPlace={(_, x, y) => tap(x, y)}
          />
        </div>
        <div className="grid content-start gap-3">
          <p className="m-0">
            <b className="text-[18px]">{face.name}</b>, zone {face.zone}: from{" "}
            <b className="fig">{plainly(zone.distanceM, "length", units)}</b> at{" "}
            <b className="fig">{zone.lightLux} lx</b> for <b className="fig">{zone.seconds} s</b>
            <br />
            <span className="small soft">
              {zone.mostFaults === 0
                ? "nothing passes that is seen"
                : `${countOf(zone.mostFaults, "fault")} to ${zone.largestMm} mm pass`}
            </span>
          </p>
          {tapped ? (
            <>
              <FaultFields held={held as unknown as EntryForm<FaultValues>} defects={defects} pieces={pieces} />
              {wrong && (
                <p role="alert" className="m-0 text-out">
                  {wrong}
                </p>
              )}
              <p className="m-0 flex flex-wrap gap-2">
                <button type="button" className="btn pri" onClick={keep}>
                  Keep this fault
                </button>
                <button type="button" className="btn" onClick={() => setTapped(null)}>
                  Take it off
                </button>
              </p>
            </>
          ) : (
            <p className="m-0 flex flex-wrap gap-2">
              <button
                type="button"
                className={`btn ${left.length > 0 ? "pri" : ""}`}
                aria-keyshortcuts="n"
                onClick={nothing}
              >
                {faults.some((f) => f.face === face.id) ? "Nothing more here" : "Nothing on this face"} <kbd>n</kbd>
              </button>
              <button type="button" className="btn" aria-keyshortcuts="f" onClick={() => tap(null, null)}>
                A fault <kbd>f</kbd>
              </button>
              <span className="small soft self-center">or tap it where it sits</span>
            </p>
          )}
          {faults.map((f, i) => (
            <div key={f.id} className="row grid-cols-[22px_minmax(0,1fr)_auto] items-center">
              <b className="fig">{i + 1}</b>
              <span>
                {faultName(f.defect, f.subKind)}, {faces.find((x) => x.id === f.face)?.name}
                {f.count > 1 ? `, ${f.count} of them` : ""}
                {f.pieces ? `, ${f.pieces.length === 1 ? "piece" : "pieces"} ${f.pieces.join(", ")}` : ""}
                {f.sizeMm === null ? ", not measured" : `, ${f.sizeMm} mm`}{" "}
                {withClass(judged.find((j) => j.face === f.face))}
              </span>
              <button
                type="button"
                className="link small min-h-11"
                onClick={() => setFaults((was) => was.filter((_, n) => n !== i))}
              >
                take off
              </button>
            </div>
          ))}
          <div className="flex flex-wrap items-end gap-3">
            <F.Num name="distance" label="From" quantity="length" className="w-[110px]" />
            <F.Num name="light" label="Light on it, lux" className="w-[130px]" />
            <F.Pick
              name="smooth"
              label={baseline === null ? "Smoothness" : `Smoothness, ${baseline} is usual`}
              of={[
                ["", "not held beside"],
                ...Array.from({ length: 10 }, (_, i): [string, string] => [String(10 - i), `panel ${10 - i}`]),
              ]}
              className="w-[190px]"
            />
            <F.Words name="note" label="Note" most={400} className="min-w-[160px] flex-1" />
          </div>
          <p className="m-0">
            {left.length === 0 ? (
              faults.length === 0 ? (
                <Verdict result="in">Nothing found on {countOf(faces.length, "face")}</Verdict>
              ) : (
                <Verdict result={judged.some((j) => j.result === "out") ? "out" : "watch"}>
                  {countOf(faults.length, "fault")} on {countOf(new Set(faults.map((f) => f.face)).size, "face")}
                </Verdict>
              )
            ) : (
              <span className="soft">Still to look at: {left.map((f) => f.name).join(", ")}</span>
            )}
          </p>
        </div>
      </div>
    </Entry>
  );
}
