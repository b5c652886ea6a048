/** What can be decided on a rack, or on some of its pieces. */
export const decisions = [
  "accept",
  "hold",
  "wipe-off",
  "touch-up",
  "scuff-and-recoat",
  "strip",
  "concession",
  "downgrade",
  "scrap",
] as const;
export type Decision = (typeof decisions)[number];

/** It leaves the shop's hands: what it was decided on hangs no more. */
const leaving: ReadonlySet<string> = new Set(["accept", "concession", "downgrade", "scrap"]);
/** It goes to the customer, with a certificate. */
const released: ReadonlySet<string> = new Set(["accept", "concession", "downgrade"]);
/** It goes back on the line, to be coated again. */
const reworked = ["wipe-off", "scuff-and-recoat", "strip"] as const;
export type Rework = (typeof reworked)[number];

export const leaves = (decision: string | null | undefined): boolean => leaving.has(decision ?? "");
export const isReleased = (decision: string | null | undefined): boolean => released.has(decision ?? "");
export const reworkOf = (decision: string | null | undefined): Rework | null =>
  reworked.find((r) => r === decision) ?? null;
