import { type DecimalMark, parseNumber } from "@/core/units";

let shopMark: DecimalMark | null = null;
/** One shop, one way of writing numbers: set where a page begins. */
export const writeWithMark = (mark: DecimalMark | null): void => {
  shopMark = mark;
};
/** A number as a person typed it, point or comma; what could be two numbers is read as the shop writes them, and asked about where it has not said. */
export function parseTyped(text: string): ReturnType<typeof parseNumber> {
  const read = parseNumber(text);
  return !read.ok && read.error.kind === "ambiguous-number" && shopMark !== null ? parseNumber(text, shopMark) : read;
}
