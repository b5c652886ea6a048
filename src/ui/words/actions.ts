import type { ActionState } from "@/core/kinds";
import { wilsonInterval } from "@/core/statistics";
import type { VerdictResult } from "@/core/verdict";

/** How far a corrective action is, as a person is asked. */
export const actionStateName: Record<ActionState, string> = {
  "not-yet": "Not done yet",
  done: "Done; too soon to say",
  worked: "Done; it stayed away",
  "did-not-work": "Done; it came back",
};
export const actionStateResult: Record<ActionState, VerdictResult> = {
  "not-yet": "watch",
  done: "watch",
  worked: "in",
  "did-not-work": "out",
};

/** How many racks show a defect, with the 95 % interval of their share. */
export function sharedSaid({ racks, withIt }: { readonly racks: number; readonly withIt: number }): string {
  if (racks === 0) return "none, so nothing can be said";
  const [least, most] = wilsonInterval(withIt, racks);
  return `${withIt} of ${racks} with it (${(least * 100).toFixed(0)}–${(most * 100).toFixed(0)} %)`;
}
