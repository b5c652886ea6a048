import type { LoadAdvice } from "@/core/cure";
import { Verdict } from "../marks/verdict";

/** What to do with the load, in one line: pull now, not before a time, two pulls, or not at this heat. */
export function AdviceLine({ advice, at }: { advice: LoadAdvice; at: (inS: number) => string }) {
  const big = "fig text-[26px]";
  switch (advice.kind) {
    case "pull-now":
      return (
        <p className="m-0 flex flex-wrap items-center gap-3">
          <Verdict result="in">Pull now</Verdict>
          <span>
            Every rack is cured.{" "}
            {advice.spoilsInS !== null ? (
              <>
                Left in, {advice.spoils} is over-baked at <b className={big}>{at(advice.spoilsInS)}</b>.
              </>
            ) : (
              "Nothing in it is over-baked soon; it only costs heat."
            )}
          </span>
        </p>
      );
    case "not-before":
      return (
        <p className="m-0 flex flex-wrap items-baseline gap-3">
          <Verdict result="unknown">Not yet</Verdict>
          <span>
            Not before <b className={big}>{at(advice.inS)}</b>: {advice.waitsFor} is the slowest.
            {advice.spoilsInS !== null && ` At the latest ${at(advice.spoilsInS)}, or ${advice.spoils} is over-baked.`}
          </span>
        </p>
      );
    case "take-out-first":
      return (
        <p className="m-0 flex flex-wrap items-baseline gap-3">
          <Verdict result="watch">Two pulls</Verdict>
          <span>
            Take out {advice.first.join(", ")} at <b className={big}>{at(advice.inS)}</b>
            {advice.latestInS !== null && `, ${at(advice.latestInS)} at the latest`}
            {advice.afterwards.length > 0 ? `; leave ${advice.afterwards.join(", ")} in until cured.` : "."} No one
            moment cures all of it without spoiling some.
          </span>
        </p>
      );
    case "over-baked":
      return (
        <p className="m-0 flex flex-wrap items-center gap-3">
          <Verdict result="out">Pull now</Verdict>
          <span>
            {advice.pieces.join(", ")} had more heat than the sheet allows. Pull, and look at colour and gloss.
          </span>
        </p>
      );
    case "never":
      return (
        <p className="m-0 flex flex-wrap items-center gap-3">
          <Verdict result="out">Not at this heat</Verdict>
          <span>{advice.pieces.join(", ")} will not cure at this set point. Turn it up, or move to a hotter oven.</span>
        </p>
      );
  }
}
