"use client";
import { type FormEvent, useEffect, useState } from "react";
import {
  type InfraredAim,
  infraredAims,
  infraredDoubt,
  type PowderSchedule,
  type SectionReading,
  type SectionState,
  sectionStates,
} from "@/core/cure";
import { fahrenheitToC, type UnitSystem } from "@/core/units";
import { Choice } from "../fields/choice";
import { Dot, Group } from "../fields/one-of";
import { minutesSeconds, withUnit } from "../format";
import { Recorded } from "../forms/recorded";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Grade, Verdict } from "../marks/verdict";
import { parseTyped } from "../parse-typed";
import { aimName, doubtWords } from "../words/cure";
import { failureText } from "../words/failures";
import { usePull } from "./use-pull";

const TICK_MS = 1000;
/** A section is read again after so long, s, well before its stretch would break. */
const READ_EVERY_S = 120;

const stateWord = { "not-begun": "Not begun", "under-way": "Under the lamp", cured: "Cured" } as const;

/** A piece too large for an oven, section by section under lamps: each with its own metal, minutes and index, read by infrared. */
export function LampLoad({
  recordId,
  oven,
  load,
  rack,
  closedAtMs,
  sections,
  readings,
  schedule,
  plannedIndex,
  units,
  mayLog,
}: {
  recordId: string;
  oven: string;
  load: string;
  rack: string;
  closedAtMs: number;
  sections: readonly string[];
  readings: readonly SectionReading[];
  schedule: PowderSchedule;
  plannedIndex: number;
  units: UnitSystem;
  mayLog: boolean;
}) {
  const [nowS, setNowS] = useState(0);
  const newest = readings.reduce<SectionReading | null>((a, b) => (!a || b.atS >= a.atS ? b : a), null);
  const [chosen, setChosen] = useState(newest?.section ?? sections[0] ?? "");
  useEffect(() => {
    const tick = () => setNowS(Math.max(0, (Date.now() - closedAtMs) / 1000));
    tick();
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [closedAtMs]);
  const states = sectionStates(sections, readings, schedule, nowS, plannedIndex);
  if (!states.ok) return <p className="mt-4 text-out">{failureText(states.error)}</p>;
  const open = states.value.filter((s) => s.state !== "cured");
  const under = states.value.find((s) => s.section === chosen);
  return (
    <div>
      <div className="ruled mt-3" aria-live="polite">
        <p className="m-0 flex flex-wrap items-baseline gap-3">
          <Verdict result={open.length === 0 ? "in" : "unknown"}>
            {open.length === 0
              ? "Every section is cured"
              : `${states.value.length - open.length} of ${sections.length} cured`}
          </Verdict>
          {under && <Told state={under} units={units} />}
        </p>
      </div>
      <Group label="Section under the lamp" value={chosen} onChange={setChosen} className="mt-3">
        {states.value.map((s) => (
          <SectionRow
            key={s.section}
            state={s}
            nowS={nowS}
            chosen={s.section === chosen}
            plannedIndex={plannedIndex}
            units={units}
          />
        ))}
      </Group>
      {mayLog && <ReadingForm oven={oven} load={load} section={chosen} units={units} key={chosen} />}
      {mayLog && <LampsOff recordId={recordId} rack={rack} open={open.map((s) => s.section)} />}
    </div>
  );
}

/** A span as a clock shows it, 1:58. */
const ago = (seconds: number): string => {
  const s = Math.max(0, Math.round(seconds));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
};

/** What the section under the lamp needs, in a line. */
function Told({ state: s, units }: { state: SectionState; units: UnitSystem }) {
  const big = "fig text-[26px]";
  if (s.state === "cured") return <span>{s.section} is cured: move the lamp on.</span>;
  if (!s.last) return <span>{s.section}: light it, and read its metal as soon as it glosses.</span>;
  const at = withUnit(s.last.metalC, "temperature", units);
  if (s.broken)
    return (
      <span className="text-watch">
        {s.section} was last read too long ago: what came since counts nothing. Read it again.
      </span>
    );
  return s.moreS === null ? (
    <span>
      {s.section} at {at} earns nothing yet: nearer with the lamp, or wait.
    </span>
  ) : (
    <span>
      {s.section}: about <b className={big}>{minutesSeconds(s.moreS)}</b> more if it stays at {at}.
    </span>
  );
}

function SectionRow({
  state: s,
  nowS,
  chosen,
  plannedIndex,
  units,
}: {
  state: SectionState;
  nowS: number;
  chosen: boolean;
  plannedIndex: number;
  units: UnitSystem;
}) {
  const share = Math.min(1, s.indexNow / plannedIndex);
  const dueS = s.last && s.state !== "cured" ? READ_EVERY_S - (nowS - s.last.atS) : null;
  return (
    <label
      className={`row min-h-[60px] cursor-pointer grid-cols-[26px_minmax(0,1.3fr)_minmax(0,1fr)_96px_150px] items-center has-focus-visible:outline-2 has-focus-visible:outline-sorrel max-[900px]:grid-cols-[26px_minmax(0,1fr)_96px_150px] ${chosen ? "bg-sorrel-tint" : ""}`}
    >
      <Dot value={s.section} />
      <span>
        <b>{s.section}</b>
        <span className="small soft block">
          {s.last ? (
            <>
              {withUnit(s.last.metalC, "temperature", units)}, {ago(nowS - s.last.atS)} ago
              {s.heldS > 0 && ` · held ${ago(s.heldS)}`}
              {dueS !== null && (
                <>
                  {" · "}
                  <span className={dueS <= 0 ? "text-watch" : ""}>
                    {s.broken ? "stretch broken: read it twice" : dueS <= 0 ? "read it now" : `read in ${ago(dueS)}`}
                  </span>
                </>
              )}
            </>
          ) : (
            "not read yet"
          )}
          {s.doubted > 0 && ` · ${s.doubted} not relied on`}
        </span>
      </span>
      <svg viewBox="0 0 100 8" preserveAspectRatio="none" className="h-2 w-full max-[900px]:hidden" aria-hidden="true">
        <rect x="0" y="0" width="100" height="8" fill="var(--rule)" />
        <rect x="0" y="0" width={100 * share} height="8" fill={s.state === "cured" ? "var(--in)" : "var(--sorrel)"} />
      </svg>
      <span className="num">
        index <b>{s.indexNow.toFixed(0)}</b> <Grade grade={s.grade} />
      </span>
      <Verdict result={s.state === "cured" ? "in" : s.broken ? "watch" : "unknown"}>{stateWord[s.state]}</Verdict>
    </label>
  );
}

/** The metal of the section under the lamp, with where the thermometer was pointed. */
function ReadingForm({
  oven,
  load,
  section,
  units,
}: {
  oven: string;
  load: string;
  section: string;
  units: UnitSystem;
}) {
  const held = useEntryForm(`lamp reading ${oven} ${load} ${section}`, {
    value: "",
    emissivity: "0.95",
    aim: "coated-part" as InfraredAim,
  });
  const [value, setValue] = held.field("value");
  const [emissivity, setEmissivity] = held.field("emissivity");
  const [aim, setAim] = held.field("aim");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const us = units === "us";
  const number = (text: string) => {
    const read = parseTyped(text);
    return read.ok ? read.value : Number.NaN;
  };
  const doubt = infraredDoubt({ atS: 0, metalC: 0, emissivity: number(emissivity), aim });
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    const metalC = us ? fahrenheitToC(number(value)) : number(value);
    if (!Number.isFinite(metalC)) return setProblem(failureText({ kind: "not-a-number", text: value }));
    if (!doubt.ok) return setProblem(failureText(doubt.error));
    const sent = await send({
      kind: "bake-event",
      oven,
      loadNo: load,
      event: "infrared",
      valueC: metalC,
      emissivity: number(emissivity),
      aim,
      section,
      note: "",
    });
    if (sent) setValue("");
  };
  return (
    <form onSubmit={submit} noValidate className="no-print mt-4 grid gap-2">
      {held.said}
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-[150px]">
          <TypedNumber id="section-value" label={`${section}, ${us ? "°F" : "°C"}`} text={value} change={setValue} />
        </div>
        <div className="w-[100px]">
          <TypedNumber id="section-emissivity" label="Emissivity" text={emissivity} change={setEmissivity} />
        </div>
        <div className="field w-[150px]">
          <label htmlFor="section-aim">Pointed at</label>
          <Choice id="section-aim" className="input" value={aim} onChange={(value) => setAim(value as InfraredAim)}>
            {infraredAims.map((a) => (
              <option key={a} value={a}>
                {aimName[a]}
              </option>
            ))}
          </Choice>
        </div>
        <button type="submit" className="btn pri" disabled={busy}>
          {busy ? "Recording …" : "Record the reading"}
        </button>
      </div>
      {doubt.ok && doubt.value && <p className="small m-0 text-watch">{doubtWords[doubt.value]}</p>}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <Recorded message={message} />
    </form>
  );
}

/** The end of it: one press where every section is cured, a second one where some are not. */
function LampsOff({ recordId, rack, open }: { recordId: string; rack: string; open: readonly string[] }) {
  const [asked, setAsked] = useState(false);
  const { busy, text, pull } = usePull(recordId);
  const press = () => {
    if (open.length > 0 && !asked) setAsked(true);
    else void pull();
  };
  return (
    <div className="no-print ruled mt-6 flex flex-wrap items-center gap-3">
      <button type="button" className={`btn ${open.length === 0 ? "pri" : ""}`} disabled={busy} onClick={press}>
        {busy ? "Recording …" : asked && open.length > 0 ? "Off all the same" : "Lamps off, done"}
      </button>
      {asked && open.length > 0 && (
        <span role="alert" className="text-watch">
          {open.join(", ")} {open.length === 1 ? "is" : "are"} not cured: rack {rack} is then judged so.
        </span>
      )}
      {text && <output className="text-out">{text}</output>}
    </div>
  );
}
