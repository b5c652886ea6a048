"use client";
import {
  type CureTest,
  colourDifference,
  cureTests,
  cureTestUnit,
  type GuidedTest,
  glossAngleFor,
  judgeCureTest,
  type Lab,
  pencils,
} from "@/core/bench";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { type EntryForm, useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { cureTestName, cureTestValue } from "../words/bench";
import { failureText } from "../words/failures";
import { DoneOn, doneOn, doneOnBegun } from "./done-on";
import { type Earlier, useReplaces } from "./replaces";
import { TestGuide } from "./test-guide";
import { useBenchInstrument } from "./use-bench-instrument";

const place = (name: string) => pencils.indexOf(name as (typeof pencils)[number]);
const guideOf = (test: CureTest): GuidedTest => (test.startsWith("gloss-") ? "gloss" : (test as GuidedTest));
/** What the stand-in is held over: a film as it was asked for. */
const middleOf = (limits: Limits | undefined): string =>
  limits?.lower != null && limits.upper != null ? String((limits.lower + limits.upper) / 2) : "";
export type Limits = { readonly lower: number | null; readonly upper: number | null };

/** Hardness, impact, bend, gloss, colour, smoothness or holidays, judged as it is typed against what the job or the sheet asks. */
export function CureTestForm({
  rack,
  asked,
  first,
  swatch,
  panels,
  earlier,
}: {
  rack: string;
  /** What the job asks of each test, else what the powder's sheet says. */
  asked: Readonly<Partial<Record<CureTest, Limits>>>;
  /** The test that is asked for and not yet done, to begin with. */
  first: CureTest;
  /** The standard panel's colour, where somebody read it. */
  swatch: Lab | null;
  panels: readonly string[];
  /** Tests on record, each with which it was. */
  earlier: readonly (Earlier & { readonly test: string })[];
}) {
  const textOf = (test: CureTest) => {
    const limits = asked[test];
    const said = (value: number | null | undefined) => (value == null ? "" : String(Math.round(value * 100) / 100));
    return { lower: said(limits?.lower), upper: said(limits?.upper) };
  };
  const pencilAsked = asked["pencil-hardness"]?.lower;
  const held = useEntryForm(`cure test ${rack}`, {
    test: first,
    readings: "",
    pencil: "H",
    "pencil-asked": pencilAsked == null ? "" : (pencils[pencilAsked] ?? ""),
    ...textOf(first),
    ...doneOnBegun(panels),
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { test } = held.values;
  const [, setReadings] = held.field("readings");
  const choose = (next: CureTest) => {
    held.field("test")[1](next);
    const { lower, upper } = textOf(next);
    for (const [name, value] of Object.entries({ readings: "", lower, upper })) held.field(name as "lower")[1](value);
  };
  const meter = useBenchInstrument(test === "colour" ? "colour-meter" : "gloss-meter", (reading) => {
    // A reading at another angle is no reading of this test.
    if (reading.kind === "gloss" && test === `gloss-${reading.angle}`)
      setReadings((was) => `${was} ${reading.gu}`.trim());
    if (reading.kind === "colour" && swatch) {
      const difference = colourDifference(reading.lab, swatch);
      if (difference.ok) setReadings((was) => `${was} ${difference.value.toFixed(2)}`.trim());
    }
  });
  const replaces = useReplaces(
    earlier.filter((e) => e.test === test),
    "cure-test",
    rack,
  );
  const pencil = test === "pencil-hardness";
  const gloss = test.startsWith("gloss-");
  const least = held.values["pencil-asked"];
  const readings = pencil ? [place(held.values.pencil)] : (held.liveMany("readings") ?? [Number.NaN]);
  const lower = pencil ? (least === "" ? null : place(least)) : held.live("lower");
  const upper = pencil ? null : held.live("upper");
  const judged = readings.length > 0 ? judgeCureTest(test, readings, lower, upper) : null;
  const better = test === "gloss-60" && judged?.ok ? glossAngleFor(judged.value.value) : 60;
  return (
    <Entry
      held={held}
      id="cure"
      sending={recorder}
      button="Record the test"
      primary
      className="grid gap-3"
      begin={["readings"]}
      send={async (read) => {
        if (!pencil) for (const name of ["lower", "upper"] as const) read.maybe(name);
        if (!judged) return read.refuse("readings", "Type what was read, blanks between.");
        if (!judged.ok) return read.refuse("readings", failureText(judged.error));
        if (replaces.wantsReason) read.refuse(null, "Say why the earlier test does not count.");
        const { supersedes } = replaces;
        const kept = await recorder.send({
          kind: "cure-test",
          rack,
          test,
          readings,
          lower,
          upper,
          ...doneOn(held.values.on),
          supersedes,
        });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>Hardness, impact, bend, gloss, colour, smoothness, holidays</h2>
      <div className="flex flex-wrap items-end gap-3">
        <F.Pick
          name="test"
          label="Test"
          className="w-[230px]"
          of={cureTests.map((name) => [name, `${cureTestName[name]}${asked[name] ? " · asked" : ""}`])}
          changed={(next) => choose(next as CureTest)}
        />
        {pencil ? (
          <>
            <F.Pick name="pencil" label="Hardest, no mark" of={pencils} className="w-[120px]" />
            <F.Pick
              name="pencil-asked"
              label="At least"
              of={[["", "nothing asked"], ...pencils]}
              className="w-[120px]"
            />
          </>
        ) : (
          <>
            <F.Words name="readings" label={`Read, ${cureTestUnit[test]}`} most={200} className="w-[190px]" />
            {(gloss || (test === "colour" && swatch)) && (
              <button
                type="button"
                className="btn"
                disabled={meter.busy}
                onClick={() =>
                  meter.read(
                    gloss ? `${test.slice("gloss-".length)} ${middleOf(asked[test])}` : (swatch ?? []).join(" "),
                  )
                }
              >
                {meter.busy ? "Reading …" : gloss ? "Read the gloss meter" : "Read the colour meter"}
              </button>
            )}
            <F.Num name="lower" label="At least" className="w-[96px]" />
            <F.Num name="upper" label="At most" className="w-[96px]" />
          </>
        )}
        <DoneOn held={held as unknown as EntryForm<{ on: string }>} panels={panels} />
        {judged?.ok && (
          <Verdict result={judged.value.result}>
            {cureTestValue(test, judged.value.value)}
            {judged.value.result === "unknown" ? ", nothing asked" : ""}
          </Verdict>
        )}
      </div>
      {test === "colour" && !swatch && (
        <p className="small soft m-0">
          The swatch of this powder has no L* a* b* on its sheet: type ΔE as the meter gives it against the panel.
        </p>
      )}
      {better !== 60 && judged?.ok && (
        <p className="m-0">
          At {judged.value.value.toFixed(0)} GU the angle of {better}° tells more:{" "}
          <button type="button" className="link min-h-11" onClick={() => choose(`gloss-${better}` as CureTest)}>
            read at {better}° as well
          </button>
        </p>
      )}
      {meter.said && <p className="m-0 text-watch">{meter.said}</p>}
      {judged && !judged.ok && <p className="m-0 text-watch">{failureText(judged.error)}</p>}
      <TestGuide test={guideOf(test)} />
      {replaces.fields}
    </Entry>
  );
}
