import { type BakeChannel, type OvenAir, type PowderSchedule, planLoad, plannedAt } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { HeatChart } from "../charts/heat-chart";
import { countOf } from "../format";
import { Grade, Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";

type Piece = {
  readonly id: string;
  readonly tauS: number;
  /** Fast and slow end of what is known of its time constant, s. */
  readonly bandS: readonly [number, number];
  readonly schedule: PowderSchedule;
};
const minutes = (s: number) => `${Math.round(s / 60)} min`;

/**
 * What a load needed by the oven's own model, beside the time it had: for one with a trace a comparison, for one timed by
 * the clock or the look of the film the only estimate there is, with its band.
 */
export function LoadNeeds({
  measured,
  inS: doorToPullS,
  air,
  plannedIndex,
  holdToo,
  lostS = 0,
  pieces,
  units,
}: {
  measured: readonly BakeChannel[];
  inS: number;
  air: OvenAir;
  plannedIndex: number;
  holdToo: boolean;
  /** Taken off the time it was in: the door stood open, and the oven had to come back, s. */
  lostS?: number;
  pieces: readonly Piece[];
  units: UnitSystem;
}) {
  const inS = doorToPullS - lostS;
  const with_ = (pick: (p: Piece) => number) =>
    planLoad(
      air,
      pieces.map((p) => ({ id: p.id, section: { tauS: pick(p) }, schedule: p.schedule, startC: 21 })),
      { leastIndex: plannedIndex, holdToo },
    );
  const [middle, slow, fast] = [with_((p) => p.tauS), with_((p) => p.bandS[1]), with_((p) => p.bandS[0])];
  if (!middle.ok) return <p className="mt-3 text-watch">{failureText(middle.error)}</p>;
  const plan = middle.value;
  return (
    <div className="ruled mt-5">
      <h2>What it needed, by the oven’s own model</h2>
      <p className="m-0">
        {plan.windowS ? (
          <>
            All of it is cured from <b className="fig">{minutes(plan.windowS[0])}</b>
            {plan.windowS[1] !== null && (
              <>
                {" "}
                and nothing over-baked until <b className="fig">{minutes(plan.windowS[1])}</b>
              </>
            )}
            ; it was in for <b className="fig">{minutes(doorToPullS)}</b>
            {lostS > 0 && `, ${minutes(lostS)} of it lost to the door`}.
          </>
        ) : (
          <>
            {plan.loads.length === 0
              ? "At this heat nothing in it is cured without being over-baked."
              : `No one moment cured all of it without over-baking some: ${countOf(plan.loads.length, "load")}, ${plan.loads
                  .map((l) => `${l.pieces.join(" ")} at ${minutes(l.windowS[0])}`)
                  .join("; ")}.`}{" "}
            It was in for <b className="fig">{minutes(doorToPullS)}</b>.
          </>
        )}
      </p>
      {plan.pieces.map((p) => {
        const index = plannedAt(p.index, inS);
        const band = [slow, fast].map((x) => {
          const own = x.ok ? x.value.pieces.find((o) => o.id === p.id) : undefined;
          return own ? plannedAt(own.index, inS) : index;
        });
        const [low, high] = [Math.min(...band), Math.max(...band)];
        const short = p.readyS === null ? null : p.readyS - inS;
        return (
          <div
            key={p.id}
            className="row grid-cols-[64px_220px_minmax(0,1fr)_170px] items-center max-[820px]:grid-cols-[64px_minmax(0,1fr)]"
          >
            <b className="fig">{p.id}</b>
            <span className="num">
              index <b>{index.toFixed(0)}</b>{" "}
              <span className="soft">
                ({low.toFixed(0)}–{high.toFixed(0)})
              </span>
            </span>
            <span className="soft">
              {short === null
                ? "not cured at this heat"
                : short > 0
                  ? `${minutes(short)} short of what is planned: index ${plannedIndex}${holdToo ? " and a hold of its sheet" : ""}`
                  : `${minutes(-short)} more than it needed`}
            </span>
            <span className="flex items-center gap-2">
              <Verdict result={low >= 100 ? "in" : high < 100 ? "out" : "watch"}>
                {low >= 100 ? "Safe" : high < 100 ? "Short" : "May be short"}
              </Verdict>
              <Grade grade="assumed" />
            </span>
          </div>
        );
      })}
      <div className="mt-3 overflow-x-auto">
        <HeatChart
          series={[
            ...measured.map((c) => ({
              name: c.name,
              kind: c.medium === "air" ? ("air" as const) : ("measured" as const),
              timeS: c.trace.timeS,
              tempC: c.trace.tempC,
            })),
            ...plan.pieces.map((p) => ({
              name: `${p.id}, foretold`,
              kind: "foretold" as const,
              timeS: p.timeS,
              tempC: p.metalC,
            })),
          ]}
          sheetC={[...new Set(pieces.map((p) => Math.min(...p.schedule.points.map((q) => q.metalC))))]}
          windowS={plan.windowS}
          marks={[{ s: doorToPullS, text: "pulled" }]}
          lastS={Math.max(doorToPullS * 1.25, 1800)}
          units={units}
          label="The load as measured and as foretold"
        />
      </div>
    </div>
  );
}
