/** Years after it was put up at which a structure is looked at; later every second year. */
export const VISIT_YEARS = [1, 3, 5] as const;
const EVERY_YEARS_AFTER = 2;
/** After trouble it is looked at again so soon. */
const TROUBLE_MONTHS = 6;
/** Where risk is high, half the time. */
const RISKY = 0.5;

export type VisitDue = {
  readonly at: Date;
  readonly why: "first-year" | "third-year" | "fifth-year" | "later" | "trouble" | "promise" | "never-seen";
};
export type VisitFacts = {
  /** Put up, or coated where that is not known; null where neither is. */
  readonly since: Date | null;
  readonly lastVisit: Date | null;
  /** Something was out at the newest visit. */
  readonly trouble: boolean;
  /** Salt, standing water or knocks. */
  readonly risky: boolean;
  /** What was promised of it ends so many years after it was put up. */
  readonly promisedYears: number | null;
};

/** A moment some years later by the calendar. */
const later = (from: Date, years: number): Date => {
  const at = new Date(from);
  const months = Math.round(years * 12);
  const day = at.getUTCDate();
  at.setUTCDate(1);
  at.setUTCMonth(at.getUTCMonth() + months);
  at.setUTCDate(Math.min(day, new Date(Date.UTC(at.getUTCFullYear(), at.getUTCMonth() + 1, 0)).getUTCDate()));
  return at;
};

/**
 * When a structure is looked at next, and why: the first of its first, third and fifth year and every second after, half
 * that time where risk is high, half a year after trouble, and once in the year before a promise ends. Whatever its age, it is
 * due until it was seen: none drops off by being late. O(years).
 */
export function visitDue({ since, lastVisit, trouble, risky, promisedYears }: VisitFacts): VisitDue {
  if (since === null)
    return {
      at: lastVisit ? later(lastVisit, EVERY_YEARS_AFTER) : new Date(0),
      why: lastVisit ? "later" : "never-seen",
    };
  const due: VisitDue[] = [];
  const by = risky ? RISKY : 1;
  const names = ["first-year", "third-year", "fifth-year"] as const;
  const seenAfter = (at: Date) => lastVisit !== null && lastVisit >= at;
  // A visit counts for what was due in the half of its wait before it.
  let before = 0;
  const asked: [number, VisitDue["why"]][] = VISIT_YEARS.map((y, i) => [y * by, names[i] as VisitDue["why"]]);
  for (let y = VISIT_YEARS[2] + EVERY_YEARS_AFTER; y <= 100; y += EVERY_YEARS_AFTER) asked.push([y * by, "later"]);
  for (const [years, why] of asked) {
    const from = later(since, (before + years) / 2);
    if (!seenAfter(from)) {
      due.push({ at: later(since, years), why });
      break;
    }
    before = years;
  }
  if (trouble && lastVisit) due.push({ at: later(lastVisit, TROUBLE_MONTHS / 12), why: "trouble" });
  if (promisedYears !== null) {
    const from = later(since, Math.max(0, promisedYears - 1));
    if (!seenAfter(from)) due.push({ at: from, why: "promise" });
  }
  return due.sort((a, b) => a.at.getTime() - b.at.getTime())[0] ?? { at: later(since, 100), why: "later" };
}
