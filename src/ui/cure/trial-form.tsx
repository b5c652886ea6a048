"use client";
import { type FormEvent, useState } from "react";
import { beforeAfter } from "@/core/coating";
import { parseNumber } from "@/core/units";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { failureText } from "../words/failures";

/** Numbers typed one after another, by blanks or semicolons. Null where one is none. */
function numbersIn(text: string): number[] | null {
  const words = text
    .trim()
    .split(/[\s;]+/)
    .filter((w) => w !== "");
  const read = words.map((w) => parseNumber(w));
  return read.every((r) => r.ok) ? read.flatMap((r) => (r.ok ? [r.value] : [])) : null;
}

/** Two programs on the same kind of panel, the same test: the difference with its interval as it is typed. */
export function TrialForm() {
  const held = useEntryForm("cure trial", {
    t: { question: "", test: "", unit: "", a: "", b: "", valuesA: "", valuesB: "", note: "" },
  });
  const [t, setT] = held.field("t");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (key: keyof typeof t) => (text: string) => setT((b) => ({ ...b, [key]: text }));
  const [valuesA, valuesB] = [numbersIn(t.valuesA), numbersIn(t.valuesB)];
  const compared =
    valuesA && valuesB && valuesA.length > 1 && valuesB.length > 1 ? beforeAfter(valuesA, valuesB) : null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (!valuesA || !valuesB) return setProblem("One of the results is no number. Type them with blanks between.");
    const sent = await send({
      kind: "cure-trial",
      question: t.question,
      test: t.test,
      unit: t.unit,
      programA: t.a,
      programB: t.b,
      valuesA,
      valuesB,
      note: t.note,
    });
    if (sent) setT((b) => ({ ...b, question: "", valuesA: "", valuesB: "", note: "" }));
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-3">
      {held.said}
      <div className="grid grid-cols-3 gap-3 max-[820px]:grid-cols-1">
        <TextField id="trial-question" label="What is asked" text={t.question} change={put("question")} most={200} />
        <TextField id="trial-test" label="Test" text={t.test} change={put("test")} most={80} />
        <TextField id="trial-unit" label="Unit" text={t.unit} change={put("unit")} most={20} />
        <TextField id="trial-a" label="First program" text={t.a} change={put("a")} most={120} />
        <TextField id="trial-b" label="Second program" text={t.b} change={put("b")} most={120} />
        <span />
        <TextField
          id="trial-values-a"
          label="Results of the first"
          text={t.valuesA}
          change={put("valuesA")}
          most={2000}
        />
        <TextField
          id="trial-values-b"
          label="Results of the second"
          text={t.valuesB}
          change={put("valuesB")}
          most={2000}
        />
      </div>
      {compared?.ok && (
        <p className="m-0">
          Second less first: <b className="fig">{compared.value.difference.toFixed(2)}</b> {t.unit}, 95 % between{" "}
          <b className="fig">{compared.value.interval[0].toFixed(2)}</b> and{" "}
          <b className="fig">{compared.value.interval[1].toFixed(2)}</b>:{" "}
          {compared.value.says === "cannot-tell" ? "they cannot be told apart." : "they differ."}
        </p>
      )}
      {compared && !compared.ok && <p className="m-0 text-watch">{failureText(compared.error)}</p>}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Keep this trial
      </RecordRow>
    </form>
  );
}
