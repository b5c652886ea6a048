import type { UpkeepHands, UpkeepMeasure, UpkeepResult, UpkeepStage, UpkeepStanding } from "@/core/upkeep";
import { dayMonth, span } from "../format";

export const upkeepResultName: Record<UpkeepResult, string> = {
  "in-order": "In order",
  "put-right": "Put right",
  "not-in-order": "Not in order",
};
export const upkeepHandsName: Record<UpkeepHands, string> = {
  line: "anyone on the line",
  licensed: "a licensed person",
  supplier: "the supplier, on a visit",
};
export const upkeepStageName: Record<UpkeepStage, string> = {
  prepare: "Prepare",
  pretreat: "Pretreat",
  coat: "Coat",
  cure: "Cure",
  test: "Test",
};
export function upkeepWord({ state, dueMs }: UpkeepStanding, nowMs: number, timeZone: string): string {
  switch (state) {
    case "never":
      return "Never on record";
    case "not-in-order":
      return "Not in order";
    case "overdue":
      return `Overdue ${span(nowMs - (dueMs ?? nowMs))}`;
    default:
      return `Due ${dayMonth(new Date(dueMs ?? nowMs), timeZone)}`;
  }
}
export function measureWindow({ unit, lower, upper }: UpkeepMeasure): string {
  const end = unit ? ` ${unit}` : "";
  if (lower === null) return `at most ${upper}${end}`;
  return upper === null ? `at least ${lower}${end}` : `${lower} to ${upper}${end}`;
}
