import { renderToStaticMarkup } from "react-dom/server";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { learntResponse } from "@/server/baths/learnt-response";
import { type BathFile, loadBath } from "@/server/baths/load-bath";
import { loadLine } from "@/server/line/load-line";
import { newId, now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { AdditionAdvice } from "@/ui/bath/addition-advice";
import { dueList } from "@/ui/shift/due-list";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { bathRound, entityId, stored } from "../support/entries";

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
/** What its acid did to its pH. */
const acidOf = (bath: { id: string; data: { volumeL: number; acidProduct: string } }, when: Date) =>
  learntResponse(
    t.app,
    { id: bath.id, volumeL: bath.data.volumeL },
    { parameter: "ph", product: bath.data.acidProduct, toward: -1 },
    when,
  );
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
      additions: [],
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
    const learnt = await acidOf(await taught("Tank A1", [0.5, 0.5, 0.5, 0.5, 0.5]), hour(500));
    expect(learnt?.n).toBe(5);
    expect(learnt?.changePerLPerM3).toBeCloseTo(-0.5 / (10 / 4.2), 9);
    expect(learnt?.standardError).toBeCloseTo(0, 9);
    const spread = await acidOf(await taught("Tank A2", [0.4, 0.6, 0.5, 0.45, 0.55]), hour(500));
    expect(spread?.changePerLPerM3).toBeCloseTo(-0.5 / (10 / 4.2), 9);
    expect(spread?.standardError).toBeGreaterThan(0.005);
  });
  test("not from four, nor from another product, nor from what came later", async () => {
    expect(await acidOf(await taught("Tank A3", [0.5, 0.5, 0.5, 0.5]), hour(500))).toBeNull();
    expect(await acidOf(await taught("Tank A4", Array(6).fill(0.5), "Something else"), hour(500))).toBeNull();
    const five = await itemOf("Tank A1");
    expect(await acidOf(five, hour(80))).toBeNull();
  });
  test("an addition followed by another before the next check teaches nothing", async () => {
    const bath = await taught("Tank A5", Array(5).fill(0.5));
    expect((await acidOf(bath, hour(500)))?.n).toBe(5);
    await acid("Tank A5", hour(24 + 0.75), 5);
    expect(await acidOf(bath, hour(500))).toBeNull();
  });
  test("doses by it, graded measured; else by the supplier's factor, graded assumed", async () => {
    const learnt = await taught("Tank A6", Array(6).fill(0.5));
    await check("Tank A6", hour(200), 5.9);
    const own = (await loadBath(t.app, "Tank A6", hour(201)))?.additions[0];
    expect(own).toMatchObject({
      kind: "response",
      parameter: "ph",
      grade: "measured",
      product: "Conversion make-up acid",
      learnt: { n: 6 },
    });
    // 5.9 to 5.2 at 0.05 pH a litre: 14 L.
    expect(own?.kind === "response" && own.dosesL.reduce((a, b) => a + b, 0)).toBeCloseTo(14, 6);
    expect(learnt.data.phChangePerLPerM3).toBe(-0.19);
    const fresh = await ownBath("Tank A7");
    await check(fresh, hour(0), 5.9);
    const supplied = (await loadBath(t.app, fresh, hour(1)))?.additions[0];
    // 0.7 pH × 4.2 m³ / 0.19, up to the next half litre.
    expect(supplied).toMatchObject({ kind: "response", grade: "assumed", learnt: null });
    expect(supplied?.kind === "response" && supplied.dosesL.reduce((a, b) => a + b, 0)).toBe(15.5);
  });
  test("the demo's own bath has taught enough", async () => {
    const learnt = await acidOf(await itemOf("Tank 3"), now());
    expect(learnt?.n).toBeGreaterThanOrEqual(5);
    expect(learnt?.changePerLPerM3).toBeLessThan(-0.15);
    expect(learnt?.changePerLPerM3).toBeGreaterThan(-0.23);
    expect(await entityId(t, "bath", "Tank 3")).toBeTruthy();
  });
});

describe("what would bring a bath back", () => {
  const checks = (bath: string, at: Date, values: Record<string, number>) =>
    stored(t, operator, at, bathRound(bath, values, { sure: true }));
  const additionsOf = async (bath: string, at: Date) => (await loadBath(t.app, bath, at))?.additions ?? [];
  test("every value that is out and has a product is advised: acid, concentrate with what to drain, and on top", async () => {
    const code = await ownBath("Tank B1");
    await checks(code, hour(0), { ph: 5.9, concentration: 1.2 });
    const found = await additionsOf(code, hour(1));
    expect(found.map((a) => [a.parameter, a.kind])).toEqual([
      ["ph", "response"],
      ["concentration", "concentrate"],
    ]);
    const strength = found.find((a) => a.kind === "concentrate");
    if (strength?.kind !== "concentrate" || !strength.levelKept.ok || !strength.onTop.ok) throw new Error("no plan");
    // 4200 L from 1.2 to 2.1 %: 4200 · 0.9/98.8 = 38.26 drained first, 4200 · 0.9/97.9 = 38.61 on top, in half litres.
    const total = (of: readonly number[]) => of.reduce((a, b) => a + b, 0);
    expect(total(strength.levelKept.value.dosesL)).toBe(38.5);
    expect(total(strength.onTop.value.dosesL)).toBe(39);
    const most = (await itemOf(code)).data.maxSingleL ?? Number.POSITIVE_INFINITY;
    expect(strength.levelKept.value.dosesL.every((d) => d <= most)).toBe(true);
    const html = renderToStaticMarkup(
      <AdditionAdvice file={(await loadBath(t.app, code, hour(1))) as BathFile} units="metric" />,
    ).replace(/<[^>]+>/g, "");
    expect(html).toMatch(/Drain 38\.5 L first, then add/);
    expect(html).toMatch(/Or 39\.0 L on top/);
  });
  test("too strong is drained and refilled; near its aim nothing is added", async () => {
    const code = await ownBath("Tank B2");
    await checks(code, hour(0), { concentration: 3.2 });
    // 4200 · (3.2 − 2.1)/3.2 = 1443.75.
    expect(await additionsOf(code, hour(1))).toEqual([
      { parameter: "concentration", from: 3.2, to: 2.1, kind: "dilute", litres: 1444 },
    ]);
    await checks(code, hour(2), { concentration: 2.08, ph: 5.3 });
    expect(await additionsOf(code, hour(3))).toEqual([]);
  });
  test("an inhibitor's dose is not made up: by its past additions here, or said not to be known", async () => {
    const code = await ownBath("Tank B3");
    await checks(code, hour(0), { inhibitor: 150 });
    expect(await additionsOf(code, hour(1))).toMatchObject([
      { parameter: "inhibitor", kind: "not-known", product: "Nitrite inhibitor", additionsAsked: 5 },
    ]);
    for (let i = 0; i < 5; i++) {
      await checks(code, hour(10 + 10 * i), { inhibitor: 200 });
      await acid(code, hour(11 + 10 * i), 4, "Nitrite inhibitor");
      await checks(code, hour(12 + 10 * i), { inhibitor: 360 });
    }
    await checks(code, hour(70), { inhibitor: 150 });
    const [known] = await additionsOf(code, hour(71));
    // Forty mg/L a litre; from 150 to the middle of 180 to 600: 6 L.
    expect(known).toMatchObject({ parameter: "inhibitor", kind: "response", grade: "measured", to: 390 });
    expect(known?.kind === "response" && known.dosesL.reduce((a, b) => a + b, 0)).toBe(6);
  });
  test("a bath that is out is said to be out on Shift, not to move toward the limit it has passed", async () => {
    const code = await ownBath("Tank B9", {
      windows: { ph: { lower: 4.8, upper: 5.8, watchLower: null, watchUpper: null, reaction: null } },
    });
    const ago = (hours: number) => new Date(now().getTime() - hours * 3_600_000);
    for (const [i, ph] of [5.2, 5.4, 5.6, 5.75, 5.95].entries()) await check(code, ago(9 - 2 * i), ph);
    const due = dueList(await loadLine(t.app, operator, now()), "metric").find((d) => d.what === "Tank B9");
    expect(due?.result).toBe("out");
    expect(due?.why).toMatch(/^pH read 5\.95/);
    expect(due?.why).not.toMatch(/moves toward/);
  });
});
