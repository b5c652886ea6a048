const OWN = "http://own.invalid";

/** Where to go after sign-in: a path of this application as the browser will read it; anything else leads to Shift. */
export function ownPath(to: string): string {
  if (!to.startsWith("/")) return "/";
  try {
    const url = new URL(to, OWN);
    const path = `${url.pathname}${url.search}${url.hash}`;
    return url.origin === OWN && !path.startsWith("//") ? path : "/";
  } catch {
    return "/";
  }
}
