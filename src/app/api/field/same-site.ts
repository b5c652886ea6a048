/** Whether a request comes from a page of this application, as browsers say it; what is no browser says nothing. */
export function fromHere(request: Request): boolean {
  const site = request.headers.get("sec-fetch-site");
  return site === null || site === "same-origin" || site === "none";
}

/** Bytes that a request says it brings; not a number where it does not say, which is then not read at all. */
export const announced = (request: Request): number => {
  const said = request.headers.get("content-length");
  return said === null ? Number.NaN : Number(said);
};
