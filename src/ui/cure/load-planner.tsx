"use client";
import { DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { useMemo, useState } from "react";
import type { LoadPlan, PowderSchedule, SetPoint } from "@/core/cure";
import { USUAL_ROOM_C } from "@/core/cure";
import { fahrenheitToC } from "@/core/units";
import { Choice } from "../fields/choice";
import { withUnit } from "../format";
import { TypedNumber } from "../forms/typed-number";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { NoneSetUp } from "../shop/none-set-up";
import { AddPiece } from "./add-piece";
import { MOST_LOADS, type Placed, type PlannerOven, type PlannerPiece, planOf } from "./planner";
import { LoadColumn } from "./planner-load";
import { underPointer } from "./under-pointer";

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
  const [pieces, setPieces] = useState<readonly Placed[]>(() =>
    racks.map((r) => ({ ...r, load: 0, startC: USUAL_ROOM_C })),
  );
  const [setText, setSetText] = useState<string | null>(null);
  const typed = parseTyped(setText ?? "");
  const setPointC =
    setText === null || !typed.ok
      ? (oven?.usualSetPointC ?? 205)
      : units === "us"
        ? fahrenheitToC(typed.value)
        : typed.value;
  const [then, setThen] = useState({ airText: "", afterText: "" });
  const [thenRead, afterRead] = [parseTyped(then.airText), parseTyped(then.afterText)];
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
  if (!oven) return <NoneSetUp what="batch oven" href="/cure/ovens/new/set-up" />;
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
    <DndContext sensors={sensors} collisionDetection={underPointer} onDragEnd={dropped}>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <div className="field w-[130px]">
          <label htmlFor="plan-oven">Oven</label>
          <Choice id="plan-oven" className="input" value={oven.code} onChange={setOvenCode}>
            {ovens.map((o) => (
              <option key={o.code}>{o.code}</option>
            ))}
          </Choice>
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
        Array.from({ length: shown }, (_, i) => i).map((load) => (
          <LoadColumn
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
