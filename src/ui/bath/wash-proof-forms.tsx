"use client";
import { type FormEvent, useState } from "react";
import { coatingWeightGPerM2, judgePanel, type PanelLook, panelLooks, usualColours } from "@/core/bath";
import { parseNumber, quantities } from "@/core/units";
import { Choice } from "../fields/choice";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { lookName } from "../words/wash";

/** A panel from the wash: weighed before and after stripping, or judged by its colour; the weight as one types. */
export function PanelForm({ bath, asked }: { bath: string; asked: readonly [number, number] | null }) {
  const { units } = usePreferences();
  const held = useEntryForm(`panel ${bath}`, {
    texts: { before: "", after: "", area: "", note: "" },
    colour: "",
    look: "uniform-dull" as PanelLook,
  });
  const [texts, setTexts] = held.field("texts");
  const [colour, setColour] = held.field("colour");
  const [look, setLook] = held.field("look");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const read = (text: string) => (text.trim() === "" ? null : parseNumber(text));
  const [before, after, area] = [read(texts.before), read(texts.after), read(texts.area)];
  const areaM2 = area?.ok ? (units === "us" ? quantities.area.fromUs(area.value) : area.value) : null;
  const weight =
    before?.ok && after?.ok && areaM2 !== null
      ? coatingWeightGPerM2({ beforeG: before.value, afterG: after.value, areaM2 })
      : null;
  const judged = judgePanel({ gPerM2: weight?.ok ? weight.value : null, colour: colour || null, look }, asked);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    for (const value of [before, after, area]) if (value && !value.ok) return setProblem(failureText(value.error));
    if (weight && !weight.ok) return setProblem(failureText(weight.error));
    const saved = await send({
      kind: "wash-panel",
      bath,
      beforeG: before?.ok ? before.value : null,
      afterG: after?.ok ? after.value : null,
      areaM2,
      colour: colour || null,
      look,
      note: texts.note,
    });
    if (!saved) return;
    // The next panel begins with nothing of this one.
    setTexts({ before: "", after: "", area: "", note: "" });
    setColour("");
    setLook("uniform-dull");
  };
  const put = (key: keyof typeof texts) => (text: string) => setTexts({ ...texts, [key]: text });
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      {held.said}
      <div className="grid grid-cols-2 gap-2">
        <TypedNumber id="panel-before" label="Before stripping, g" text={texts.before} change={put("before")} />
        <TypedNumber id="panel-after" label="After, g" text={texts.after} change={put("after")} />
        <TypedNumber
          id="panel-area"
          label={`Area, both sides, ${quantities.area[units]}`}
          text={texts.area}
          change={put("area")}
        />
        <div className="field">
          <label htmlFor="panel-colour">Colour</label>
          <Choice id="panel-colour" className="input" value={colour} onChange={setColour}>
            <option value="">not judged</option>
            {usualColours.map((c) => (
              <option key={c.colour}>{c.colour}</option>
            ))}
          </Choice>
        </div>
      </div>
      <div className="field">
        <label htmlFor="panel-look">How it looks</label>
        <Choice id="panel-look" className="input" value={look} onChange={(value) => setLook(value as PanelLook)}>
          {panelLooks.map((l) => (
            <option key={l} value={l}>
              {lookName[l]}
            </option>
          ))}
        </Choice>
      </div>
      {(weight?.ok || colour) && (
        <p className="m-0">
          <Verdict result={judged}>{weight?.ok ? withUnit(weight.value, "coatingWeight", units) : colour}</Verdict>
          {asked && (
            <span className="small soft">
              {" "}
              asked: {withUnit(asked[0], "coatingWeight", units)} to {withUnit(asked[1], "coatingWeight", units)}
            </span>
          )}
        </p>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record the panel
      </RecordRow>
    </form>
  );
}

/** Sludge: how deep it lies, that it was dug out, that a filter was changed. */
export function SludgeForm({ bath }: { bath: string }) {
  const held = useEntryForm(`sludge ${bath}`, {
    what: "measured" as "measured" | "desludged" | "filter-changed",
    depth: "",
    note: "",
  });
  const [what, setWhat] = held.field("what");
  const [depth, setDepth] = held.field("depth");
  const [note, setNote] = held.field("note");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    const read = depth.trim() === "" ? null : parseNumber(depth);
    if (read && !read.ok) return setProblem(failureText(read.error));
    if (await send({ kind: "sludge", bath, what, depthMm: read?.ok ? read.value : null, note })) {
      setDepth("");
      setNote("");
    }
  };
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      {held.said}
      <div className="grid grid-cols-2 gap-2">
        <div className="field">
          <label htmlFor="sludge-what">What was done</label>
          <Choice id="sludge-what" className="input" value={what} onChange={(value) => setWhat(value as "measured")}>
            <option value="measured">depth measured</option>
            <option value="desludged">dug out</option>
            <option value="filter-changed">filter changed</option>
          </Choice>
        </div>
        <TypedNumber id="sludge-depth" label="Depth, mm" text={depth} change={setDepth} />
      </div>
      <TextField id="sludge-note" label="Note: hours, where it went" text={note} change={setNote} most={400} />
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record it
      </RecordRow>
    </form>
  );
}
