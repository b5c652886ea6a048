import { describe, expect, test } from "vitest";
import { movedBy, movesFromText, movesText } from "@/core/bath";
import { valueOrThrow } from "@/core/result";

const bath = { product: "Iron phosphate concentrate", acidProduct: "Conversion make-up acid" };
const addition = (product: string) => ({ event: "addition", product });

describe("what an addition moves", () => {
  test("acid moves no inhibitor, the concentrate no inhibitor, an inhibitor nothing else, a defoamer nothing", () => {
    expect(movedBy(bath, addition("make-up acid"))).toEqual(["ph", "free-acid", "total-acid", "conductivity"]);
    expect(movedBy(bath, addition("Iron phosphate concentrate"))).toContain("concentration");
    expect(movedBy(bath, addition("Iron phosphate concentrate"))).not.toContain("inhibitor");
    expect(movedBy(bath, addition("Nitrite inhibitor"))).toEqual(["inhibitor"]);
    expect(movedBy(bath, addition("Defoamer D"))).toEqual([]);
  });
  test("a product nobody knows moves all that is dissolved, and so does a bath made up anew; heat and pressure none moves", () => {
    const all = ["ph", "concentration", "free-acid", "total-acid", "inhibitor", "conductivity"];
    expect(movedBy(bath, addition("Something"))).toEqual(all);
    for (const event of ["dump", "recharge"]) expect(movedBy(bath, { event, product: "make-up acid" })).toEqual(all);
  });
  test("what the shop says of a product goes before what is usual", () => {
    const own = { ...bath, moves: { "make-up acid": ["ph", "inhibitor"] as const, Something: [] } };
    expect(movedBy(own, addition("Conversion make-up acid"))).toEqual(["ph", "inhibitor"]);
    expect(movedBy(own, addition("something"))).toEqual([]);
  });
  test("typed as words and given back as they are read; a stray word is named with what there is", () => {
    const text = "Acid: ph, free acid; Defoamer: nothing";
    const moves = valueOrThrow(movesFromText(text));
    expect(moves).toEqual({ Acid: ["ph", "free-acid"], Defoamer: [] });
    expect(movesText(moves)).toBe(text);
    expect(valueOrThrow(movesFromText(" ; "))).toEqual({});
    expect(movesFromText("Acid: colour")).toMatchObject({ error: { kind: "bad-moves", word: "colour" } });
    for (const broken of ["Acid", ": ph"])
      expect(movesFromText(broken)).toMatchObject({ error: { kind: "bad-moves" } });
  });
});
