/** What was kept in this tab and when, ms. */
const keptAt = new Map<string, number>();
/** Long enough for the page's refresh to arrive on a slow tablet, ms. */
const STILL_SAID_MS = 30_000;

/** A form keyed by its version is made anew by what it kept, and still has to say so: `about` names the form and what it is of. */
export function kept(about: string): void {
  keptAt.set(about, Date.now());
}
/** Whether the form was made anew by what it has just kept. */
export function stillSaid(about: string): boolean {
  const at = keptAt.get(about);
  return at !== undefined && Date.now() - at < STILL_SAID_MS;
}
