"use client";
import { type CureTest, cureTests, cureTestUnit, judgeCureTest, pencils } from "@/core/bench";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { cureTestName, cureTestValue } from "../words/bench";
import { failureText } from "../words/failures";
import { type Earlier, useReplaces } from "./replaces";

const place = (name: string) => pencils.indexOf(name as (typeof pencils)[number]);

/** Hardness, impact, bend, gloss or colour, judged as it is typed against what the sheet or the job asks. */
export function CureTestForm({
  rack,
  gloss,
  deltaE,
  earlier,
}: {
  rack: string;
  /** Gloss of the sheet and what it may be off by, GU. */
  gloss: readonly [number, number] | null;
  deltaE: number | null;
  /** Tests on record, each with which it was. */
  earlier: readonly (Earlier & { readonly test: string })[];
}) {
  const asked = (test: CureTest) =>
    test === "gloss-60" && gloss
      ? { lower: String(gloss[0] - gloss[1]), upper: String(gloss[0] + gloss[1]) }
      : { lower: "", upper: test === "colour" && deltaE !== null ? String(deltaE) : "" };
  const held = useEntryForm(`cure test ${rack}`, {
    test: "gloss-60" as CureTest,
    readings: "",
    pencil: "H",
    "pencil-asked": "",
    ...asked("gloss-60"),
    onPanel: true,
  });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { test, onPanel } = held.values;
  const replaces = useReplaces(
    earlier.filter((e) => e.test === test),
    "cure-test",
    rack,
  );
  const pencil = test === "pencil-hardness";
  const least = held.values["pencil-asked"];
  const readings = pencil ? [place(held.values.pencil)] : (held.liveMany("readings") ?? [Number.NaN]);
  const lower = pencil ? (least === "" ? null : place(least)) : held.live("lower");
  const upper = pencil ? null : held.live("upper");
  const judged = readings.length > 0 ? judgeCureTest(test, readings, lower, upper) : null;
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
          onPanel,
          supersedes,
        });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>Hardness, impact, bend, gloss, colour</h2>
      <div className="flex flex-wrap items-end gap-3">
        <F.Pick
          name="test"
          label="Test"
          className="w-[230px]"
          of={cureTests.map((name) => [name, cureTestName[name]])}
          changed={(next) => {
            const { lower, upper } = asked(next as CureTest);
            for (const [name, value] of Object.entries({ readings: "", lower, upper }))
              held.field(name as "lower")[1](value);
          }}
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
            <F.Num name="lower" label="At least" className="w-[96px]" />
            <F.Num name="upper" label="At most" className="w-[96px]" />
          </>
        )}
        {judged?.ok && (
          <Verdict result={judged.value.result}>
            {cureTestValue(test, judged.value.value)}
            {judged.value.result === "unknown" ? ", nothing asked" : ""}
          </Verdict>
        )}
      </div>
      {judged && !judged.ok && <p className="m-0 text-watch">{failureText(judged.error)}</p>}
      <F.Yes name="onPanel">on the panel that travelled with it</F.Yes>
      {replaces.fields}
    </Entry>
  );
}
