import { describe, expect, test } from "vitest";
import { plannedHref, plannedStart } from "@/ui/cure/planned-start";

const ovens = ["Oven 1", "Oven 2", "Lamps 1"];
const read = (href: string) => plannedStart(Object.fromEntries(new URL(href, "http://x").searchParams), ovens);

describe("what a plan hands over to the load", () => {
  test("comes back as it was sent", () => {
    const plan = { racks: ["1045", "V 201"], oven: "Oven 2", setPointC: 210 };
    expect(read(plannedHref(plan))).toEqual(plan);
    expect(read(plannedHref({ racks: [], oven: null, setPointC: null }))).toEqual({
      racks: [],
      oven: null,
      setPointC: null,
    });
  });
  test("a set point is a whole degree, as an oven's dial is", () => {
    expect(plannedHref({ racks: ["1"], oven: null, setPointC: 204.44 })).toBe("/cure?racks=1&set=204");
  });
  test.each<[string, Record<string, string | string[] | undefined>, object]>([
    ["an oven that is none", { oven: "Oven 9" }, { oven: null }],
    ["two ovens", { oven: ["Oven 1", "Oven 2"] }, { oven: null }],
    ["a set point in words", { set: "hot" }, { setPointC: null }],
    ["an empty one", { set: "" }, { setPointC: null }],
    ["a cold one", { set: "20" }, { setPointC: null }],
    ["one beyond any oven", { set: "9999" }, { setPointC: null }],
    ["racks twice over", { racks: ["1", "2"] }, { racks: [] }],
    ["a rack named twice, and none between commas", { racks: "1045,,1045, 1046 " }, { racks: ["1045", "1046"] }],
  ])("%s is left out", (_, search, expected) => {
    expect(plannedStart(search, ovens)).toMatchObject(expected);
  });
  test("no more racks than a load holds", () => {
    const many = Array.from({ length: 200 }, (_, i) => String(i)).join(",");
    expect(plannedStart({ racks: many }, ovens).racks).toHaveLength(40);
  });
});
