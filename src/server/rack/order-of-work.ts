import { beforeCoat, beforeOven, type PrepStep, stepMissed } from "@/core/preparation";
import type { Failure } from "@/core/result";
import { askedSteps, stepsOnRecord } from "../rack/asked-steps";
import type { RackFile } from "../rack/load-rack";

/** What must come first and is not on record, as a refusal; null where the order holds. */
export const missedFirst = (first: PrepStep | null, then: string): Failure | null =>
  first ? { kind: "step-out-of-order", first, then } : null;

/** Whether powder may go on this rack by its order of work. */
export const coatTooSoon = (rack: RackFile): Failure | null =>
  missedFirst(stepMissed(beforeCoat, askedSteps(rack), stepsOnRecord(rack)), "coat");

/** Whether an oven's door may close on this rack: rubber and seals burn. */
export const ovenTooSoon = (rack: RackFile): Failure | null =>
  missedFirst(stepMissed(beforeOven, askedSteps(rack), stepsOnRecord(rack)), "oven");
