"use client";
import type { TouchPlace } from "@/server/release/touch-places";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";

/** Places to touch up after the cure: contact points of the hanging and faults that were found, each ticked off. */
export function TouchUpForm({ rack, places }: { rack: string; places: readonly TouchPlace[] }) {
  const held = useEntryForm(`touch-up ${rack}`, { done: new Set() as ReadonlySet<string>, withWhat: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { done, withWhat } = held.values;
  return (
    <Entry
      held={held}
      id="touch"
      sending={recorder}
      button="Record the touch-up"
      className="no-print grid gap-3"
      begin={["done", "withWhat"]}
      send={(read) => {
        if (done.size === 0) read.refuse(null, "Tick what was touched up.");
        const ticked = places.filter((p) => done.has(p.key));
        return recorder.send({
          kind: "touch-up",
          rack,
          withWhat,
          places: ticked.map(({ key: _, ...place }) => ({ ...place, done: true })),
        });
      }}
    >
      <h2>To touch up</h2>
      <F.Many name="done" label="Touched up" of={places.map((p): [string, string] => [p.key, p.what])} />
      <F.Words
        name="withWhat"
        label="With what"
        most={120}
        placeholder="touch-up paint, batch"
        className="max-w-[320px]"
      />
      <p className="small soft m-0">
        Touch-up holds less than the baked film and weathers otherwise: what was touched up is looked at once more, and
        stands on the certificate.
      </p>
    </Entry>
  );
}
