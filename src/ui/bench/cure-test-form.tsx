"use client";
import { type FormEvent, useState } from "react";
import { type CureTest, cureTests, cureTestUnit, judgeCureTest, pencils } from "@/core/bench";
import { parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { cureTestName, cureTestValue } from "../words/bench";
import { failureText } from "../words/failures";
import { type Earlier, useReplaces } from "./replaces";

const numberOrNull = (text: string): number | null => {
  const read = parseNumber(text);
  return text.trim() === "" || !read.ok ? null : read.value;
};

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
    t: { readings: "", pencil: "H", lowerPencil: "", ...asked("gloss-60") },
    onPanel: true,
  });
  const [test, setTest] = held.field("test");
  const [t, setT] = held.field("t");
  const [onPanel, setOnPanel] = held.field("onPanel");
  const { send, message, busy } = useRecorder(held);
  const replaces = useReplaces(
    earlier.filter((e) => e.test === test),
    "cure-test",
    rack,
  );
  const [problem, setProblem] = useState<string | null>(null);
  const put = (key: keyof typeof t) => (text: string) => setT((b) => ({ ...b, [key]: text }));
  const pencil = test === "pencil-hardness";
  const place = (name: string) => pencils.indexOf(name as (typeof pencils)[number]);
  const readings = pencil
    ? [place(t.pencil)]
    : t.readings
        .trim()
        .split(/[\s;]+/)
        .filter((w) => w !== "")
        .map((w) => {
          const read = parseNumber(w);
          return read.ok ? read.value : Number.NaN;
        });
  const lower = pencil ? (t.lowerPencil === "" ? null : place(t.lowerPencil)) : numberOrNull(t.lower);
  const upper = pencil ? null : numberOrNull(t.upper);
  const judged = readings.length > 0 ? judgeCureTest(test, readings, lower, upper) : null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (!judged) return setProblem("Type what was read, blanks between.");
    if (!judged.ok) return setProblem(failureText(judged.error));
    if (replaces.wantsReason) return setProblem("Say why the earlier test does not count.");
    const { supersedes } = replaces;
    if (await send({ kind: "cure-test", rack, test, readings, lower, upper, onPanel, supersedes })) {
      put("readings")("");
      replaces.done();
    }
  };
  const pencilChoice = (id: string, label: string, value: string, change: (name: string) => void, none: boolean) => (
    <div className="field w-[120px]">
      <label htmlFor={id}>{label}</label>
      <Choice id={id} className="input" value={value} onChange={change}>
        {none && <option value="">nothing asked</option>}
        {pencils.map((p) => (
          <option key={p}>{p}</option>
        ))}
      </Choice>
    </div>
  );
  return (
    <form onSubmit={submit} noValidate className="grid gap-3">
      {held.said}
      <h2>Hardness, impact, bend, gloss, colour</h2>
      <div className="flex flex-wrap items-end gap-3">
        <div className="field w-[230px]">
          <label htmlFor="cure-test">Test</label>
          <Choice
            id="cure-test"
            className="input"
            value={test}
            onChange={(value) => {
              const next = value as CureTest;
              setTest(next);
              setT((b) => ({ ...b, readings: "", ...asked(next) }));
            }}
          >
            {cureTests.map((name) => (
              <option key={name} value={name}>
                {cureTestName[name]}
              </option>
            ))}
          </Choice>
        </div>
        {pencil ? (
          <>
            {pencilChoice("cure-pencil", "Hardest, no mark", t.pencil, put("pencil"), false)}
            {pencilChoice("cure-pencil-asked", "At least", t.lowerPencil, put("lowerPencil"), true)}
          </>
        ) : (
          <>
            <TextField
              id="cure-readings"
              label={`Read, ${cureTestUnit[test]}`}
              text={t.readings}
              change={put("readings")}
              most={200}
              className="w-[190px]"
            />
            <div className="w-[96px]">
              <TypedNumber id="cure-lower" label="At least" text={t.lower} change={put("lower")} />
            </div>
            <div className="w-[96px]">
              <TypedNumber id="cure-upper" label="At most" text={t.upper} change={put("upper")} />
            </div>
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
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <label className="flex min-h-11 items-center gap-2">
        <Tick checked={onPanel} onChange={setOnPanel} /> on the panel that travelled with it
      </label>
      {replaces.fields}
      <RecordRow busy={busy} message={message}>
        Record the test
      </RecordRow>
    </form>
  );
}
