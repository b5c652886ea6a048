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
import { scaleLinear } from "d3";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import type { Conflict, PlannedJob, StageOfWork } from "@/core/plan";
import { momentAfter, type WorkWeek } from "@/core/shifts";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";

export type BoardJob = {
  readonly number: string;
  readonly part: string;
  readonly customer: string;
  readonly powder: string;
  readonly pieces: number;
  readonly due: string;
  readonly dueHour: number | null;
  readonly planned: PlannedJob;
};
type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

const ROW = 56;
const LABEL = 250;
/** A day this narrow, px, keeps its line and drops its name. */
const NARROW_DAY = 46;
const stageFill: Record<StageOfWork, string> = {
  blast: "repeating-linear-gradient(45deg, var(--rule-strong) 0 3px, transparent 3px 7px)",
  wash: "repeating-linear-gradient(90deg, var(--rule-strong) 0 2px, transparent 2px 6px)",
  booth: "var(--sorrel-tint)",
  oven: "var(--sorrel)",
};
export const becauseText: Record<PlannedJob["because"], string> = {
  pinned: "set by a person",
  "same-colour": "next in the same colour",
  "due-first": "least time left",
  shortest: "no due date, shortest first",
};

/** Jobs against the stages' hours: a bar a stage; dragged, or moved by its buttons, a job is set and the rest planned round it. */
export function CalendarBoard({
  jobs,
  conflicts,
  fromIso,
  week,
  days,
  pin,
  mayPin,
}: {
  jobs: readonly BoardJob[];
  conflicts: readonly Conflict[];
  fromIso: string;
  week: WorkWeek;
  /** Working days from now on, the first only as much as is left of it. */
  days: readonly { readonly label: string; readonly hours: number }[];
  pin: (input: unknown) => Promise<Outcome>;
  mayPin: boolean;
}) {
  const router = useRouter();
  const [state, setState] = useState<{ busy: string | null; text: string }>({ busy: null, text: "" });
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const lastHour = days.reduce((sum, d) => sum + d.hours, 0);
  const width = days.length * Math.min(320, Math.max(80, Math.floor(640 / days.length)));
  const x = useMemo(() => scaleLinear([0, lastHour], [0, width]), [lastHour, width]);
  const put = async (job: string, hour: number | null) => {
    setState({ busy: job, text: "" });
    const moment = hour === null ? null : momentAfter(new Date(fromIso), Math.max(0, hour), week, "begins");
    if (moment && !moment.ok) return setState({ busy: null, text: failureText(moment.error) });
    const startAt = moment?.value.toISOString() ?? null;
    const outcome = await pin({ id: uuidv7(), job, startAt }).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setState({ busy: null, text: outcome.ok ? "" : failureText(outcome.failure) });
    if (outcome.ok) router.refresh();
  };
  const dropped = (e: DragEndEvent) => {
    const job = jobs.find((j) => j.number === e.active.id);
    const start = job?.planned.stages[0]?.fromHour;
    if (!job || start === undefined || Math.abs(e.delta.x) < 4) return;
    const hour = Math.round((start + x.invert(e.delta.x) - x.invert(0)) * 4) / 4;
    void put(job.number, Math.max(0, hour));
  };
  return (
    <DndContext sensors={sensors} onDragEnd={dropped} id="calendar">
      <section className="mt-4 overflow-x-auto" aria-label="Jobs on the stages">
        <div style={{ width: LABEL + width }}>
          <div className="flex border-b-2 border-ink" style={{ paddingLeft: LABEL }}>
            {days.map((d) => (
              <span
                key={d.label}
                className="small soft overflow-hidden whitespace-nowrap border-l border-rule pl-1"
                style={{ width: x(d.hours) - x(0) }}
              >
                {x(d.hours) - x(0) > NARROW_DAY ? d.label : ""}
              </span>
            ))}
          </div>
          {jobs.map((job) => {
            const mine = conflicts.filter((c) => c.job === job.number);
            return (
              <div key={job.number} className="flex items-center border-b border-rule" style={{ height: ROW + 6 }}>
                <span className="flex-none overflow-hidden whitespace-nowrap pr-2" style={{ width: LABEL }}>
                  <Link className="link fig font-bold" href={`/jobs/${job.number}`}>
                    {job.number}
                  </Link>{" "}
                  {job.part}
                  <span className="small soft block">
                    {job.pieces} × {job.powder}
                  </span>
                  {mine[0] ? (
                    <Verdict result="out">
                      {mine[0].kind === "late" ? `${mine[0].hours.toFixed(0)} h late` : `over ${mine[0].with}`}
                    </Verdict>
                  ) : (
                    <span className="small soft block">{becauseText[job.planned.because]}</span>
                  )}
                </span>
                <span className="relative flex-none" style={{ width, height: ROW }}>
                  {job.dueHour !== null && job.dueHour >= 0 && job.dueHour <= lastHour && (
                    <i
                      className="absolute top-0 bottom-0 w-0.5 bg-out"
                      style={{ left: x(job.dueHour) }}
                      title={`due ${job.due}`}
                    />
                  )}
                  <Bars job={job} x={x} mayPin={mayPin} late={mine.some((c) => c.kind === "late")} />
                </span>
                {mayPin && (
                  <span className="sr-only focus-within:not-sr-only">
                    {[-4, 4].map((by) => (
                      <button
                        key={by}
                        type="button"
                        className="btn"
                        disabled={state.busy === job.number}
                        onClick={() => void put(job.number, (job.planned.stages[0]?.fromHour ?? 0) + by)}
                      >
                        {by < 0 ? `${job.number}: four hours sooner` : `${job.number}: four hours later`}
                      </button>
                    ))}
                    {job.planned.pinned && (
                      <button type="button" className="btn" onClick={() => void put(job.number, null)}>
                        {job.number}: give back to the schedule
                      </button>
                    )}
                  </span>
                )}
              </div>
            );
          })}
        </div>
      </section>
      {state.text && (
        <p role="alert" className="text-out">
          {state.text}
        </p>
      )}
    </DndContext>
  );
}

function Bars({
  job,
  x,
  mayPin,
  late,
}: {
  job: BoardJob;
  x: (hour: number) => number;
  mayPin: boolean;
  late: boolean;
}) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: job.number, disabled: !mayPin });
  const first = job.planned.stages[0]?.fromHour ?? 0;
  return (
    <button
      type="button"
      ref={setNodeRef}
      {...(mayPin ? listeners : {})}
      {...attributes}
      aria-label={`${job.number}, ${job.planned.stages.map((s) => `${s.stage} ${s.fromHour.toFixed(1)} to ${s.toHour.toFixed(1)} h`).join(", ")}${job.planned.pinned ? ", set by a person" : ""}`}
      className={`absolute top-2.5 block h-9 border-0 bg-transparent p-0 ${mayPin ? "cursor-grab" : ""}`}
      style={{
        left: x(first),
        width: Math.max(8, x(job.planned.finishHour) - x(first)),
        transform: transform ? `translateX(${transform.x}px)` : undefined,
      }}
    >
      {job.planned.stages.map((s) => (
        <i
          key={s.stage}
          title={`${s.stage}, ${(s.toHour - s.fromHour).toFixed(1)} h`}
          className={`absolute top-0 block h-9 border-[1.5px] ${late ? "border-out" : "border-ink-2"} ${job.planned.pinned ? "border-b-4" : ""}`}
          style={{
            left: x(s.fromHour) - x(first),
            width: Math.max(4, x(s.toHour) - x(s.fromHour)),
            background: stageFill[s.stage],
          }}
        />
      ))}
    </button>
  );
}
