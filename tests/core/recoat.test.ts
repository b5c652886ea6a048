import { describe, expect, test } from "vitest";
import { recoatOpen } from "@/core/coating";

describe("powder over an old film", () => {
  const ready = { scuffed: true, earthRead: true, kv: 60, mostKv: 60, strangers: null };
  test.each([
    ["all of it done, the voltage just as high as it may be", {}, []],
    ["not scuffed", { scuffed: false }, ["scuff"]],
    ["earth not read", { earthRead: false }, ["earth"]],
    ["no voltage noted", { kv: null }, ["voltage"]],
    ["as high as over metal", { kv: 80 }, ["voltage-reduced"]],
    ["nothing set for a recoat", { kv: 80, mostKv: null }, []],
    [
      "a stranger's film, nobody tried it",
      { strangers: { taped: false, photographed: false } },
      ["tape-test", "photo"],
    ],
    ["a stranger's film that held", { strangers: { taped: true, photographed: true } }, []],
    ["nothing at all", { scuffed: false, earthRead: false, kv: null }, ["scuff", "earth", "voltage"]],
  ] as const)("%s", (_, over, open) => {
    expect(recoatOpen({ ...ready, ...over })).toEqual(open);
  });
});
