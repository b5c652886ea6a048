"use client";
import type { PlannedTest } from "@/core/test-plan";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { plannedTestName } from "../words/test-plan";

/** A test that a plan asks for, left out by a lead with a reason that stands on the certificate. */
export function LeaveOutForm({ rack, tests }: { rack: string; tests: readonly PlannedTest[] }) {
  const held = useEntryForm(`leave-out ${rack}`, { test: tests[0] as string, reason: "" });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  return (
    <Fold summary={<>Leave a test of the plan out</>} summaryClassName="min-h-11">
      <Entry
        held={held}
        id="leave-out"
        sending={recorder}
        button="Leave it out"
        className="grid max-w-[560px] gap-3"
        begin={["reason"]}
        send={() =>
          recorder.send({
            kind: "test-skip",
            rack,
            test: held.values.test as PlannedTest,
            reason: held.values.reason,
          })
        }
      >
        <F.Pick name="test" label="Test" of={tests.map((t): readonly [string, string] => [t, plannedTestName(t)])} />
        <F.Words
          name="reason"
          label="Why it is left out, as it stands on the certificate"
          most={400}
          least={3}
          required
        />
      </Entry>
    </Fold>
  );
}
