import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { learntResponse } from "@/server/baths/learnt-response";
import { loadBath } from "@/server/baths/load-bath";
import { newId, now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entityId, stored } from "../support/entries";

let t: TestDatabase;
const operator = person("operator", "rufus");
const start = new Date("2024-03-04T06:00:00Z");
const hour = (n: number) => new Date(start.getTime() + n * 3_600_000);
/** A bath of the test's own, with no history but what the test gives it. */
async function ownBath(code: string, over: object = {}) {
  const conversion = [...(await setupAt(t.app, "bath", now())).values()].find((b) => b.code === "Tank 3");
  const id = newId();
  await t.app.insertInto("setup_entity").values({ id, kind: "bath", code }).execute();
  await t.app
    .insertInto("setup_version")
    .values({
      id: newId(),
      entity_id: id,
      valid_from: new Date("2020-01-01T00:00:00Z"),
      recorded_at: now(),
      by_user: "dagny",
      reason: "for the test",
      data: JSON.stringify({ ...conversion?.data, name: code, ...over }),
    })
    .execute();
  return code;
}
const check = (bath: string, at: Date, ph: number) =>
  stored(t, operator, at, {
    kind: "bath-check",
    bath,
    values: [{ parameter: "ph", value: ph, typed: String(ph), typedUnit: "" }],
  });
const acid = (bath: string, at: Date, amountL: number, product = "Conversion make-up acid") =>
  stored(t, operator, at, {
    kind: "bath-event",
    bath,
    event: "addition",
    product,
    amountL,
    note: "as told",
    sure: true,
  });
const itemOf = async (code: string) => {
  const item = [...(await setupAt(t.app, "bath", now())).values()].find((b) => b.code === code);
  if (!item) throw new Error(code);
  return item;
};

beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

describe("a bath and its chart", () => {
  test("checks out of the window stay on the chart but not in its limits", async () => {
    const code = await ownBath("Tank C1");
    const values = [5.2, 5.24, 5.21, 5.25, 5.22, 6.2, 6.3, 6.25, 5.21, 5.24, 5.2, 5.23, 5.21, 5.24];
    for (const [i, ph] of values.entries()) await check(code, hour(4 * i), ph);
    const series = (await loadBath(t.app, code, hour(56)))?.series.find((s) => s.parameter === "ph");
    expect(series?.points).toHaveLength(14);
    expect(series?.leftOut).toBe(3);
    expect(series?.chart?.half).toBeLessThan(0.15);
    expect(series?.points.filter((p) => p.result === "out")).toHaveLength(3);
    expect(series?.chart?.runRules[1]).toEqual(expect.arrayContaining([5, 6, 7]));
  });
  test("a climb toward the limit brings the next check forward; without trend it is the round", async () => {
    const climbing = await ownBath("Tank C2");
    for (const [i, ph] of [5.2, 5.32, 5.41, 5.53, 5.6].entries()) await check(climbing, hour(i), ph);
    const soon = await loadBath(t.app, climbing, hour(4.5));
    const ph = soon?.series.find((s) => s.parameter === "ph");
    expect(ph).toMatchObject({ nextCheckWhy: "forecast", forecast: { kind: "forecast", limit: 5.8, side: "upper" } });
    expect(soon?.nextCheckBy?.getTime()).toBeLessThan(hour(8).getTime());
    const steady = await ownBath("Tank C3");
    for (const [i, v] of [5.2, 5.22, 5.19, 5.21].entries()) await check(steady, hour(i), v);
    expect((await loadBath(t.app, steady, hour(4)))?.nextCheckBy).toEqual(hour(7));
  });
  test("an addition starts the trend anew", async () => {
    const code = await ownBath("Tank C4");
    for (const [i, ph] of [5.2, 5.4, 5.6].entries()) await check(code, hour(i), ph);
    await acid(code, hour(2.5), 9);
    await check(code, hour(3), 5.2);
    await check(code, hour(4), 5.22);
    const ph = (await loadBath(t.app, code, hour(4)))?.series.find((s) => s.parameter === "ph");
    expect(ph?.forecast).toBeNull();
    expect(ph?.noForecastWhy).toMatchObject({ kind: "too-few-points", got: 2 });
  });
  test("a corrected check is judged by its correction", async () => {
    const code = await ownBath("Tank C5");
    const wrong = await check(code, hour(0), 9);
    expect((await loadBath(t.app, code, hour(1)))?.result).toBe("out");
    await stored(t, operator, hour(0), {
      kind: "bath-check",
      bath: code,
      values: [{ parameter: "ph", value: 5.2, typed: "5.2", typedUnit: "" }],
      supersedes: { recordId: wrong, reason: "slipped a key" },
    });
    const file = await loadBath(t.app, code, hour(1));
    expect(file?.series.find((s) => s.parameter === "ph")?.points.map((p) => p.value)).toEqual([5.2]);
  });
  test("no such bath is null, a bath without checks is not known", async () => {
    expect(await loadBath(t.app, "Tank 99", hour(0))).toBeNull();
    const code = await ownBath("Tank C6");
    expect(await loadBath(t.app, code, hour(0))).toMatchObject({
      result: "unknown",
      nextCheckBy: null,
      addition: null,
    });
  });
});

describe("what acid does to this bath", () => {
  /** Five additions of 10 L to 4200 L, each bringing pH down by what is given. */
  async function taught(code: string, drops: readonly number[], product?: string) {
    await ownBath(code);
    for (const [i, drop] of drops.entries()) {
      await check(code, hour(i * 24), 5.7);
      await acid(code, hour(i * 24 + 0.5), 10, product);
      await check(code, hour(i * 24 + 1), 5.7 - drop);
    }
    return itemOf(code);
  }
  test("is learnt from five additions: drop per litre and cubic metre, with its error", async () => {
    const learnt = await learntResponse(t.app, await taught("Tank A1", [0.5, 0.5, 0.5, 0.5, 0.5]), hour(500));
    expect(learnt?.n).toBe(5);
    expect(learnt?.changePerLPerM3).toBeCloseTo(-0.5 / (10 / 4.2), 9);
    expect(learnt?.standardError).toBeCloseTo(0, 9);
    const spread = await learntResponse(t.app, await taught("Tank A2", [0.4, 0.6, 0.5, 0.45, 0.55]), hour(500));
    expect(spread?.changePerLPerM3).toBeCloseTo(-0.5 / (10 / 4.2), 9);
    expect(spread?.standardError).toBeGreaterThan(0.005);
  });
  test("not from four, nor from another product, nor from what came later", async () => {
    expect(await learntResponse(t.app, await taught("Tank A3", [0.5, 0.5, 0.5, 0.5]), hour(500))).toBeNull();
    expect(
      await learntResponse(t.app, await taught("Tank A4", Array(6).fill(0.5), "Something else"), hour(500)),
    ).toBeNull();
    const five = await itemOf("Tank A1");
    expect(await learntResponse(t.app, five, hour(80))).toBeNull();
  });
  test("an addition followed by another before the next check teaches nothing", async () => {
    const bath = await taught("Tank A5", Array(5).fill(0.5));
    expect((await learntResponse(t.app, bath, hour(500)))?.n).toBe(5);
    await acid("Tank A5", hour(24 + 0.75), 5);
    expect(await learntResponse(t.app, bath, hour(500))).toBeNull();
  });
  test("doses by it, graded measured; else by the supplier's factor, graded assumed", async () => {
    const learnt = await taught("Tank A6", Array(6).fill(0.5));
    await check("Tank A6", hour(200), 5.9);
    const own = (await loadBath(t.app, "Tank A6", hour(201)))?.addition;
    expect(own).toMatchObject({
      kind: "acid",
      grade: "measured",
      product: "Conversion make-up acid",
      learnt: { n: 6 },
    });
    // 5.9 to 5.2 at 0.05 pH a litre: 14 L.
    expect(own?.kind === "acid" && own.litres).toBeCloseTo(14, 6);
    expect(learnt.data.phChangePerLPerM3).toBe(-0.19);
    const fresh = await ownBath("Tank A7");
    await check(fresh, hour(0), 5.9);
    const supplied = (await loadBath(t.app, fresh, hour(1)))?.addition;
    // 0.7 pH × 4.2 m³ / 0.19, up to the next half litre.
    expect(supplied).toMatchObject({ kind: "acid", grade: "assumed", learnt: null, litres: 15.5 });
  });
  test("the demo's own bath has taught enough", async () => {
    const learnt = await learntResponse(t.app, await itemOf("Tank 3"), now());
    expect(learnt?.n).toBeGreaterThanOrEqual(5);
    expect(learnt?.changePerLPerM3).toBeLessThan(-0.15);
    expect(learnt?.changePerLPerM3).toBeGreaterThan(-0.23);
    expect(await entityId(t, "bath", "Tank 3")).toBeTruthy();
  });
});
