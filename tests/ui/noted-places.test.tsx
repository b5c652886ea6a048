import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, test } from "vitest";
import { NotedPlaces } from "@/ui/thickness/noted-places";
import { placeWords } from "@/ui/words/places";

describe("places noted under the lamp", () => {
  const faces = [
    {
      id: "S",
      name: "Seat",
      spots: [
        { id: "S1", at: [20, 20] as const },
        { id: "S2", at: [80, 85] as const },
      ],
    },
  ];
  const words = (noted: Parameters<typeof NotedPlaces>[0]["noted"]) =>
    renderToStaticMarkup(<NotedPlaces noted={noted} faces={faces} todo="Read there as well" />).replace(/<[^>]+>/g, "");
  test("say the face, where on it, what it was and the spot nearest by", () => {
    expect(
      words([
        { face: "S", x: 90, y: 90, what: "light-left" },
        { face: "S", x: 10, y: 50, what: "bumped" },
      ]),
    ).toBe("Read there as well: Seat, lower right (light, left, by spot S2); Seat, left (bumped, by spot S1).");
  });
  test("none say nothing", () => expect(words([])).toBe(""));
  test.each([
    [50, 50, "middle"],
    [50, 5, "upper"],
    [99, 50, "right"],
    [0, 100, "lower left"],
  ])("%i, %i is %s", (x, y, said) => expect(placeWords(x, y)).toBe(said));
});
