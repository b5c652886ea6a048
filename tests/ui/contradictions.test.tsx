import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, test } from "vitest";
import { LoadNeeds } from "@/ui/cure/load-needs";
import { filmStateWords } from "@/ui/words/cure";

const words = (html: string) => html.replace(/<[^>]+>/g, " ").replace(/\s+/g, " ");

describe("what is said holds together", () => {
  test("touch-up is open for minutes, never for a fortnight", () => {
    expect(filmStateWords({ kind: "melted", sinceS: 60, touchUpOpen: true, touchUpLeftS: 240 })).toContain(
      "touch-up open for 4 min more",
    );
    for (const touchUpLeftS of [23_702 * 60, Number.POSITIVE_INFINITY])
      expect(filmStateWords({ kind: "melted", sinceS: 60, touchUpOpen: true, touchUpLeftS })).toBe(
        "melted, soft; touch-up open",
      );
  });
  test("a load that no heat of its own would cure has no list of loads that is empty", () => {
    const schedule = {
      points: [
        { metalC: 180, minutes: 20 },
        { metalC: 200, minutes: 10 },
      ],
      overbake: [],
    };
    const html = words(
      renderToStaticMarkup(
        <LoadNeeds
          air={{ startC: 60, tauS: 140, program: [{ fromS: 0, airC: 120 }] }}
          pieces={[{ id: "0942", tauS: 400, bandS: [350, 460], schedule }]}
          measured={[]}
          inS={1800}
          plannedIndex={110}
          holdToo
          units="metric"
        />,
      ),
    );
    expect(html).not.toMatch(/0 loads|, \.|Infinity|NaN|undefined/);
  });
});
