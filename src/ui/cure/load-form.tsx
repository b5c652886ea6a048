"use client";
import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { GripVertical } from "lucide-react";
import { type FormEvent, useState } from "react";
import { fahrenheitToC } from "@/core/units";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { SetAside } from "../forms/set-aside";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { sectionWords } from "../words/cure";
import { failureText } from "../words/failures";
import { type FloorOven, isColdPlace, OvenFloor, placeNote } from "./oven-floor";
import type { PlannedStart } from "./planned-start";
import { underPointer } from "./under-pointer";

const timings = [
  ["metal-at-temperature", "from metal at temperature"],
  ["flow-out", "from flow-out"],
  ["door-close", "from door close"],
  ["hot-then-down", "hot until flow-out, then down"],
] as const;

export type WaitingRack = {
  readonly number: string;
  readonly part: string;
  readonly metal: string;
  readonly sectionMm: number;
  readonly hollow: boolean;
  readonly massKg: number | null;
  readonly faces: readonly string[];
};
type Hanging = Readonly<Record<string, { readonly place: string; readonly probe: string }>>;
const NOT_HUNG = { place: "", probe: "" };

/** A load into an oven: racks dragged or tapped to their places in the drawn oven; the door closes when it is recorded. */
export function LoadForm({
  ovens,
  racks,
  nextLoad,
  start,
}: {
  ovens: readonly FloorOven[];
  racks: readonly WaitingRack[];
  nextLoad: string;
  start: PlannedStart;
}) {
  const { units } = usePreferences();
  const planned = start.racks.filter((n) => racks.some((r) => r.number === n));
  const held = useEntryForm("load", {
    hanging: Object.fromEntries(planned.map((n) => [n, NOT_HUNG])) as Hanging,
    ovenCode: start.oven ?? ovens[0]?.code ?? "",
    sectionText: null as string | null,
    other: "",
    load: nextLoad,
    timing: timings[0]?.[0] ?? "",
    air: "",
    setpoint: start.setPointC === null ? "" : (withUnit(start.setPointC, "temperature", units).split(" ")[0] ?? ""),
  });
  const [hanging, setHanging] = held.field("hanging");
  const [inHand, setInHand] = useState<string | null>(planned[0] ?? null);
  const [ovenCode, setOvenCode] = held.field("ovenCode");
  const [sectionText, setSectionText] = held.field("sectionText");
  const { send, message, busy, setAside } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const oven = ovens.find((o) => o.code === ovenCode) ?? ovens[0];
  const chosen = Object.keys(hanging);
  const nextInHand = (now: Hanging) => Object.keys(now).find((n) => now[n]?.place === "") ?? null;
  const hang = (rack: string, place: string) => {
    const now = { ...hanging, [rack]: { ...(hanging[rack] ?? NOT_HUNG), place } };
    setHanging(now);
    setInHand(nextInHand(now));
  };
  const tick = (rack: string, on: boolean) => {
    const { [rack]: _, ...rest } = hanging;
    const now: Hanging = on ? { ...hanging, [rack]: NOT_HUNG } : rest;
    setHanging(now);
    setInHand(on ? rack : nextInHand(now));
  };
  const tap = (place: string) => {
    if (inHand) return hang(inHand, place);
    // Nothing in hand: what hangs there is taken up again.
    const there = chosen.findLast((n) => hanging[n]?.place.toLowerCase() === place.toLowerCase());
    if (there) {
      setHanging({ ...hanging, [there]: { ...(hanging[there] ?? NOT_HUNG), place: "" } });
      setInHand(there);
    }
  };
  const dropped = (e: DragEndEvent) => {
    const place = /^place-(.+)$/.exec(String(e.over?.id ?? ""))?.[1];
    if (place) hang(String(e.active.id), place);
  };
  const heaviest = racks
    .filter((r) => chosen.includes(r.number))
    .reduce<WaitingRack | null>((most, r) => (!most || r.sectionMm > most.sectionMm ? r : most), null);
  // Under lamps the faces of the part are its sections until others are named.
  const faces = racks.find((r) => r.number === chosen[0])?.faces ?? [];
  const sections = (sectionText ?? faces.join("\n"))
    .split("\n")
    .map((s) => s.trim())
    .filter((s) => s !== "");
  const hottest = oven?.survey?.hottest ?? null;
  const cold = heaviest && oven ? isColdPlace(oven, hanging[heaviest.number]?.place ?? "") : false;
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    setProblem(null);
    const form = new FormData(e.currentTarget);
    const other = String(form.get("other") ?? "").trim();
    const places = [
      ...chosen.map((rack) => ({
        rack,
        place: hanging[rack]?.place.trim() ?? "",
        channel: hanging[rack]?.probe.trim() || null,
      })),
      ...(other ? other.split(/[\s,]+/).map((rack) => ({ rack, place: "", channel: null })) : []),
    ];
    if (places.length === 0) return setProblem("Tick a rack, or type its number.");
    if (oven?.lamps && sections.length === 0) return setProblem("Name the sections of the piece, one a line.");
    const text = String(form.get("setpoint") ?? "").trim();
    const set = text === "" ? null : parseTyped(text);
    if (set && !set.ok) return setProblem(failureText(set.error));
    const airText = String(form.get("air") ?? "").trim();
    const air = airText === "" ? null : parseTyped(airText);
    if (air && !air.ok) return setProblem(failureText(air.error));
    const readC = air ? (units === "us" ? fahrenheitToC(air.value) : air.value) : null;
    const saved = await send({
      kind: "load",
      oven: ovenCode,
      loadNo: String(form.get("load")),
      timing: String(form.get("timing")) as "flow-out",
      setPointC: set ? (units === "us" ? fahrenheitToC(set.value) : set.value) : null,
      airC: readC,
      places,
      sections: oven?.lamps ? sections : null,
    });
    if (saved) {
      setHanging({});
      setInHand(null);
    }
  };
  return (
    <form onSubmit={submit} className="ruled mt-6 grid gap-3">
      {held.said}
      <h2>{oven?.lamps ? "Light the lamps on a piece" : "Close the door on a load"}</h2>
      <DndContext sensors={sensors} collisionDetection={underPointer} onDragEnd={dropped}>
        <div className="flex flex-wrap items-start gap-6">
          <fieldset className="m-0 grid min-w-0 max-w-[520px] flex-1 basis-[360px] gap-1 border-0 p-0">
            <legend className="small soft">
              {oven?.lamps
                ? "The rack with the piece"
                : oven && oven.places.length > 0
                  ? "Racks in it: tick, then tap its place in the oven, or drag it there"
                  : "Racks in it"}
            </legend>
            {racks.length === 0 && <p className="soft m-0">No coated rack is waiting; type a number below.</p>}
            {racks.map((r) => (
              <WaitingRow
                key={r.number}
                rack={r}
                at={hanging[r.number] ?? null}
                inHand={!oven?.lamps && inHand === r.number}
                hung={!oven?.lamps}
                note={oven ? placeNote(oven, hanging[r.number]?.place ?? "", units) : ""}
                cold={oven ? isColdPlace(oven, hanging[r.number]?.place ?? "") : false}
                tick={(on) => tick(r.number, on)}
                put={(over) => setHanging({ ...hanging, [r.number]: { ...(hanging[r.number] ?? NOT_HUNG), ...over } })}
              />
            ))}
          </fieldset>
          {oven?.lamps && (
            <div className="field min-w-[240px]">
              <label htmlFor="sections">Sections of the piece, one a line, in order</label>
              <textarea
                id="sections"
                className="input min-h-[120px]"
                value={sectionText ?? faces.join("\n")}
                onChange={(e) => setSectionText(e.target.value)}
              />
              <span className="small soft">One piece at a time; each section is read and judged by itself.</span>
            </div>
          )}
          {oven && oven.places.length > 0 && (
            <div className="min-w-0">
              <OvenFloor
                oven={oven}
                hung={chosen.map((rack) => ({ rack, place: hanging[rack]?.place ?? "" }))}
                inHand={inHand}
                units={units}
                tap={tap}
              />
              <p className="small m-0" aria-live="polite">
                {inHand ? (
                  <>
                    In hand: <b className="fig">{inHand}</b>. Tap where it hangs.
                  </>
                ) : chosen.length > 0 ? (
                  "Tap a place to take its rack up again."
                ) : (
                  ""
                )}
              </p>
              {heaviest && chosen.length > 1 && hottest && (
                <p className={`small m-0 ${cold ? "text-watch" : "soft"}`}>
                  {heaviest.number} is the heaviest, {sectionWords(heaviest, units)}: it heats slowest, so hang it where
                  it is hottest, {hottest} by the newest survey.
                </p>
              )}
            </div>
          )}
        </div>
      </DndContext>
      <div className="grid max-w-[900px] grid-cols-[110px_120px_100px_minmax(0,1fr)_120px_120px] gap-3 max-[760px]:grid-cols-2">
        <div className="field">
          <label htmlFor="other">Other racks</label>
          <input id="other" {...held.register("other")} className="input" maxLength={120} placeholder="1046 1047" />
        </div>
        <div className="field">
          <label htmlFor="oven">Oven</label>
          <Choice
            id="oven"
            name="oven"
            className="input"
            value={ovenCode}
            onChange={(value) => {
              setOvenCode(value);
              // Places are the oven's own: in another one nothing hangs yet.
              setHanging(Object.fromEntries(chosen.map((n) => [n, { ...(hanging[n] ?? NOT_HUNG), place: "" }])));
            }}
          >
            {ovens.map((o) => (
              <option key={o.code}>{o.code}</option>
            ))}
          </Choice>
        </div>
        <div className="field">
          <label htmlFor="load">Load</label>
          <input id="load" {...held.register("load")} className="input" maxLength={40} required />
        </div>
        <div className="field" hidden={oven?.lamps}>
          <label htmlFor="timing">Timed</label>
          <Choice id="timing" {...held.choice("timing")} className="input">
            {timings.map(([value, label]) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </Choice>
        </div>
        <div className="field" hidden={oven?.lamps}>
          <label htmlFor="air">Oven reads, {units === "us" ? "°F" : "°C"}</label>
          <input id="air" {...held.register("air")} className="input num" inputMode="decimal" />
        </div>
        <div className="field" hidden={oven?.lamps}>
          <label htmlFor="setpoint">Set point, {units === "us" ? "°F" : "°C"}</label>
          <input id="setpoint" {...held.register("setpoint")} className="input num" inputMode="decimal" />
        </div>
      </div>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message}>
        {oven?.lamps ? "Lamps lit now" : "Door closed now"}
      </RecordRow>
      <SetAside setAside={setAside} busy={busy} />
    </form>
  );
}

function WaitingRow({
  rack,
  at,
  inHand,
  hung,
  note,
  cold,
  tick,
  put,
}: {
  rack: WaitingRack;
  at: { readonly place: string; readonly probe: string } | null;
  inHand: boolean;
  /** Has a place and may have a probe. */
  hung: boolean;
  note: string;
  cold: boolean;
  tick: (on: boolean) => void;
  put: (over: { place?: string; probe?: string }) => void;
}) {
  const { units } = usePreferences();
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: rack.number });
  return (
    <div
      ref={setNodeRef}
      className={`row min-h-[52px] grid-cols-[30px_minmax(0,1fr)] items-center ${isDragging ? "relative z-10 bg-sorrel-tint" : inHand ? "bg-sorrel-tint" : ""}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <button
        type="button"
        className="min-h-11 min-w-7 cursor-grab touch-none"
        aria-label={`Move ${rack.number}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical aria-hidden size={20} />
      </button>
      <div className="min-w-0">
        <label className="flex min-h-11 items-center gap-2">
          <Tick checked={at !== null} onChange={tick} />
          <b className="fig text-[17px]">{rack.number}</b>
          <span>
            {rack.part}{" "}
            <span className="small soft">
              {rack.metal.replaceAll("-", " ")}, {sectionWords(rack, units)}
              {rack.massKg === null ? "" : `, ${withUnit(rack.massKg, "mass", units)}`}
            </span>
          </span>
        </label>
        {at !== null && hung && (
          <div className="flex flex-wrap items-center gap-2 pb-1">
            <input
              className="input max-w-[90px]"
              aria-label={`Place of rack ${rack.number}`}
              placeholder="place"
              maxLength={20}
              value={at.place}
              onChange={(e) => put({ place: e.target.value })}
            />
            <input
              className="input max-w-[130px]"
              aria-label={`Probe on rack ${rack.number}`}
              placeholder="probe, if any"
              maxLength={40}
              value={at.probe}
              onChange={(e) => put({ probe: e.target.value })}
            />
            {note && <span className={`small ${cold ? "text-watch" : "soft"}`}>{note}</span>}
          </div>
        )}
      </div>
    </div>
  );
}
