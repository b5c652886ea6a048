/** Whether a request comes from a page of this application, as browsers say it; what is no browser says nothing. */
export function fromHere(request: Request): boolean {
  const site = request.headers.get("sec-fetch-site");
  return site === null || site === "same-origin" || site === "none";
}
