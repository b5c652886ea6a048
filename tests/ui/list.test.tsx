import { describe, expect, test } from "vitest";
import { List } from "@/ui/lists/list";
import { Table } from "@/ui/lists/table";
import { html, words } from "../support/markup";

const columns = [
  { key: "rack", head: "rack", width: "60px", look: "fig" },
  { key: "film", head: "film", width: "1fr", num: true },
  { key: "note", head: "note", width: "1fr", wide: true },
];
const rowsOf = (count: number) =>
  Array.from({ length: count }, (_, i) => ({
    key: String(i),
    href: `/racks/${i}`,
    values: { rack: `R${i}`, film: 60 + i, note: null },
    cells: { film: <b>{60 + i} µm</b> },
  }));
const draw = (count: number, more: object = {}) =>
  html(<Table name="Racks" columns={columns} rows={rowsOf(count)} empty="None yet. Hang one." {...more} />);

describe("a list", () => {
  test("says what it is for where it is empty", () => {
    expect(words(<List name="Racks" columns={columns} rows={[]} empty="None yet. Hang one." />)).toBe(
      "None yet. Hang one.",
    );
  });
  test("shows each row with its own way of showing, else the value, the whole of it a link", () => {
    const out = draw(3);
    expect(out.match(/<a /g)).toHaveLength(3);
    expect(out).toContain("<b>61 µm</b>");
    expect(out).toContain(">R2<");
    expect(out).not.toContain(">62<");
  });
  test("is found in and saved only where it is long, and sorted only where all of it is here", () => {
    expect(draw(3)).not.toContain("find in these");
    expect(draw(20)).toContain("find in these");
    expect(draw(20)).toContain("Sort by rack");
    expect(draw(20, { part: true })).not.toMatch(/Sort by|find in these/);
    expect(draw(20, { part: true })).toContain("CSV of what is shown");
  });
  test("stands there before anything works on it, as many rows as it will have, each in its place", () => {
    const before = html(<List name="Racks" columns={columns} rows={rowsOf(30)} empty="" />);
    expect(before.match(/<a /g)).toHaveLength(30);
    expect(before).toContain("<b>89 µm</b>");
    expect(before).toContain(">film<");
    expect(before).not.toContain("<button");
  });
  test("of a thousand draws those that are seen, and keeps the room of the rest", () => {
    const out = draw(1000);
    const drawn = out.match(/<a /g)?.length ?? 0;
    expect(drawn).toBeGreaterThan(10);
    expect(drawn).toBeLessThan(60);
    expect(out).toContain(`height:${1000 * 52}px`);
  });
});
