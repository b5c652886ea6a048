import { type CureTest, cureTestUnit, pencils } from "@/core/bench";

export const cureTestName: Record<CureTest, string> = {
  "pencil-hardness": "Pencil hardness",
  impact: "Impact without a crack",
  bend: "Bend without a crack, mandrel",
  "gloss-60": "Gloss at 60°",
  colour: "Colour from the standard panel",
};
/** A test's value as one says it: a pencil by its name, else the figure with its unit. */
export const cureTestValue = (test: CureTest, value: number): string =>
  test === "pencil-hardness"
    ? (pencils[Math.round(value)] ?? "–")
    : `${test === "colour" ? value.toFixed(2) : value.toFixed(test === "gloss-60" ? 1 : 0)} ${cureTestUnit[test]}`;
