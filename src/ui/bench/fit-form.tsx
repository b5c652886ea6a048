"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** Threads, seats and fits tried after the cure: of each whether it goes, and with which gauge. */
export function FitForm({
  rack,
  fits,
  gauges,
}: {
  rack: string;
  /** What the part has that must still fit. */
  fits: readonly string[];
  /** The gauge each was tried with last, on this part. */
  gauges: Readonly<Record<string, string>>;
}) {
  const own = fits.length > 0 ? fits : ["Threads and fits"];
  const held = useEntryForm(`fits ${rack}`, {
    ...Object.fromEntries(
      own.flatMap((f, i) => [
        [`goes-${i}`, ""],
        [`gauge-${i}`, gauges[f] ?? ""],
      ]),
    ),
  } as Record<string, string>);
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="fits"
      sending={recorder}
      button="Record the fits"
      primary
      className="grid gap-3"
      begin={own.map((_, i) => `goes-${i}`)}
      send={async (read) => {
        const tries = own.flatMap((fit, i) => {
          const goes = held.values[`goes-${i}`];
          return goes ? [{ fit, gauge: held.values[`gauge-${i}`] ?? "", goes: goes === "goes" }] : [];
        });
        if (tries.length === 0) read.refuse("goes-0", "Say of one at least whether it goes.");
        return recorder.send({ kind: "fit-check", rack, tries });
      }}
    >
      <h2>Threads and fits</h2>
      {own.map((fit, i) => (
        <div key={fit} className="flex flex-wrap items-end gap-3">
          <F.Ask
            name={`goes-${i}`}
            label={fit}
            of={[
              ["goes", "Goes"],
              ["stuck", "Does not go"],
            ]}
          />
          <F.Words
            name={`gauge-${i}`}
            label="Tried with"
            most={80}
            placeholder="plug gauge, its bolt"
            className="w-[220px]"
          />
        </div>
      ))}
    </Entry>
  );
}
