"use client";
import { type FormEvent, useState } from "react";
import { crossCutFromSquares } from "@/core/bench";
import { parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";

/** A panel that went through the wash at an hour, was coated, and is tested: cross-cut, or salt spray with creep from its scribe. */
export function PanelTestForm({ bath, worstIso }: { bath: string; worstIso: number }) {
  const held = useEntryForm(`panel test ${bath}`, {
    test: "adhesion" as "adhesion" | "salt-spray",
    washed: "",
    texts: { lost: "", hours: "", creep: "", coating: "", note: "" },
  });
  const [test, setTest] = held.field("test");
  const [washed, setWashed] = held.field("washed");
  const [texts, setTexts] = held.field("texts");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const put = (key: keyof typeof texts) => (text: string) => setTexts((before) => ({ ...before, [key]: text }));
  const read = (text: string) => (text.trim() === "" ? null : parseNumber(text));
  const lost = read(texts.lost);
  const cut = test === "adhesion" && lost?.ok ? crossCutFromSquares(lost.value, 25) : null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (washed === "") return setProblem("Say when the panel was washed: its baths are looked up by that hour.");
    if (texts.coating.trim() === "") return setProblem("Say what it was coated with.");
    for (const value of [lost, read(texts.hours), read(texts.creep)])
      if (value && !value.ok) return setProblem(failureText(value.error));
    const value = (text: string) => {
      const number = read(text);
      return number?.ok ? number.value : null;
    };
    const saved = await send({
      kind: "panel-test",
      bath,
      test,
      washedAt: new Date(washed).toISOString(),
      squaresLost: test === "adhesion" ? value(texts.lost) : null,
      squares: test === "adhesion" ? 25 : null,
      hours: test === "salt-spray" ? value(texts.hours) : null,
      creepMm: test === "salt-spray" ? value(texts.creep) : null,
      coating: texts.coating,
      note: texts.note,
    });
    if (saved) setTexts({ lost: "", hours: "", creep: "", coating: texts.coating, note: "" });
  };
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      {held.said}
      <div className="grid gap-2">
        <div className="field">
          <label htmlFor="panel-test">Test</label>
          <Choice id="panel-test" className="input" value={test} onChange={(value) => setTest(value as "adhesion")}>
            <option value="adhesion">cross-cut, 25 squares</option>
            <option value="salt-spray">salt spray, scribed</option>
          </Choice>
        </div>
        <div className="field">
          <label htmlFor="panel-washed">Washed at</label>
          <input
            id="panel-washed"
            type="datetime-local"
            className="input num"
            value={washed}
            onChange={(e) => setWashed(e.target.value)}
          />
        </div>
        {test === "adhesion" ? (
          <TypedNumber id="panel-lost" label="Squares lost" text={texts.lost} change={put("lost")} />
        ) : (
          <>
            <TypedNumber id="panel-hours" label="In the cabinet, h" text={texts.hours} change={put("hours")} />
            <TypedNumber id="panel-creep" label="Creep from the scribe, mm" text={texts.creep} change={put("creep")} />
          </>
        )}
        <TextField id="panel-coating" label="Coated with" text={texts.coating} change={put("coating")} most={120} />
      </div>
      {cut?.ok && (
        <p className="m-0">
          <Verdict result={cut.value.iso <= worstIso ? "in" : "out"}>
            grade {cut.value.iso}, {cut.value.astmB}
          </Verdict>{" "}
          <span className="small soft">asked: {worstIso} at worst</span>
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record the test
      </RecordRow>
    </form>
  );
}
