"use client";
import { v7 as uuidv7 } from "uuid";
import { passagesFromSpeed } from "@/core/line";
import { Choice } from "../fields/choice";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { KEPT, type Save, useSave } from "../forms/use-save";
import { parseTyped } from "../parse-typed";
import { failureText } from "../words/failures";
import { passageName } from "../words/preparation";

type StageTexts = { readonly key: string; readonly stage: string; readonly fromM: string; readonly lengthM: string };
const lineStages = ["clean", "clean-rinse", "conversion", "rinse", "seal", "final-rinse", "dry-off"] as const;

/** A conveyor washer by its stages: where each begins and how long it is; the contact at its usual speed as one types. */
export function LineSetupForm({
  code,
  seen,
  line,
  save,
}: {
  code: string;
  seen: string;
  line: {
    readonly name: string;
    readonly usualSpeedMPerMin: number;
    readonly stages: readonly { readonly stage: string; readonly fromM: number; readonly lengthM: number }[];
  };
  save: Save;
}) {
  const held = useEntryForm(`line ${code}`, {
    name: line.name,
    speed: String(line.usualSpeedMPerMin),
    stages: line.stages.map((s, i) => ({
      key: String(i),
      stage: s.stage,
      fromM: String(s.fromM),
      lengthM: String(s.lengthM),
    })) as readonly StageTexts[],
    reason: "",
  });
  const F = fieldsOf(held);
  const [stages, setStages] = held.field("stages");
  const saving = useSave(save, held, { said: KEPT, about: `line ${code}` });
  const put = (key: string, change: Partial<StageTexts>) =>
    setStages(stages.map((s) => (s.key === key ? { ...s, ...change } : s)));
  const numberOf = (text: string): number => {
    const read = parseTyped(text);
    return read.ok ? read.value : Number.NaN;
  };
  const read = stages.map((s) => ({ stage: s.stage, fromM: numberOf(s.fromM), lengthM: numberOf(s.lengthM) }));
  const runs = passagesFromSpeed(0, held.live("speed") ?? Number.NaN, read);
  const secondsOf = (stage: string): string => {
    const run = runs.ok ? runs.value.find((r) => r.stage === stage) : undefined;
    return run ? `${((run.leftMs - run.enteredMs) / 1000).toFixed(0)} s` : "–";
  };
  return (
    <Entry
      held={held}
      id="line"
      sending={saving}
      button="Keep the line as a new version"
      primary
      begin={["reason"]}
      send={({ number, refuse }) => {
        const { name, reason } = held.values;
        const usualSpeedMPerMin = number("speed");
        if (!runs.ok) return refuse(null, failureText(runs.error));
        return saving.send({ code, seen, reason, data: { name, usualSpeedMPerMin, stages: read } });
      }}
    >
      <div className="grid max-w-[560px] grid-cols-[minmax(0,1fr)_150px] gap-3">
        <F.Words name="name" label="Name" most={60} />
        <F.Num name="speed" label="Usual speed, m/min" />
      </div>
      {stages.map((s, i) => (
        <div
          key={s.key}
          className="row grid-cols-[150px_130px_130px_90px_minmax(0,1fr)] items-end gap-3 max-[700px]:grid-cols-3"
        >
          <div className="field">
            <label htmlFor={`stage-${s.key}`}>Stage {i + 1}</label>
            <Choice
              id={`stage-${s.key}`}
              className="input"
              value={s.stage}
              onChange={(value) => put(s.key, { stage: value })}
            >
              {lineStages.map((stage) => (
                <option key={stage} value={stage}>
                  {passageName[stage]}
                </option>
              ))}
            </Choice>
          </div>
          <TypedNumber
            id={`from-${s.key}`}
            label="From entrance, m"
            text={s.fromM}
            change={(fromM) => put(s.key, { fromM })}
          />
          <TypedNumber
            id={`length-${s.key}`}
            label="Length, m"
            text={s.lengthM}
            change={(lengthM) => put(s.key, { lengthM })}
          />
          <span className="num pb-2.5">{secondsOf(s.stage)}</span>
          <button
            type="button"
            className="link min-h-11 justify-self-start"
            onClick={() => setStages(stages.filter((x) => x.key !== s.key))}
          >
            take out
          </button>
        </div>
      ))}
      <p className="m-0">
        <button
          type="button"
          className="btn"
          onClick={() => setStages([...stages, { key: uuidv7(), stage: "rinse", fromM: "", lengthM: "" }])}
        >
          One more stage
        </button>
      </p>
      <F.Words name="reason" label="Why it changes" most={300} required className="max-w-[560px]" />
    </Entry>
  );
}
