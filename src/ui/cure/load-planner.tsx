"use client";
import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { type FormEvent, useMemo, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import {
  type LoadPlan,
  loadEnergy,
  loadedAirTauS,
  type Metal,
  metals,
  type PowderSchedule,
  planLoad,
  plannedAt,
  plateTimeConstant,
  type SetPoint,
} from "@/core/cure";
import type { Result } from "@/core/result";
import { fahrenheitToC, parseNumber, type UnitSystem } from "@/core/units";
import { HeatChart } from "../charts/heat-chart";
import { withUnit } from "../format";
import { TypedNumber } from "../forms/typed-number";
import { Grade, Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

export type PlannerOven = {
  readonly code: string;
  readonly usualSetPointC: number;
  readonly mostSetPointC: number;
  readonly airAtDoorC: number;
  readonly emptyTauS: number;
  readonly fullTauS: number;
  readonly fullKgSteel: number;
  readonly idleKw: number;
  readonly efficiency: number;
  /** Effective heat transfer learnt by section class, and from how many bakes. */
  readonly learnt: readonly {
    readonly mostMm: number;
    readonly hWPerM2K: number;
    readonly bakes: number;
    readonly grade: "measured" | "assumed";
  }[];
};
export type PlannerPiece = {
  readonly id: string;
  readonly what: string;
  readonly metal: Metal;
  readonly sectionMm: number;
  readonly massKg: number | null;
  readonly powder: string;
  readonly schedule: PowderSchedule;
};
type Placed = PlannerPiece & { readonly load: number; readonly startC: number };

const ROOM_C = 21;
/** Without a weight a rack counts as so much in the oven, kg; said beside the estimate. */
const UNKNOWN_MASS_KG = 60;
const MOST_LOADS = 4;
const STEPS_C = [-15, 0, 10, 20];
const minutes = (s: number) => `${Math.round(s / 60)} min`;

const learntFor = (oven: PlannerOven, sectionMm: number) =>
  oven.learnt.find((l) => sectionMm <= l.mostMm) ?? { hWPerM2K: 25, bakes: 0, grade: "assumed" as const };

/** The plan of one load: its air made slower by what hangs in it, each piece by what this oven has learnt of its section. */
function planOf(
  oven: PlannerOven,
  pieces: readonly Placed[],
  program: readonly SetPoint[],
  asked: { readonly leastIndex: number; readonly holdToo: boolean },
): Result<LoadPlan> {
  const weighed = pieces.map((p) => ({ metal: p.metal, massKg: p.massKg ?? UNKNOWN_MASS_KG }));
  return planLoad(
    {
      startC: oven.airAtDoorC,
      tauS: loadedAirTauS(oven, weighed),
      program,
    },
    pieces.map((p) => ({
      id: p.id,
      section: { metal: p.metal, sectionMm: p.sectionMm, hWPerM2K: learntFor(oven, p.sectionMm).hWPerM2K },
      schedule: p.schedule,
      startC: p.startC,
    })),
    asked,
  );
}

/** Pieces put into loads, by drag or by key: when each load can be pulled, which piece waits, which spoils, and what it costs in heat. */
export function LoadPlanner({
  ovens,
  racks,
  powders,
  plannedIndex,
  holdToo,
}: {
  ovens: readonly PlannerOven[];
  racks: readonly PlannerPiece[];
  powders: readonly { readonly name: string; readonly schedule: PowderSchedule }[];
  plannedIndex: number;
  holdToo: boolean;
}) {
  const { units } = usePreferences();
  const [ovenCode, setOvenCode] = useState(ovens[0]?.code ?? "");
  const oven = ovens.find((o) => o.code === ovenCode) ?? ovens[0];
  const [pieces, setPieces] = useState<readonly Placed[]>(() => racks.map((r) => ({ ...r, load: 0, startC: ROOM_C })));
  const [setText, setSetText] = useState<string | null>(null);
  const typed = parseNumber(setText ?? "");
  const setPointC =
    setText === null || !typed.ok
      ? (oven?.usualSetPointC ?? 205)
      : units === "us"
        ? fahrenheitToC(typed.value)
        : typed.value;
  const [then, setThen] = useState({ airText: "", afterText: "" });
  const [thenRead, afterRead] = [parseNumber(then.airText), parseNumber(then.afterText)];
  const program = useMemo((): SetPoint[] => {
    const first = { fromS: 0, airC: setPointC };
    if (!thenRead.ok || !afterRead.ok || afterRead.value <= 0) return [first];
    return [
      first,
      { fromS: afterRead.value * 60, airC: units === "us" ? fahrenheitToC(thenRead.value) : thenRead.value },
    ];
  }, [setPointC, thenRead, afterRead, units]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const used = Math.max(0, ...pieces.map((p) => p.load));
  const shown = Math.min(MOST_LOADS, used + 2);
  const plans = useMemo(
    () =>
      Array.from({ length: MOST_LOADS }, (_, load) => {
        const mine = pieces.filter((p) => p.load === load);
        return oven && mine.length > 0 ? planOf(oven, mine, program, { leastIndex: plannedIndex, holdToo }) : null;
      }),
    [oven, pieces, program, plannedIndex, holdToo],
  );
  if (!oven) return <p>No batch oven is set up. The administrator adds one.</p>;
  const move = (id: string, load: number) =>
    setPieces((all) => all.map((p) => (p.id === id ? { ...p, load: Math.max(0, Math.min(MOST_LOADS - 1, load)) } : p)));
  const change = (id: string, over: Partial<Placed>) =>
    setPieces((all) => all.map((p) => (p.id === id ? { ...p, ...over } : p)));
  const dropped = (e: DragEndEvent) => {
    const to = /^load-(\d)$/.exec(String(e.over?.id ?? ""))?.[1];
    if (to !== undefined) move(String(e.active.id), Number(to));
  };
  const split = (load: number, plan: LoadPlan) =>
    setPieces((all) =>
      all.map((p) => {
        if (p.load !== load) return p;
        const at = plan.loads.findIndex((l) => l.pieces.includes(p.id));
        // The first group stays; each other goes to the next load that is empty.
        const free = Array.from({ length: MOST_LOADS }, (_, i) => i).filter(
          (i) => i !== load && !all.some((q) => q.load === i),
        );
        return at <= 0 ? p : { ...p, load: free[at - 1] ?? p.load };
      }),
    );
  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <div className="field w-[130px]">
          <label htmlFor="plan-oven">Oven</label>
          <select id="plan-oven" className="input" value={oven.code} onChange={(e) => setOvenCode(e.target.value)}>
            {ovens.map((o) => (
              <option key={o.code}>{o.code}</option>
            ))}
          </select>
        </div>
        <div className="w-[120px]">
          <TypedNumber
            id="plan-set"
            label={`Set point, ${units === "us" ? "°F" : "°C"}`}
            text={setText ?? withUnit(setPointC, "temperature", units).split(" ")[0] ?? ""}
            change={setSetText}
          />
        </div>
        <div className="w-[110px]">
          <TypedNumber
            id="plan-after"
            label="Then, after min"
            text={then.afterText}
            change={(afterText) => setThen((b) => ({ ...b, afterText }))}
          />
        </div>
        <div className="w-[110px]">
          <TypedNumber
            id="plan-then"
            label={`down to, ${units === "us" ? "°F" : "°C"}`}
            text={then.airText}
            change={(airText) => setThen((b) => ({ ...b, airText }))}
          />
        </div>
        <AddPiece powders={powders} units={units} add={(p) => setPieces((all) => [...all, p])} />
      </div>
      {setPointC > oven.mostSetPointC && (
        <p role="alert" className="text-out">
          {withUnit(setPointC, "temperature", units)} is more than this oven may be set to,{" "}
          {withUnit(oven.mostSetPointC, "temperature", units)}.
        </p>
      )}
      {pieces.length === 0 && (
        <p className="mt-4">No coated rack is waiting. Put pieces in by hand to see what a load would need.</p>
      )}
      {pieces.length > 0 &&
        Array.from({ length: shown }, (_, load) => (
          <LoadColumn
            // biome-ignore lint/suspicious/noArrayIndexKey: a load is its place
            key={load}
            load={load}
            loads={shown}
            oven={oven}
            program={program}
            asked={{ leastIndex: plannedIndex, holdToo }}
            pieces={pieces.filter((p) => p.load === load)}
            plan={plans[load] ?? null}
            units={units}
            move={move}
            change={change}
            remove={(id) => setPieces((all) => all.filter((p) => p.id !== id))}
            split={split}
          />
        ))}
    </DndContext>
  );
}

function LoadColumn({
  load,
  loads,
  oven,
  program,
  asked,
  pieces,
  plan,
  units,
  move,
  change,
  remove,
  split,
}: {
  load: number;
  loads: number;
  oven: PlannerOven;
  program: readonly SetPoint[];
  asked: { readonly leastIndex: number; readonly holdToo: boolean };
  pieces: readonly Placed[];
  plan: Result<LoadPlan> | null;
  units: UnitSystem;
  move: (id: string, load: number) => void;
  change: (id: string, over: Partial<Placed>) => void;
  remove: (id: string) => void;
  split: (load: number, plan: LoadPlan) => void;
}) {
  const setPointC = program[0]?.airC ?? oven.usualSetPointC;
  const { setNodeRef, isOver } = useDroppable({ id: `load-${load}` });
  const good = plan?.ok ? plan.value : null;
  const pullS = good?.windowS?.[0] ?? good?.loads.at(-1)?.windowS[0] ?? 0;
  const energy =
    good && pieces.length > 0
      ? loadEnergy({
          pieces: pieces.map((p) => ({
            metal: p.metal,
            massKg: p.massKg ?? UNKNOWN_MASS_KG,
            fromC: p.startC,
            toC: setPointC,
          })),
          idleKw: oven.idleKw,
          bakeS: pullS,
          efficiency: oven.efficiency,
        })
      : null;
  const guessed = pieces.filter((p) => p.massKg === null).length;
  const others = STEPS_C.filter((d) => d !== 0 && setPointC + d <= oven.mostSetPointC && setPointC + d > 120).map(
    (d) => {
      const p =
        pieces.length > 0
          ? planOf(oven, pieces, [{ fromS: 0, airC: setPointC + d }, ...program.slice(1)], asked)
          : null;
      return { d, plan: p?.ok ? p.value : null };
    },
  );
  return (
    <section
      ref={setNodeRef}
      aria-label={`Load ${load + 1}`}
      className={`ruled mt-5 min-h-[64px] ${isOver ? "bg-sorrel-tint" : ""}`}
    >
      <h2 className="flex flex-wrap items-center gap-3">
        Load {load + 1}
        {good?.windowS && (
          <span className="font-normal">
            pull from <b className="fig text-[22px]">{minutes(good.windowS[0])}</b>
            {good.windowS[1] !== null && (
              <>
                {" "}
                to <b className="fig text-[22px]">{minutes(good.windowS[1])}</b>
              </>
            )}{" "}
            <Verdict result="in">One pull</Verdict>
          </span>
        )}
        {good && !good.windowS && good.never.length === 0 && (
          <span className="flex flex-wrap items-center gap-3 font-normal">
            <Verdict result="out">No one pull</Verdict>
            <button type="button" className="btn" onClick={() => split(load, good)}>
              Split into {good.loads.length} loads
            </button>
          </span>
        )}
        {good && good.never.length > 0 && <Verdict result="out">{good.never.join(", ")} not cured</Verdict>}
      </h2>
      {pieces.length === 0 && <p className="soft m-0 py-2">Empty: drag a piece here, or choose its load beside it.</p>}
      {plan && !plan.ok && <p className="text-out">{failureText(plan.error)}</p>}
      {pieces.map((p) => (
        <PieceRow
          key={p.id}
          piece={p}
          planned={good?.pieces.find((x) => x.id === p.id) ?? null}
          pullS={pullS}
          loads={loads}
          grade={learntFor(oven, p.sectionMm).grade}
          units={units}
          move={move}
          change={change}
          remove={remove}
        />
      ))}
      {good && (
        <>
          <div className="mt-2 overflow-x-auto">
            <HeatChart
              series={good.pieces.map((p) => ({ name: p.id, kind: "foretold", timeS: p.timeS, tempC: p.metalC }))}
              sheetC={[...new Set(pieces.map((p) => Math.min(...p.schedule.points.map((q) => q.metalC))))]}
              windowS={good.windowS}
              lastS={Math.min(4 * 3600, Math.max(1800, ...good.loads.map((l) => (l.windowS[1] ?? l.windowS[0]) + 600)))}
              units={units}
              label={`Load ${load + 1}: metal of each piece over the minutes since the door`}
              height={210}
            />
          </div>
          <p className="m-0 mt-1">
            {good.windowS && good.slowest && (
              <>
                It waits for <b>{good.slowest}</b>
                {good.fastest && (
                  <>
                    ; <b>{good.fastest}</b> is over-baked first
                  </>
                )}
                .{" "}
              </>
            )}
            {energy?.ok && (
              <>
                About <b className="fig">{energy.value.supplyKWh.toFixed(0)} kWh</b>, {energy.value.metalKWh.toFixed(1)}{" "}
                of it in the metal <Grade grade="assumed" />
                {guessed > 0 && (
                  <span className="soft">
                    {" "}
                    ({guessed} {guessed === 1 ? "piece" : "pieces"} without a weight counted as {UNKNOWN_MASS_KG} kg)
                  </span>
                )}
              </>
            )}
          </p>
          <p className="m-0 mt-1 flex flex-wrap gap-x-5">
            {others.map(({ d, plan: p }) => (
              <span key={d}>
                at {withUnit(setPointC + d, "temperature", units)}:{" "}
                <b className="fig">
                  {p?.windowS
                    ? `${minutes(p.windowS[0])}${p.windowS[1] === null ? "" : ` to ${minutes(p.windowS[1])}`}`
                    : p && p.never.length === 0
                      ? `${p.loads.length} loads`
                      : "not cured"}
                </b>
              </span>
            ))}
          </p>
        </>
      )}
    </section>
  );
}

function PieceRow({
  piece,
  planned,
  pullS,
  loads,
  grade,
  units,
  move,
  change,
  remove,
}: {
  piece: Placed;
  planned: LoadPlan["pieces"][number] | null;
  pullS: number;
  loads: number;
  grade: "measured" | "assumed";
  units: UnitSystem;
  move: (id: string, load: number) => void;
  change: (id: string, over: Partial<Placed>) => void;
  remove: (id: string) => void;
}) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: piece.id });
  const [warm, setWarm] = useState("");
  return (
    <div
      ref={setNodeRef}
      className={`row min-h-[48px] grid-cols-[34px_64px_minmax(0,1fr)_minmax(0,190px)_116px_130px] items-center max-[900px]:grid-cols-[34px_74px_minmax(0,1fr)] ${isDragging ? "relative z-10 bg-sorrel-tint" : ""}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <button
        type="button"
        className="grip min-h-11 min-w-8 cursor-grab text-[18px] leading-none"
        aria-label={`Move ${piece.id}`}
        {...attributes}
        {...listeners}
      >
        ⋮⋮
      </button>
      <b className="fig">{piece.id}</b>
      <span>
        {piece.what}{" "}
        <span className="soft small">
          {piece.metal.replaceAll("-", " ")}, {piece.sectionMm} mm
          {piece.massKg === null ? "" : `, ${piece.massKg.toFixed(0)} kg`} · {piece.powder}
        </span>
      </span>
      <span className="max-[900px]:col-start-3">
        {planned?.reachesS === null || planned?.reachesS === undefined
          ? "never at temperature"
          : `at ${withUnit(planned.toC, "temperature", units)} in ${minutes(planned.reachesS)}`}
        {planned && (
          <>
            , index <b>{plannedAt(planned.index, pullS).toFixed(0)}</b> at {minutes(pullS)}
          </>
        )}{" "}
        <Grade grade={grade} />
        {planned && !planned.lumpedHolds && <span className="small text-watch"> core lags</span>}
      </span>
      <label className="small soft flex items-center gap-1.5 max-[900px]:col-start-3">
        in at
        <input
          className="input num max-w-[74px]"
          inputMode="decimal"
          placeholder={withUnit(ROOM_C, "temperature", units).split(" ")[0]}
          aria-label={`Metal of ${piece.id} when it goes in`}
          value={warm}
          onChange={(e) => {
            setWarm(e.target.value);
            const read = parseNumber(e.target.value);
            change(piece.id, {
              startC: read.ok ? (units === "us" ? fahrenheitToC(read.value) : read.value) : ROOM_C,
            });
          }}
        />
      </label>
      <span className="flex items-center gap-2 max-[900px]:col-start-3">
        <select
          className="input max-w-[86px]"
          aria-label={`Load of ${piece.id}`}
          value={piece.load}
          onChange={(e) => move(piece.id, Number(e.target.value))}
        >
          {Array.from({ length: loads }, (_, i) => i + 1).map((n) => (
            <option key={n} value={n - 1}>
              load {n}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="link small min-h-11"
          onClick={() => remove(piece.id)}
          aria-label={`Leave ${piece.id} out`}
        >
          out
        </button>
      </span>
    </div>
  );
}

function AddPiece({
  powders,
  units,
  add,
}: {
  powders: readonly { readonly name: string; readonly schedule: PowderSchedule }[];
  units: UnitSystem;
  add: (piece: Placed) => void;
}) {
  const [name, setName] = useState("");
  const [metal, setMetal] = useState<Metal>("steel");
  const [section, setSection] = useState("");
  const [powder, setPowder] = useState(powders[0]?.name ?? "");
  const [problem, setProblem] = useState<string | null>(null);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    const read = parseNumber(section);
    if (!read.ok) return setProblem(failureText(read.error));
    const sectionMm = units === "us" ? read.value * 25.4 : read.value;
    const can = plateTimeConstant({ material: metal, plateMm: sectionMm });
    if (!can.ok) return setProblem(failureText(can.error));
    const schedule = powders.find((p) => p.name === powder)?.schedule;
    if (!schedule) return setProblem("Choose a powder: its sheet says what is cured.");
    add({
      id: name.trim() || uuidv7().slice(-4),
      what: "put in by hand",
      metal,
      sectionMm: Math.round(sectionMm * 10) / 10,
      massKg: null,
      powder,
      schedule,
      load: 0,
      startC: ROOM_C,
    });
    setName("");
    setSection("");
  };
  return (
    <form onSubmit={submit} noValidate className="flex flex-wrap items-end gap-3">
      <div className="field w-[100px]">
        <label htmlFor="piece-name">A piece</label>
        <input
          id="piece-name"
          className="input"
          value={name}
          maxLength={20}
          onChange={(e) => setName(e.target.value)}
        />
      </div>
      <div className="field w-[130px]">
        <label htmlFor="piece-metal">Metal</label>
        <select id="piece-metal" className="input" value={metal} onChange={(e) => setMetal(e.target.value as Metal)}>
          {Object.keys(metals).map((m) => (
            <option key={m} value={m}>
              {m.replaceAll("-", " ")}
            </option>
          ))}
        </select>
      </div>
      <div className="w-[100px]">
        <TypedNumber
          id="piece-section"
          label={`Section, ${units === "us" ? "in" : "mm"}`}
          text={section}
          change={setSection}
        />
      </div>
      <div className="field w-[170px]">
        <label htmlFor="piece-powder">Powder</label>
        <select id="piece-powder" className="input" value={powder} onChange={(e) => setPowder(e.target.value)}>
          {powders.map((p) => (
            <option key={p.name}>{p.name}</option>
          ))}
        </select>
      </div>
      <button type="submit" className="btn">
        Put it in
      </button>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
    </form>
  );
}
