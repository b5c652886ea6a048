import type { CoachRisk } from "@/core/coating";
import type { UnitSystem } from "@/core/units";
import { coachBecause, coachMove } from "../words/coating";

/** The two or three risks most likely now, and what to change first for each. */
export function CoachLines({ risks, units }: { risks: readonly CoachRisk[]; units: UnitSystem }) {
  if (risks.length === 0) return <p className="soft">Nothing stands out: part, powder and set-up are as usual.</p>;
  return risks.map((r, i) => (
    <div key={`${r.defect}${r.cause}`} className="row grid-cols-[20px_minmax(0,1fr)]">
      <b className="fig">{i + 1}</b>
      <span>
        <b>{r.defect.replaceAll("-", " ")}</b>: {coachBecause(r.because, units)}.{" "}
        <span className="block">{coachMove(r.first, units)}.</span>
      </span>
    </div>
  ));
}
