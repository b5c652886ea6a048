import { tz } from "@date-fns/tz";
import { format } from "date-fns";

/** The day at a moment where the site is, as 2026-11-28. */
export const dayIn = (at: Date, timeZone: string): string => format(at, "yyyy-MM-dd", { in: tz(timeZone) });

/** Day and time where the site is, as 2026-11-28 06:05. */
export const dayAndTimeIn = (at: Date, timeZone: string): string =>
  format(at, "yyyy-MM-dd HH:mm", { in: tz(timeZone) });
