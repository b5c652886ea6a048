import { renderToStaticMarkup } from "react-dom/server";
import { expect } from "vitest";

type Node = Parameters<typeof renderToStaticMarkup>[0];

/** A view as markup, with nothing in it that is no value. */
export function html(node: Node): string {
  const out = renderToStaticMarkup(node);
  expect(out).not.toMatch(/NaN|Infinity|undefined|\[object/);
  return out;
}
/** What a person reads of it, tags taken out. */
export const words = (node: Node): string =>
  html(node)
    .replace(/<[^>]+>/g, " ")
    .replaceAll("&#x27;", "'")
    .replace(/\s+/g, " ")
    .trim();
