"use client";
import { useDraggable, useDroppable } from "@dnd-kit/core";
import { GripVertical } from "lucide-react";
import { useState } from "react";
import { type LoadPlan, loadEnergy, plannedAt, type SetPoint, USUAL_ROOM_C } from "@/core/cure";
import type { Result } from "@/core/result";
import { fahrenheitToC, type UnitSystem } from "@/core/units";
import { HeatChart } from "../charts/heat-chart";
import { Choice } from "../fields/choice";
import { withUnit } from "../format";
import Link from "../link";
import { Grade, Verdict } from "../marks/verdict";
import { parseTyped } from "../parse-typed";
import { sectionWords } from "../words/cure";
import { failureText } from "../words/failures";
import { plannedHref } from "./planned-start";
import { learntFor, minutes, type Placed, type PlannerOven, planOf, STEPS_C, UNKNOWN_MASS_KG } from "./planner";

/** One load of the plan: its pull, its pieces, their heat, what it costs, and other set points. */
export function LoadColumn({
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
  // When the slowest is ready, were all of them as quick or as slow as the next bake may be.
  const readyBy = (end: "slow" | "quick") => {
    const p = pieces.length > 0 ? planOf(oven, pieces, program, asked, end) : null;
    if (!p?.ok || p.value.never.length > 0) return null;
    return Math.max(...p.value.pieces.map((x) => x.readyS ?? 0));
  };
  const [soonest, latest] = good?.windowS ? [readyBy("quick"), readyBy("slow")] : [null, null];
  const racks = pieces.flatMap((p) => p.rack ?? []);
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
            {soonest !== null && (
              <span className="small soft">
                {latest === null
                  ? `cured in ${minutes(soonest)} at the soonest; where it heats slowly, not at this heat `
                  : `cured in ${minutes(soonest)} to ${minutes(latest)}, nine times in ten `}
              </span>
            )}
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
          grade={learntFor(oven, p).grade}
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
          {racks.length > 0 && (
            <p className="no-print m-0 mt-1">
              <Link className="link" href={plannedHref({ racks, oven: oven.code, setPointC })}>
                Hang {racks.join(", ")} in {oven.code} as planned
              </Link>
            </p>
          )}
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
      className={`row min-h-[48px] grid-cols-[34px_64px_minmax(0,1fr)_minmax(0,190px)_116px_130px] items-center max-[900px]:grid-cols-[34px_64px_minmax(0,1fr)_118px] max-[900px]:gap-y-0 ${isDragging ? "relative z-10 bg-sorrel-tint" : ""}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <button
        type="button"
        className="grip min-h-11 min-w-8 cursor-grab"
        aria-label={`Move ${piece.id}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical aria-hidden size={20} />
      </button>
      <b className="fig">{piece.id}</b>
      <span>
        {piece.what}{" "}
        <span className="soft small">
          {piece.metal.replaceAll("-", " ")}, {sectionWords(piece, units)}
          {piece.massKg === null ? "" : `, ${withUnit(piece.massKg, "mass", units)}`} · {piece.powder}
        </span>
      </span>
      <span className="max-[900px]:order-1 max-[900px]:col-start-3">
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
      <label className="small soft flex items-center gap-1.5 max-[900px]:justify-end">
        in at
        <input
          className="input num max-w-[74px]"
          inputMode="decimal"
          placeholder={withUnit(USUAL_ROOM_C, "temperature", units).split(" ")[0]}
          aria-label={`Metal of ${piece.id} when it goes in`}
          value={warm}
          onChange={(e) => {
            setWarm(e.target.value);
            const read = parseTyped(e.target.value);
            change(piece.id, {
              startC: read.ok ? (units === "us" ? fahrenheitToC(read.value) : read.value) : USUAL_ROOM_C,
            });
          }}
        />
      </label>
      <span className="flex items-center gap-2 max-[900px]:order-1">
        <Choice
          className="input max-w-[86px]"
          aria-label={`Load of ${piece.id}`}
          value={piece.load}
          onChange={(value) => move(piece.id, Number(value))}
        >
          {Array.from({ length: loads }, (_, i) => i + 1).map((n) => (
            <option key={n} value={n - 1}>
              load {n}
            </option>
          ))}
        </Choice>
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
