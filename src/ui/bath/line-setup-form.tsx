"use client";
import type { FormEvent } from "react";
import { v7 as uuidv7 } from "uuid";
import { passagesFromSpeed } from "@/core/line";
import { parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useVersion, type VersionOutcome } from "../forms/use-version";
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
  save: (input: unknown) => Promise<VersionOutcome>;
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
  });
  const [name, setName] = held.field("name");
  const [speed, setSpeed] = held.field("speed");
  const [stages, setStages] = held.field("stages");
  const version = useVersion(save, `line ${code}`, held);
  const put = (key: string, change: Partial<StageTexts>) =>
    setStages(stages.map((s) => (s.key === key ? { ...s, ...change } : s)));
  const numberOf = (text: string): number => {
    const read = parseNumber(text);
    return read.ok ? read.value : Number.NaN;
  };
  const read = stages.map((s) => ({ stage: s.stage, fromM: numberOf(s.fromM), lengthM: numberOf(s.lengthM) }));
  const runs = passagesFromSpeed(0, numberOf(speed), read);
  const secondsOf = (stage: string): string => {
    const run = runs.ok ? runs.value.find((r) => r.stage === stage) : undefined;
    return run ? `${((run.leftMs - run.enteredMs) / 1000).toFixed(0)} s` : "–";
  };
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (!runs.ok) return version.refuse(failureText(runs.error));
    await version.keep({ code, seen, data: { name, usualSpeedMPerMin: numberOf(speed), stages: read } });
  };
  return (
    <form onSubmit={submit} className="grid gap-2" noValidate>
      {held.said ?? version.said}
      <div className="grid max-w-[560px] grid-cols-[minmax(0,1fr)_150px] gap-3">
        <TextField id="line-name" label="Name" text={name} change={setName} most={60} />
        <TypedNumber id="line-speed" label="Usual speed, m/min" text={speed} change={setSpeed} />
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
      <TextField
        id="line-reason"
        label="Why it changes"
        text={version.reason}
        change={version.setReason}
        most={300}
        required
        className="max-w-[560px]"
      />
      <RecordRow busy={version.busy} message={version.message}>
        Keep the line as a new version
      </RecordRow>
    </form>
  );
}
