"use client";
import { type BenchTest, benchTests, cureTestUnit, pencils } from "@/core/bench";
import type { FilmRule } from "@/core/thickness";
import { quantities, type UnitSystem } from "@/core/units";
import { Choice } from "../fields/choice";
import { Fold } from "../fields/fold";
import { Tick } from "../fields/tick";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { parseTyped } from "../parse-typed";
import { cureTestName } from "../words/bench";

type Limits = { readonly lower: string; readonly upper: string };
type Typed = {
  readonly rule: FilmRule;
  readonly level: string;
  readonly least: string | null;
  readonly most: string | null;
  readonly adhesion: string;
  readonly cure: "index" | "hold";
  readonly rubGrade: string;
  readonly distance: string;
  readonly light: string;
  readonly look: string;
  readonly fits: boolean;
  readonly tests: Readonly<Partial<Record<BenchTest, Limits>>>;
};
/** Asked for from one side only: less of the one is better, more of the other. */
const atMostOnly: ReadonlySet<BenchTest> = new Set(["bend", "colour", "holidays"]);
const atLeastOnly: ReadonlySet<BenchTest> = new Set(["impact", "pull-off", "smoothness"]);
const begun: Typed = {
  rule: "spot-area",
  level: "3",
  least: null,
  most: null,
  adhesion: "1",
  cure: "index",
  rubGrade: "",
  distance: "",
  light: "",
  look: "",
  fits: false,
  tests: {},
};
type Read = { readonly value: number | null; readonly wrong: string | null };
const readOr = (text: string): Read => {
  if (text.trim() === "") return { value: null, wrong: null };
  const number = parseTyped(text);
  return number.ok ? { value: number.value, wrong: null } : { value: null, wrong: text };
};

/** What the customer asks of a job: film rule and limits from the powder's sheet until they are changed, adhesion, cure, look and tests. */
export function useRequirement(
  sheetUm: readonly [number, number] | null,
  site: { worstIso: number; cure: "index" | "hold" },
) {
  const held = useEntryForm("receive work, what is asked", {
    typed: { ...begun, adhesion: String(site.worstIso), cure: site.cure } as Typed,
  });
  const [typed, setTyped] = held.field("typed");
  return {
    typed,
    set: (change: Partial<Typed>) => setTyped((was) => ({ ...was, ...change })),
    sheetUm,
    done: held.done,
    said: held.said,
  };
}
export type RequirementState = ReturnType<typeof useRequirement>;

const shownUm = (um: number | undefined, units: UnitSystem): string =>
  um === undefined ? "" : units === "us" ? quantities.thickness.toUs(um).toFixed(2) : String(um);

/** What is typed as the requirement that is sent, and what of it is no number. */
export function readRequirement({ typed, sheetUm }: RequirementState, units: UnitSystem) {
  const um = (text: string | null, otherwise: number | undefined): Read => {
    if (text === null) return { value: otherwise ?? null, wrong: null };
    const read = readOr(text);
    return read.value === null || units !== "us" ? read : { ...read, value: quantities.thickness.fromUs(read.value) };
  };
  const [least, most] = [um(typed.least, sheetUm?.[0]), um(typed.most, sheetUm?.[1])];
  const [distance, light] = [readOr(typed.distance), readOr(typed.light)];
  const limits = benchTests.flatMap((test) => {
    const own = typed.tests[test];
    return own ? [{ test, lower: readOr(own.lower), upper: readOr(own.upper) }] : [];
  });
  const wrong = [least, most, distance, light, ...limits.flatMap((l) => [l.lower, l.upper])].flatMap(
    (r) => r.wrong ?? [],
  );
  return {
    wrong,
    value: {
      film:
        typed.rule === "nominal"
          ? { rule: "nominal" as const, nominalUm: least.value, maxUm: most.value }
          : typed.rule === "measuring-areas"
            ? { rule: typed.rule, minUm: least.value, maxUm: most.value }
            : { rule: typed.rule, minUm: least.value, maxUm: most.value, level: Number(typed.level) },
      adhesionWorstIso: Number(typed.adhesion),
      cureDecidedBy: typed.cure,
      rub: typed.rubGrade === "" ? null : { leastGrade: Number(typed.rubGrade) },
      appearance:
        typed.look.trim() === "" && distance.value === null && light.value === null
          ? null
          : { distanceM: distance.value, lightLux: light.value, note: typed.look.trim() },
      fits: typed.fits,
      tests: limits.flatMap(({ test, lower, upper }) =>
        lower.value === null && upper.value === null ? [] : [{ test, lower: lower.value, upper: upper.value }],
      ),
    },
  };
}

export function RequirementFields({ state, units }: { state: RequirementState; units: UnitSystem }) {
  const { typed, set, sheetUm } = state;
  const unit = quantities.thickness[units];
  const choose = <K extends "rule" | "level" | "adhesion" | "cure" | "rubGrade">(
    key: K,
    label: string,
    options: readonly (readonly [string, string])[],
  ) => (
    <div className="field">
      <label htmlFor={`asked-${key}`}>{label}</label>
      <Choice
        id={`asked-${key}`}
        className="input"
        value={typed[key]}
        onChange={(value) => set({ [key]: value } as Partial<Typed>)}
      >
        {options.map(([value, text]) => (
          <option key={value} value={value}>
            {text}
          </option>
        ))}
      </Choice>
    </div>
  );
  const limit = (test: BenchTest, side: keyof Limits) => {
    const own = typed.tests[test] ?? { lower: "", upper: "" };
    const change = (text: string) => set({ tests: { ...typed.tests, [test]: { ...own, [side]: text } } });
    const label = `${cureTestName[test]}, ${side === "lower" ? "at least" : "at most"}${cureTestUnit[test] ? `, ${cureTestUnit[test]}` : ""}`;
    return test === "pencil-hardness" ? (
      <div className="field">
        <label htmlFor={`asked-${test}-${side}`}>{label}</label>
        <Choice id={`asked-${test}-${side}`} className="input" value={own[side]} onChange={change}>
          <option value="">not asked</option>
          {pencils.map((name, i) => (
            <option key={name} value={i}>
              {name}
            </option>
          ))}
        </Choice>
      </div>
    ) : (
      <TypedNumber id={`asked-${test}-${side}`} label={label} text={own[side]} change={change} />
    );
  };
  return (
    <>
      {state.said}
      <Fold
        className="border-t border-rule pt-1"
        summaryClassName="min-h-11"
        summary={
          <>
            <b>What is asked of it</b> <span className="soft">{inShort(state, units)}</span>
          </>
        }
      >
        <div className="mt-2 grid grid-cols-[150px_150px_130px_130px_minmax(0,1fr)] gap-3 max-[1000px]:grid-cols-3 max-[560px]:grid-cols-2">
          {choose("rule", "Film rule", [
            ["spot-area", "spot and area"],
            ["nominal", "nominal"],
            ["measuring-areas", "measuring areas"],
          ])}
          {typed.rule === "spot-area"
            ? choose(
                "level",
                "Restriction level",
                ["1", "2", "3", "4", "5"].map((n) => [n, n] as const),
              )
            : null}
          <TypedNumber
            id="asked-least"
            label={`${typed.rule === "nominal" ? "Nominal" : "Least"}, ${unit}`}
            text={typed.least ?? shownUm(sheetUm?.[0], units)}
            change={(least) => set({ least })}
            required
          />
          <TypedNumber
            id="asked-most"
            label={`Most, ${unit}`}
            text={typed.most ?? shownUm(sheetUm?.[1], units)}
            change={(most) => set({ most })}
          />
          <p className="small soft m-0 self-end pb-3">
            {typed.least === null && typed.most === null && sheetUm ? "Film as the powder’s sheet has it." : ""}
          </p>
        </div>
        <div className="mt-3 grid grid-cols-[150px_150px_170px_120px_120px_minmax(0,1fr)] gap-3 max-[1000px]:grid-cols-3 max-[560px]:grid-cols-2">
          {choose(
            "adhesion",
            "Cross-cut, worst",
            ["0", "1", "2", "3"].map((n) => [n, `grade ${n}`] as const),
          )}
          {choose("cure", "Cure judged by", [
            ["index", "cure index"],
            ["hold", "hold of the metal"],
          ])}
          {choose("rubGrade", "Solvent rub, at least", [
            ["", "not asked"],
            ...["5", "4", "3", "2"].map((n) => [n, `grade ${n}`] as const),
          ])}
          <TypedNumber
            id="asked-distance"
            label="Looked at from, m"
            text={typed.distance}
            change={(distance) => set({ distance })}
          />
          <TypedNumber
            id="asked-light"
            label="In light of, lux"
            text={typed.light}
            change={(light) => set({ light })}
          />
          <div className="field">
            <label htmlFor="asked-look">Look asked for</label>
            <input
              id="asked-look"
              className="input"
              maxLength={200}
              value={typed.look}
              placeholder="no runs on the face"
              onChange={(e) => set({ look: e.target.value })}
            />
          </div>
        </div>
        <label className="mt-2 flex min-h-11 items-center gap-2">
          <Tick checked={typed.fits} onChange={(fits) => set({ fits })} /> threads and fits are tried after the cure
        </label>
        <Fold
          className="mt-2"
          summary={
            <>
              Hardness, impact, bend, gloss, colour, smoothness, holidays, pull-off
              {Object.values(typed.tests).some((l) => l && (l.lower || l.upper)) ? "" : ": not asked"}
            </>
          }
        >
          <div className="grid grid-cols-2 gap-x-6 gap-y-3 min-[1000px]:grid-cols-4">
            {benchTests.map((test) => (
              <div key={test} className="contents">
                {atMostOnly.has(test) ? null : limit(test, "lower")}
                {atLeastOnly.has(test) ? null : limit(test, "upper")}
              </div>
            ))}
          </div>
        </Fold>
      </Fold>
    </>
  );
}

/** What is asked in a line: shown while it stands as it usually does. */
function inShort({ typed, sheetUm }: RequirementState, units: UnitSystem): string {
  const unit = quantities.thickness[units];
  const [least, most] = [typed.least ?? shownUm(sheetUm?.[0], units), typed.most ?? shownUm(sheetUm?.[1], units)];
  const tests = Object.values(typed.tests).filter((l) => l && (l.lower || l.upper)).length;
  return [
    `film ${typed.rule === "nominal" ? `nominal ${least}` : `${least} to ${most}`} ${unit}`,
    `cross-cut grade ${typed.adhesion} or better`,
    `cure by ${typed.cure === "index" ? "index" : "hold of the metal"}`,
    ...(typed.rubGrade ? [`rub grade ${typed.rubGrade}`] : []),
    ...(typed.look ? [typed.look] : []),
    ...(typed.fits ? ["fits tried"] : []),
    ...(tests > 0 ? [`${tests} ${tests === 1 ? "test" : "tests"} more`] : []),
  ].join(", ");
}
