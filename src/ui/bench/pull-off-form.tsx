"use client";
import { judgePullOff, pullOffMPa } from "@/core/bench";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { type EntryForm, useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { pullOffResult, pullOffWord } from "../words/bench";
import { failureText } from "../words/failures";
import { DoneOn, doneOn, doneOnBegun } from "./done-on";
import { type Earlier, useReplaces } from "./replaces";
import { TestGuide } from "./test-guide";
import { useBenchInstrument } from "./use-bench-instrument";

/** Pull-off: force and dolly to stress as it is typed, the three shares adding to a hundred, judged against what is asked. */
export function PullOffForm({
  rack,
  askedMPa,
  panels,
  earlier,
}: {
  rack: string;
  askedMPa: number | null;
  panels: readonly string[];
  earlier: readonly Earlier[];
}) {
  const replaces = useReplaces(earlier, "pull", rack);
  const begun = { dolly: "20", force: "", adhesive: "", cohesive: "", glue: "", ...doneOnBegun(panels) };
  const held = useEntryForm(`pull-off ${rack}`, begun);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const meter = useBenchInstrument("pull-off-tester", (reading) => {
    if (reading.kind !== "pull") return;
    held.field("dolly")[1](String(reading.dollyMm));
    held.field("force")[1](String(reading.forceN));
  });
  const [dolly, force] = [held.live("dolly"), held.live("force")];
  const stress = dolly !== null && force !== null ? pullOffMPa({ forceN: force, dollyMm: dolly }) : null;
  const names = ["adhesive", "cohesive", "glue"] as const;
  // A share left empty is none of it, once any is given.
  const given = names.some((name) => held.values[name].trim() !== "");
  const shares = names.map((name) => (held.values[name].trim() === "" ? 0 : held.live(name)));
  const [adhesivePercent = null, cohesivePercent = null, gluePercent = null] = shares;
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
  return (
    <Entry
      held={held}
      id="pull"
      sending={recorder}
      button="Record the pull-off"
      primary
      className="grid gap-3"
      begin={["force", ...names]}
      send={async (read) => {
        const [dollyMm, forceN] = [read.number("dolly"), read.number("force")];
        if (stress && !stress.ok) read.refuse("force", failureText(stress.error));
        const [adhesive, cohesive, glue] = names.map((name) => read.maybe(name) ?? 0) as [number, number, number];
        if (!judged)
          return read.refuse("adhesive", "Say how it gave way: off the metal, within the film, at the glue.");
        if (!judged.ok) return read.refuse("adhesive", failureText(judged.error));
        if (replaces.wantsReason) read.refuse(null, "Say why the earlier test does not count.");
        const kept = await recorder.send({
          kind: "pull-off",
          rack,
          dollyMm,
          forceN,
          askedMPa,
          ...doneOn(held.values.on),
          adhesivePercent: adhesive,
          cohesivePercent: cohesive,
          gluePercent: glue,
          supersedes: replaces.supersedes,
        });
        if (kept) replaces.done();
        return kept;
      }}
    >
      <h2>
        Pull-off{askedMPa === null ? "" : <span className="soft font-normal">, {askedMPa} MPa or more asked for</span>}
      </h2>
      <div className="flex flex-wrap items-end gap-3">
        <F.Num name="dolly" label="Dolly, mm" className="w-[132px]" />
        <F.Num name="force" label="Force at break, N" className="w-[132px]" />
        <button type="button" className="btn" disabled={meter.busy} onClick={() => meter.read()}>
          {meter.busy ? "Reading …" : "Read the tester"}
        </button>
        <F.Num name="adhesive" label="Off the metal, %" className="w-[132px]" />
        <F.Num name="cohesive" label="Within the film, %" className="w-[132px]" />
        <F.Num name="glue" label="At the glue, %" className="w-[132px]" />
        <DoneOn held={held as unknown as EntryForm<{ on: string }>} panels={panels} />
        {stress?.ok && (
          <span className="pb-2">
            <b className="fig text-[22px]">{stress.value.toFixed(1)}</b> MPa{" "}
            {judged?.ok && askedMPa !== null && (
              <Verdict result={pullOffResult[judged.value]}>{pullOffWord[judged.value]}</Verdict>
            )}
          </span>
        )}
      </div>
      <TestGuide test="pull-off" />
      {meter.said && <p className="m-0 text-watch">{meter.said}</p>}
      {replaces.fields}
    </Entry>
  );
}
