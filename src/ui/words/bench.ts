import { type BenchTest, cureTestUnit, pencils } from "@/core/bench";

/** A pull-off in a line: the stress, and how the film gave way, the largest share first. */
export function pullOffSaid(row: {
  readonly stress_mpa: number;
  readonly adhesive_percent: number;
  readonly cohesive_percent: number;
  readonly glue_percent: number;
}): string {
  const shares = [
    ["off the metal", row.adhesive_percent],
    ["within the film", row.cohesive_percent],
    ["at the glue", row.glue_percent],
  ] as const;
  const gave = [...shares].sort((a, b) => b[1] - a[1]).filter(([, share]) => share > 0);
  return `${row.stress_mpa.toFixed(1)} MPa, ${gave.map(([where, share]) => `${share.toFixed(0)} % ${where}`).join(", ")}`;
}
/** How a pull-off is marked. */
export const pullOffResult = { pass: "in", fail: "out", "no-result": "unknown" } as const;
export const pullOffWord: Record<"pass" | "fail" | "no-result", string> = {
  pass: "Holds",
  fail: "Pulls off",
  "no-result": "No result: the glue gave way",
};

export const cureTestName: Record<BenchTest, string> = {
  "pull-off": "Pull-off",
  "pencil-hardness": "Pencil hardness",
  impact: "Impact without a crack",
  bend: "Bend without a crack, mandrel",
  "gloss-60": "Gloss at 60°",
  "gloss-20": "Gloss at 20°",
  "gloss-85": "Gloss at 85°",
  smoothness: "Smoothness beside the panels",
  holidays: "Holidays by sponge or spark",
  colour: "Colour from the standard panel",
};
/** A test's value as one says it: a pencil by its name, else the figure with its unit. */
export const cureTestValue = (test: BenchTest, value: number): string =>
  test === "pencil-hardness"
    ? (pencils[Math.round(value)] ?? "–")
    : `${test === "colour" ? value.toFixed(2) : value.toFixed(test.startsWith("gloss-") || test === "pull-off" ? 1 : 0)} ${cureTestUnit[test]}`;
