"use client";
import { type FormEvent, useState } from "react";
import { judgePullOff, pullOffMPa } from "@/core/bench";
import { parseNumber } from "@/core/units";
import { Tick } from "../fields/tick";
import { RecordRow } from "../forms/recorded";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { pullOffResult, pullOffWord } from "../words/bench";
import { failureText } from "../words/failures";
import { type Earlier, useReplaces } from "./replaces";

const begun = { dolly: "20", force: "", adhesive: "", cohesive: "", glue: "" };
const fields = [
  ["dolly", "Dolly, mm"],
  ["force", "Force at break, N"],
  ["adhesive", "Off the metal, %"],
  ["cohesive", "Within the film, %"],
  ["glue", "At the glue, %"],
] as const;

/** Pull-off: force and dolly to stress as it is typed, the three shares adding to a hundred, judged against what is asked. */
export function PullOffForm({
  rack,
  askedMPa,
  earlier,
}: {
  rack: string;
  askedMPa: number | null;
  earlier: readonly Earlier[];
}) {
  const replaces = useReplaces(earlier, "pull", rack);
  const held = useEntryForm(`pull-off ${rack}`, { t: begun, onPanel: true });
  const [t, setT] = held.field("t");
  const [onPanel, setOnPanel] = held.field("onPanel");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const read = (text: string): number | null => {
    const number = parseNumber(text);
    return text.trim() !== "" && number.ok ? number.value : null;
  };
  const [dollyMm, forceN] = [read(t.dolly), read(t.force)];
  // A share left empty is none of it, once any is given.
  const given = [t.adhesive, t.cohesive, t.glue].some((x) => x.trim() !== "");
  const share = (text: string) => (text.trim() === "" ? 0 : read(text));
  const [adhesivePercent, cohesivePercent, gluePercent] = [share(t.adhesive), share(t.cohesive), share(t.glue)];
  const stress = dollyMm !== null && forceN !== null ? pullOffMPa({ forceN, dollyMm }) : null;
  const judged =
    stress?.ok && given && adhesivePercent !== null && cohesivePercent !== null && gluePercent !== null
      ? judgePullOff({
          stressMPa: stress.value,
          requiredMPa: askedMPa ?? stress.value,
          adhesivePercent,
          cohesivePercent,
          gluePercent,
        })
      : null;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (!stress) return setProblem("Type the force at which it broke, and the dolly’s width.");
    if (!stress.ok) return setProblem(failureText(stress.error));
    if (!judged) return setProblem("Say how it gave way: shares off the metal, within the film and at the glue.");
    if (!judged.ok) return setProblem(failureText(judged.error));
    if (replaces.wantsReason) return setProblem("Say why the earlier test does not count.");
    const kept = { kind: "pull-off" as const, rack, dollyMm: dollyMm ?? 0, forceN: forceN ?? 0, askedMPa, onPanel };
    if (
      await send({
        ...kept,
        adhesivePercent: adhesivePercent ?? 0,
        cohesivePercent: cohesivePercent ?? 0,
        gluePercent: gluePercent ?? 0,
        supersedes: replaces.supersedes,
      })
    ) {
      setT({ ...begun, dolly: t.dolly });
      replaces.done();
    }
  };
  return (
    <form onSubmit={submit} noValidate className="grid gap-3">
      {held.said}
      <h2>
        Pull-off{askedMPa === null ? "" : <span className="soft font-normal">, {askedMPa} MPa or more asked for</span>}
      </h2>
      <div className="flex flex-wrap items-end gap-3">
        {fields.map(([key, label]) => (
          <div key={key} className="w-[132px]">
            <TypedNumber
              id={`pull-${key}`}
              label={label}
              text={t[key]}
              change={(text) => setT((b) => ({ ...b, [key]: text }))}
            />
          </div>
        ))}
        {stress?.ok && (
          <span className="pb-2">
            <b className="fig text-[22px]">{stress.value.toFixed(1)}</b> MPa{" "}
            {judged?.ok && askedMPa !== null && (
              <Verdict result={pullOffResult[judged.value]}>{pullOffWord[judged.value]}</Verdict>
            )}
          </span>
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
        Record the pull-off
      </RecordRow>
    </form>
  );
}
