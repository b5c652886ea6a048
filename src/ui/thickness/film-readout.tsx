import type { Result } from "@/core/result";
import type { FilmVerdict } from "@/core/thickness";
import type { UnitSystem } from "@/core/units";
import { figure } from "../format";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";
import { filmReason } from "../words/reasons";

type Judged = Result<FilmVerdict>;

/** The four figures of a film as it is read: mean, spread of its spots, the lowest of them, how many readings of how many. */
export function FilmFigures({
  meanUm,
  sdUm,
  lowestUm,
  limits,
  read,
  asked,
  units,
}: {
  meanUm: number | null;
  sdUm: number | null;
  lowestUm: number | null;
  /** What is asked of the mean, and the least a spot may read. */
  limits: { readonly minUm: number; readonly lowestUm: number };
  read: number;
  asked: number;
  units: UnitSystem;
}) {
  const big = "fig whitespace-nowrap text-[26px] font-bold leading-none max-[1000px]:text-[20px]";
  const { unit } = figure(0, "thickness", units);
  const withItsUnit = (text: string) => (
    <>
      {text} <span className="text-[14px] font-medium max-[1000px]:text-[12px]">{unit}</span>
    </>
  );
  const film = (valueUm: number | null) =>
    withItsUnit(valueUm === null ? "–" : figure(valueUm, "thickness", units).text);
  return (
    <div className="ruled grid grid-cols-[repeat(4,auto)] items-baseline gap-x-3 gap-y-1 max-[1000px]:gap-x-2">
      {["mean", "spots differ by", "lowest spot", "readings"].map((w) => (
        <span key={w} className="small soft">
          {w}
        </span>
      ))}
      <span className={big}>{film(meanUm)}</span>
      <span className={big}>
        {withItsUnit(sdUm === null ? "–" : units === "us" ? (sdUm / 25.4).toFixed(2) : sdUm.toFixed(1))}
      </span>
      <span
        className={`${big} ${lowestUm !== null && lowestUm < limits.lowestUm ? "text-out" : lowestUm !== null && lowestUm < limits.minUm ? "text-watch" : ""}`}
      >
        {film(lowestUm)}
      </span>
      <span className={big}>
        {read}
        <span className={`font-medium ${read > 999 ? "text-[11px]" : "text-[14px] max-[1000px]:text-[12px]"}`}>
          {" "}
          of {asked}
        </span>
      </span>
    </div>
  );
}

/** Reasons shown at most; the rest are counted. */
const REASONS_SHOWN = 5;

/** How the film stands by its rule, each reason with its figure. */
export function RuleStanding({ judged, units }: { judged: Judged; units: UnitSystem }) {
  const reasons = judged.ok ? judged.value.reasons : [];
  return (
    <div className="ruled mt-3" aria-live="polite">
      <h2>How it stands by the rule</h2>
      {!judged.ok && <p className="mt-1.5">{failureText(judged.error)}</p>}
      {judged.ok && judged.value.result === "in" && reasons.length === 0 && (
        <div className="row grid-cols-[96px_1fr]">
          <Verdict result="in">In</Verdict>
          <span>Mean and every spot inside the range</span>
        </div>
      )}
      {reasons.slice(0, REASONS_SHOWN).map((reason) => {
        const said = filmReason(reason, units);
        return (
          <div key={`${said.word}${said.text}`} className="row grid-cols-[100px_minmax(0,1fr)_auto]">
            <Verdict result={said.result}>{said.word}</Verdict>
            <span>{said.text}</span>
            <span className="num whitespace-nowrap">{said.figure}</span>
          </div>
        );
      })}
      {reasons.length > REASONS_SHOWN && <p className="small soft">and {reasons.length - REASONS_SHOWN} more</p>}
    </div>
  );
}
