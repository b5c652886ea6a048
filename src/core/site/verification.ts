/** Days from one calendar day to another, both YYYY-MM-DD. */
const daysBetween = (from: string, to: string): number =>
  (Date.parse(`${to}T00:00Z`) - Date.parse(`${from}T00:00Z`)) / 86_400_000;

export type VerificationStanding = {
  readonly state: "not-asked" | "never" | "overdue" | "soon" | "in";
  /** The day it is due, YYYY-MM-DD; null where none is. */
  readonly dueOn: string | null;
  readonly daysLeft: number | null;
};
/** Said so many days before it is due: a laboratory has a queue. */
const SAID_BEFORE_DAYS = 21;

/** How an instrument's verification by a laboratory stands on a day: asked for at all, never done, overdue, soon, in. */
export function verificationStanding(
  instrument: { readonly verifyEveryDays: number | null; readonly verifiedOn: string | null },
  today: string,
): VerificationStanding {
  const { verifyEveryDays, verifiedOn } = instrument;
  if (verifyEveryDays === null) return { state: "not-asked", dueOn: null, daysLeft: null };
  if (verifiedOn === null) return { state: "never", dueOn: null, daysLeft: null };
  const dueOn = new Date(Date.parse(`${verifiedOn}T00:00Z`) + verifyEveryDays * 86_400_000).toISOString().slice(0, 10);
  const daysLeft = daysBetween(today, dueOn);
  return { state: daysLeft < 0 ? "overdue" : daysLeft <= SAID_BEFORE_DAYS ? "soon" : "in", dueOn, daysLeft };
}
