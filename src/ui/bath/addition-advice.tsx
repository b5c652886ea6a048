import type { UnitSystem } from "@/core/units";
import type { BathAddition } from "@/server/baths/additions";
import type { BathFile } from "@/server/baths/load-bath";
import { Grade } from "../marks/verdict";
import { bathValue, parameterName } from "../words/baths";
import { failureText } from "../words/failures";

const litres = (of: readonly number[]) => of.map((l) => l.toFixed(1)).join(" + ");
const sum = (of: readonly number[]) => of.reduce((a, b) => a + b, 0);

/** What to add now for each value that is out, worked out, with what to expect after. */
export function AdditionAdvice({ file, units }: { file: BathFile; units: UnitSystem }) {
  const { additions, bath } = file;
  return (
    <div className="ruled">
      <h2>If you correct it now</h2>
      {additions.length === 0 && (
        <p className="mt-1.5">
          {file.result === "out"
            ? "Nothing is set up that a dose could bring back; do what stands beside the value."
            : "Nothing to add: the last values stand at their aims."}
        </p>
      )}
      {additions.map((a) => (
        <div key={a.parameter} className="mt-1.5">
          <Advice addition={a} file={file} units={units} />
        </div>
      ))}
      {additions.length > 0 && <p className="caution mt-2.5">{bath.data.caution}</p>}
    </div>
  );
}

function Advice({ addition, file, units }: { addition: BathAddition; file: BathFile; units: UnitSystem }) {
  const { data } = file.bath;
  const value = (v: number) => <span className="fig">{bathValue(addition.parameter, v, units)}</span>;
  const way = (
    <>
      {parameterName[addition.parameter]} {value(addition.from)} to {value(addition.to)}
    </>
  );
  const several = (doses: readonly number[]) =>
    doses.length > 1 ? ` In ${doses.length} additions of at most ${data.maxSingleL} L, with a check between.` : "";
  switch (addition.kind) {
    case "response":
      return (
        <>
          <p className="m-0">
            Add <b className="fig text-[20px]">{litres(addition.dosesL)} L</b> of {addition.product}: {way}.
            {several(addition.dosesL)}
          </p>
          <p className="soft small mt-1 mb-0">
            Re-check in 20 min. <Grade grade={addition.grade} />{" "}
            {addition.learnt
              ? `learnt from ${addition.learnt.n} additions here${Number.isFinite(addition.learnt.litresTo) ? `: ${addition.learnt.litresFrom.toFixed(1)} to ${addition.learnt.litresTo.toFixed(1)} L would do it in 95 of 100` : ""}`
              : "supplier’s factor, not yet learnt here"}
          </p>
        </>
      );
    case "concentrate": {
      const { levelKept, onTop } = addition;
      if (!levelKept.ok) return <p className="m-0">{failureText(levelKept.error)}</p>;
      const { dosesL, expectedWithinPercent } = levelKept.value;
      return (
        <>
          <p className="m-0">
            Drain <b className="fig">{sum(dosesL).toFixed(1)} L</b> first, then add{" "}
            <b className="fig text-[20px]">{litres(dosesL)} L</b> of {addition.product}: {way}.{several(dosesL)}
          </p>
          <p className="soft small mt-1 mb-0">
            {onTop.ok
              ? `Or ${sum(onTop.value.dosesL).toFixed(1)} L on top, without draining: ${data.freeboardL} L are free. `
              : `On top there is no room for it: ${data.freeboardL} L are free. `}
            Expect {expectedWithinPercent.map((x) => x.toFixed(2)).join("–")} % after mixing. <Grade grade="measured" />
          </p>
        </>
      );
    }
    case "dilute":
      return (
        <p className="m-0">
          Too strong: drain <b className="fig text-[20px]">{addition.litres.toFixed(0)} L</b> to the treated drain and
          refill with water: {way}.
        </p>
      );
    case "not-known":
      return (
        <p className="m-0">
          {way}: {addition.product} brings it back. What a litre of it does is not known here until{" "}
          {addition.additionsAsked} additions have a check before and after; until then by its data sheet, in small
          doses.
        </p>
      );
    case "cannot":
      return (
        <p className="m-0">
          {way}: {failureText(addition.why)}
        </p>
      );
  }
}
