import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { changes, entryKinds, kindOf, kinds, mayEnter, parseEntry, tablesOf } from "@/core/kinds";
import { kindsTable } from "@/core/kinds/kinds-table";

describe("kinds of record", () => {
  test("each has its file, and each file's kind is in the list", () => {
    const beside = new Set(["all", "fields", "index", "kind", "kinds-table", "rows"]);
    const files = readdirSync("src/core/kinds").map((f) => f.replace(".ts", ""));
    expect(files.filter((f) => !beside.has(f)).sort()).toEqual(
      kinds()
        .map((k) => k.kind)
        .sort(),
    );
  });
  test("no two kinds own one table, and what a kind writes beside is owned by another", () => {
    const owned = kinds().flatMap((k) => Object.keys(k.tables));
    expect(new Set(owned).size).toBe(owned.length);
    for (const k of kinds())
      for (const table of [...(k.also ?? []), ...(k.counted ?? [])]) expect(owned).toContain(table);
    expect(tablesOf("outgas")).toEqual(["outgas", "bake_channel"]);
    expect(tablesOf("no-such-kind")).toEqual([]);
  });
  test("what is entered names its own kind of entry, and who may", () => {
    expect(entryKinds().length).toBeGreaterThan(35);
    expect(mayEnter("thickness")).toBe("inspect");
    expect(mayEnter("bath-check")).toBe("log-line");
    expect(mayEnter("disposition")).toBeUndefined();
    expect(parseEntry({ kind: "disposition" })).toMatchObject({ success: false });
    expect(parseEntry(null)).toMatchObject({ success: false });
    expect(parseEntry({ kind: "passage" }).issues?.[0].path?.[0]?.key).toBe("id");
  });
  test("what changes how things stand is told to the next shift; readings and passages are not", () => {
    expect(changes()).toContain("disposition");
    expect(changes()).toContain("bath-event");
    for (const kind of ["thickness", "passage", "bath-check", "bake", "plan"]) expect(changes()).not.toContain(kind);
  });
  test("what was signed or given out is never superseded; a load and a passage are followed in course", () => {
    for (const kind of ["disposition", "certificate", "confirmation", "offer-answer"])
      expect(kindOf(kind)?.superseded).toBe("never");
    for (const kind of ["bake", "passage", "plan"]) expect(kindOf(kind)?.superseded).toBe("in-course-too");
    expect(kindOf("thickness")?.superseded).toBe("by-correction");
  });
  test("the table in the docs is what they say", () => {
    expect(readFileSync("docs/kinds.md", "utf8")).toBe(kindsTable());
  });
});
