"use client";
import { useRef } from "react";
import { v7 as uuidv7 } from "uuid";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useSave } from "../forms/use-save";
import { useShell } from "../frame/shell";

const MINUTE = 60_000;
/** Longest stop that can be noted here, min. */
const LONGEST_MIN = 24 * 60;

/** The line stood: how long ago it began, for how long, and why. The racks inside are found and judged. */
export function LineStopForm({ lines }: { lines: readonly string[] }) {
  const { actions } = useShell();
  const id = useRef<{ content: string; id: string; from: number } | null>(null);
  const held = useEntryForm("line stop", { line: lines[0] ?? "", ago: "", minutes: "", cause: "" });
  const saving = useSave((entry) => actions.save(entry as Parameters<typeof actions.save>[0]), held, {
    said: "Recorded; the racks inside are listed.",
  });
  const F = fieldsOf(held);
  return (
    <Entry
      held={held}
      id="stop"
      sending={saving}
      button="Record the stop"
      begin={["ago", "minutes", "cause"]}
      send={async (read) => {
        const { line, cause } = held.values;
        const [ago, stood] = [read.number("ago"), read.number("minutes")];
        if (stood <= 0 || stood > LONGEST_MIN) read.refuse("minutes", `A stop of ${stood} min cannot be.`);
        if (ago < stood) read.refuse("ago", "It began less long ago than it lasted. Note it when the line runs again.");
        const content = JSON.stringify([line, ago, stood, cause]);
        if (id.current?.content !== content) id.current = { content, id: uuidv7(), from: Date.now() - ago * MINUTE };
        const { id: key, from } = id.current;
        const saved = await saving.send({
          kind: "line-stop",
          id: key,
          idempotencyKey: `stop:${key}`,
          happenedAt: new Date(from).toISOString(),
          until: new Date(from + stood * MINUTE).toISOString(),
          line,
          cause,
        });
        if (saved) id.current = null;
        return saved;
      }}
    >
      {lines.length > 1 && <F.Pick name="line" label="Line" of={lines} />}
      <div className="grid grid-cols-2 gap-2">
        <F.Num name="ago" label="Began, min ago" />
        <F.Num name="minutes" label="Stood for, min" />
      </div>
      <F.Words name="cause" label="Why" most={200} required />
    </Entry>
  );
}
