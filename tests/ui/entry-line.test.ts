import { describe, expect, test } from "vitest";
import { bathParameters } from "@/core/bath";
import { parseShorthand } from "@/core/shorthand";
import { sayUnderstood } from "@/ui/frame/entry-line";

const said = (text: string, units: "metric" | "us" = "metric") => {
  const parsed = parseShorthand(text, units);
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.error));
  return sayUnderstood(parsed.value, units, undefined, true);
};

describe("what was understood, before it is kept", () => {
  test.each([
    ["tank 3 ph 5.1", "Tank 3 · pH 5.10"],
    ["tank 3 ph 5.1 at 48C titr 8.4", "Tank 3 · pH 5.10 · temperature 48 °C · titrant 8.4 mL"],
    ["tank 3 conc 2.1", "Tank 3 · concentration 2.10 %"],
    ["tank 3 fa 8", "Tank 3 · free acid 8.0 points"],
    ["tank 3 ta 31", "Tank 3 · total acid 31.0 points"],
    ["tank 3 cond 62", "Tank 3 · conductivity 62 µS/cm"],
    ["rack 1042 in booth", "Rack 1042 · into booth now"],
    ["rack 1042 in clean", /^Rack 1042 · into [a-z ]+ now$/],
    ["wherever", "nothing by that name: “wherever”"],
  ] as const)("%s", (text, expected) => {
    if (typeof expected === "string") expect(said(text)).toBe(expected);
    else expect(said(text)).toMatch(expected);
  });
  test("every value of a bath can be typed by its name, and is named back", () => {
    for (const parameter of bathParameters) {
      const line = `tank 3 ${parameter} ${parameter === "ph" ? 5 : 40}`;
      expect(said(line), line).not.toMatch(/undefined|NaN/);
      expect(said(line).toLowerCase(), line).toContain(
        parameter.replaceAll("-", " ").replace("pressure", "nozzle pressure"),
      );
    }
  });
  test("in the reader's units", () => {
    expect(said("tank 3 ph 5.1 at 118F", "us")).toBe("Tank 3 · pH 5.10 · temperature 118 °F");
  });
});
