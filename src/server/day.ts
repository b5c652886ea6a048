/** The day at a moment where the site is, as 2026-11-28. */
export const dayIn = (at: Date, timeZone: string): string => new Intl.DateTimeFormat("en-CA", { timeZone }).format(at);
