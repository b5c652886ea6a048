import fc from "fast-check";
import * as v from "valibot";
import { describe, expect, test } from "vitest";
import { text } from "@/core/kinds/fields";
import { cutTo, wellFormed, wellFormedDeep } from "@/core/text";

describe("text that any encoding keeps", () => {
  test("half a surrogate pair becomes the sign for what is lost; whole ones stay", () => {
    expect(wellFormed("gate \ud83d")).toBe("gate \ufffd");
    expect(wellFormed("\ude00 gate")).toBe("\ufffd gate");
    expect(wellFormed("gate 😀")).toBe("gate 😀");
    expect(wellFormed("\ud83d\ud83d\ude00")).toBe("\ufffd😀");
    fc.assert(
      fc.property(fc.string({ unit: "binary" }), (s) => {
        expect(new TextDecoder().decode(new TextEncoder().encode(s))).toBe(wellFormed(s));
      }),
    );
  });
  test("at every depth, and the same value where nothing was wrong", () => {
    const at = new Date();
    const fine = { a: ["x", 1, null, at], b: { c: "😀" } };
    expect(wellFormedDeep(fine)).toBe(fine);
    expect(wellFormedDeep({ a: [{ b: "x\ud83d" }], at })).toEqual({ a: [{ b: "x\ufffd" }], at });
  });
  test("what a form takes is made well formed", () => {
    expect(v.parse(text(40), " gate \ud83d ")).toBe("gate \ufffd");
  });
  test("cut by signs as the eye counts them: no emoji, flag or accent in two", () => {
    expect(cutTo("gate 😀", 6)).toBe("gate ");
    expect(cutTo("gate 😀", 7)).toBe("gate 😀");
    expect(cutTo("👨‍👩‍👧x", 8)).toBe("👨‍👩‍👧");
    expect(cutTo("👨‍👩‍👧x", 7)).toBe("");
    expect(cutTo("e\u0301e\u0301", 3)).toBe("e\u0301");
    expect(cutTo("short", 40)).toBe("short");
  });
});
