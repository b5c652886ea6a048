import { quantities, type UnitSystem } from "@/core/units";
import type { BathAddition } from "@/server/baths/additions";
import type { BathFile } from "@/server/baths/load-bath";
import { countOf, figure, plainly, withUnit } from "../format";
import { Grade } from "../marks/verdict";
import { bathValue, parameterName } from "../words/baths";
import { failureText } from "../words/failures";

const doses = (of: readonly number[], units: UnitSystem) =>
  `${of.map((l) => figure(l, "volume", units).text).join(" + ")} ${quantities.volume[units]}`;
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
  const volume = (l: number) => withUnit(l, "volume", units);
  const several = (of: readonly number[]) =>
    of.length > 1 && data.maxSingleL !== null
      ? ` In ${of.length} additions of at most ${plainly(data.maxSingleL, "volume", units)}, with a check between.`
      : "";
  switch (addition.kind) {
    case "response":
      return (
        <>
          <p className="m-0">
            Add <b className="fig text-[20px]">{doses(addition.dosesL, units)}</b> of {addition.product}: {way}.
            {several(addition.dosesL)}
          </p>
          <p className="soft small mt-1 mb-0">
            Re-check in 20 min. <Grade grade={addition.grade} />{" "}
            {addition.learnt
              ? `learnt from ${countOf(addition.learnt.n, "addition")} here${Number.isFinite(addition.learnt.litresTo) ? `: ${volume(addition.learnt.litresFrom)} to ${volume(addition.learnt.litresTo)} would do it in 95 of 100` : ""}`
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
            Drain <b className="fig">{volume(sum(dosesL))}</b> first, then add{" "}
            <b className="fig text-[20px]">{doses(dosesL, units)}</b> of {addition.product}: {way}.{several(dosesL)}
          </p>
          <p className="soft small mt-1 mb-0">
            {onTop.ok
              ? `Or ${volume(sum(onTop.value.dosesL))} on top, without draining: ${plainly(data.freeboardL, "volume", units)} are free. `
              : `On top there is no room for it: ${plainly(data.freeboardL, "volume", units)} are free. `}
            Expect {expectedWithinPercent.map((x) => x.toFixed(2)).join("–")} % after mixing. <Grade grade="measured" />
          </p>
        </>
      );
    }
    case "dilute":
      return (
        <p className="m-0">
          Too strong: drain <b className="fig text-[20px]">{volume(addition.litres)}</b> to the treated drain and refill
          with water: {way}.
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
