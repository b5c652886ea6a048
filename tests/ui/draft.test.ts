import { beforeEach, describe, expect, test } from "vitest";
import { changedOf, encode, keepDraft, keptDraft, withChanged } from "@/ui/forms/draft";

const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, text: string) => kept.set(key, text),
      removeItem: (key: string) => kept.delete(key),
    },
  });
});

const begun = {
  t: { name: "Tank 3", ph: "5.2", volume: "4200" },
  seen: new Set<string>(),
  marks: ["a"] as readonly string[],
  taken: null as boolean | null,
};

describe("what is kept of a form", () => {
  test("nothing while it stands as it began, whatever its fields are", () => {
    expect(changedOf({ ...begun, seen: new Set() }, [begun])).toBeNull();
  });
  test("what differs, of a record of texts only its own entries", () =>
    expect(changedOf({ ...begun, t: { ...begun.t, ph: "5.4" }, taken: false }, [begun])).toEqual({
      t: { ph: "5.4" },
      taken: false,
    }));
  test("neither what it began with nor what was recorded is a draft; what is typed after is", () => {
    const recorded = { ...begun, taken: true, marks: ["a", "b"] };
    expect(changedOf(recorded, [begun, recorded])).toBeNull();
    expect(changedOf(begun, [begun, recorded])).toBeNull();
    expect(changedOf({ ...recorded, taken: false }, [begun, recorded])).toEqual({ taken: false });
  });
  test("put over a beginning that somebody else changed meanwhile, only the person's own words are theirs", () => {
    const meanwhile = { ...begun, t: { name: "Tank 3 conversion", ph: "5.0", volume: "4100" } };
    expect(withChanged(meanwhile, { t: { ph: "5.4" } }).t).toEqual({
      name: "Tank 3 conversion",
      ph: "5.4",
      volume: "4100",
    });
  });
  test("a field the form has no longer is left out; a list is taken whole", () => {
    const again = withChanged(begun, { gone: "x", marks: ["b", "c"] });
    expect(again).not.toHaveProperty("gone");
    expect(again.marks).toEqual(["b", "c"]);
  });
});

describe("in the browser", () => {
  test("by person and form; sets come back as sets", () => {
    keepDraft("ines", "look 1042", { seen: new Set(["A", "B"]) }, 1000);
    expect(keptDraft("ines", "look 1042")).toEqual({ atMs: 1000, changed: { seen: new Set(["A", "B"]) } });
    expect(keptDraft("bea", "look 1042")).toBeNull();
    expect(keptDraft("ines", "look 1043")).toBeNull();
    keepDraft("ines", "look 1042", null, 2000);
    expect(keptDraft("ines", "look 1042")).toBeNull();
    expect(kept.size).toBe(0);
  });
  test("what cannot be read is no draft, and a browser that keeps nothing throws nothing", () => {
    for (const text of ["{", "7", "null", '{"atMs":1}', '{"atMs":"x","changed":{}}', "[]"]) {
      kept.set("draft:ines:round", text);
      expect(keptDraft("ines", "round"), text).toBeNull();
    }
    Object.assign(globalThis, {
      localStorage: {
        getItem: () => {
          throw new Error("not allowed");
        },
        setItem: () => {
          throw new Error("full");
        },
      },
    });
    expect(keptDraft("ines", "round")).toBeNull();
    expect(() => keepDraft("ines", "round", { a: 1 }, 1)).not.toThrow();
  });
  test("sets in one order are the same, in another not", () => {
    expect(encode(new Set([1, 2]))).toBe(encode(new Set([1, 2])));
    expect(encode(new Set([1, 2]))).not.toBe(encode(new Set([2, 1])));
  });
});
