import type { RouteStep } from "@/core/plan";
import type { UnitSystem } from "@/core/units";
import { Verdict } from "../marks/verdict";
import { checkName, parameterText, routeName } from "../words/plan";
import { stageNames } from "../words/reasons";

/** Steps of a card, numbered on from what comes before them. */
export function RouteSteps({ steps, first, units }: { steps: readonly RouteStep[]; first: number; units: UnitSystem }) {
  const numbered = steps.map((step, i) => ({ ...step, no: first + i }));
  return (
    <ol className="ruled mt-4 list-none p-0">
      {numbered.map((s) => (
        <li
          key={s.no}
          className="row grid-cols-[26px_86px_minmax(0,1fr)_minmax(0,240px)_90px] items-center max-[700px]:grid-cols-[26px_minmax(0,1fr)_90px]"
        >
          <span className="fig faint">{s.no}</span>
          <span className="soft max-[700px]:hidden">{stageNames[s.stage]}</span>
          <span>
            <b>{routeName[s.code]}</b>
            {s.parameters.length > 0 && (
              <span className="soft">: {s.parameters.map((p) => parameterText(p, units)).join(", ")}</span>
            )}
          </span>
          <span className="small soft max-[700px]:hidden">{s.checks.map((c) => checkName[c]).join("; ")}</span>
          <span>{s.hold && <Verdict result="watch">Hold point</Verdict>}</span>
        </li>
      ))}
    </ol>
  );
}
