import { IDBFactory, IDBKeyRange } from "fake-indexeddb";
import sharp from "sharp";
import { v7 as uuidv7 } from "uuid";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { seededRandom } from "@/core/statistics";
import { addPhoto } from "@/server/field/add-photo";
import { storeCaptured } from "@/server/field/captured";
import { takeAlong } from "@/server/field/take-along";
import { makeStructure } from "@/server/jobs/make-job";
import { now } from "@/server/now";
import {
  type Capture,
  type CapturedEntry,
  type Device,
  deviceNamed,
  giveDay,
  keepCapture,
  keepPack,
  keepPhoto,
} from "@/ui/in-hand/device";
import { type Outcome, sendWaiting, type Transport } from "@/ui/in-hand/outbox";
import type { Pack } from "@/ui/in-hand/pack";
import { person, type TestDatabase, testDatabase } from "../support/database";

let t: TestDatabase;
let png: ArrayBuffer;
const lead = person("lead", "ines");
const bea = { ...person("inspector", "bea"), name: "Bea Nandy" };
beforeAll(async () => {
  t = await testDatabase();
  const made = await makeStructure(
    t.app,
    lead,
    {
      code: "OFF-1",
      name: "Gate without a network",
      site: "Far bank",
      customer: "C1",
      rack: null,
      place: "left",
      putUpOn: null,
      exposure: ["weather"],
    },
    now(),
  );
  expect(made).toMatchObject({ ok: true });
  const bytes = await sharp({ create: { width: 24, height: 16, channels: 3, background: "#884422" } })
    .png()
    .toBuffer();
  png = Uint8Array.from(bytes).buffer;
});
afterAll(() => t.drop());

let browser: IDBFactory;
beforeEach(() => {
  browser = new IDBFactory();
});
/** Opens the device's database as an application does that was just begun; what was kept before is there. */
const opened = (): Device => deviceNamed("field", { indexedDB: browser, IDBKeyRange });

/** The server itself, as its routes answer. */
const server: Transport = {
  who: async () => ({ reached: true, serverMs: now().getTime(), user: "bea" }),
  photo: async (form) => ({
    reached: true,
    serverMs: now().getTime(),
    outcome: (await addPhoto(t.app, bea, form, now)) as Outcome,
  }),
  entry: async (body) => ({
    reached: true,
    serverMs: now().getTime(),
    outcome: (await storeCaptured(t.app, bea, body, now)) as Outcome,
  }),
};
const never: Transport = {
  who: async () => ({ reached: false }),
  photo: async () => ({ reached: false }),
  entry: async () => ({ reached: false }),
};

const seenNow = () => ({ serverMs: now().getTime(), deviceMs: now().getTime() });
const entryOf = (zone: string, note: string, over: object = {}) =>
  ({ kind: "zone-visit", structure: "OFF-1", zone, sound: true, note, ...over }) as CapturedEntry;
const capture = (zone: string, note: string, over: Partial<Capture> = {}) => ({
  id: uuidv7(),
  user: "bea",
  structure: "OFF-1",
  zone,
  round: "0190a000-0000-7000-8000-000000000001",
  capturedMs: now().getTime(),
  clock: seenNow(),
  happenedAt: new Date(now().getTime() - 60_000).toISOString(),
  entry: entryOf(zone, note),
  photos: [],
  ...over,
});
const recorded = async (round: string) =>
  t.app
    .selectFrom("record")
    .innerJoin("zone_visit", "zone_visit.record_id", "record.id")
    .select(["record.id", "zone_visit.note", "record.stored_at"])
    .where("zone_visit.round_id", "=", round)
    .orderBy("record.stored_at")
    .execute();

describe("what was captured without a network", () => {
  test("500 captures, a network that flaps, the application killed ten times in between: each is on record exactly once, in order, with its photo", async () => {
    const round = uuidv7();
    const stream = seededRandom(41);
    const random = () => stream.uniform();
    let device = opened();
    const photos: string[] = [];
    let calls = 0;
    let up = true;
    let next = 5;
    let killAt = 20;
    let kills = 0;
    class Killed extends Error {}
    const flapping =
      <In extends readonly unknown[], Out>(call: (...input: In) => Promise<Out>) =>
      async (...input: In): Promise<Out | { readonly reached: false }> => {
        calls++;
        if (calls >= next) {
          up = !up;
          next = calls + 1 + Math.floor(random() * (up ? 60 : 3));
        }
        if (!up || random() < 0.03) return { reached: false };
        const kill = calls >= killAt && kills < 10;
        // Killed before the server had it, or after it had and before the device knew.
        if (kill && kills % 2 === 0) {
          kills++;
          killAt = calls + 40;
          throw new Killed("before");
        }
        const answer = await call(...input);
        if (kill) {
          kills++;
          killAt = calls + 40;
          throw new Killed("after");
        }
        // The answer is lost on the way back.
        return random() < 0.06 ? { reached: false } : answer;
      };
    const link: Transport = {
      who: flapping(server.who),
      photo: flapping(server.photo),
      entry: flapping(server.entry),
    };
    const send = async () => {
      try {
        return await sendWaiting(device, link, "bea", () => now().getTime());
      } catch (error) {
        if (!(error instanceof Killed)) throw error;
        device.close();
        device = opened();
        return { why: "killed" };
      }
    };
    for (let i = 0; i < 500; i++) {
      const id = uuidv7();
      const photo = i % 9 === 0 ? [{ id: uuidv7(), caption: `photo ${i}`, sent: false }] : [];
      for (const p of photo) {
        photos.push(p.id);
        expect(await keepPhoto(device, { id: p.id, of: "form", type: "image/png", bytes: png }, null)).toEqual({
          ok: true,
        });
      }
      const one = capture(`zone ${i % 12}`, `note ${i}`, {
        id,
        round,
        photos: photo,
        entry: entryOf(`zone ${i % 12}`, `note ${i}`, { round }),
      });
      expect(await keepCapture(device, one, null)).toEqual({ ok: true });
      if (i % 7 === 0) await send();
    }
    for (let tries = 0; tries < 2000; tries++) if ((await send()).why === "sent") break;
    expect(kills).toBe(10);
    const stored = await recorded(round);
    expect(stored).toHaveLength(500);
    const at = new Map(stored.map((r) => [r.note, r.stored_at.getTime()]));
    const inOrder = Array.from({ length: 500 }, (_, i) => at.get(`note ${i}`) ?? Number.NaN);
    expect(inOrder).toEqual([...inOrder].sort((a, b) => a - b));
    expect(await device.captures.where("state").equals("sent").count()).toBe(500);
    const kept = await t.app.selectFrom("record").select("id").where("id", "in", photos).execute();
    expect(kept).toHaveLength(photos.length);
    expect(await device.kept.count()).toBe(0);
  }, 120_000);

  test("is there again after the application was closed, and goes nowhere while there is no network", async () => {
    const device = opened();
    await keepCapture(device, capture("lap", "first"), null);
    expect(await sendWaiting(device, never, "bea", () => now().getTime())).toEqual({ why: "not-reached" });
    device.close();
    expect(await opened().captures.toArray()).toMatchObject([{ zone: "lap", state: "waiting" }]);
  });

  test("is sent by whoever captured it alone; signed in as another, or not at all, it waits", async () => {
    const device = opened();
    await keepCapture(device, capture("lap", "mine"), null);
    const as = (user: string | null): Transport => ({
      ...server,
      who: async () => ({ reached: true, serverMs: now().getTime(), user }),
    });
    expect(await sendWaiting(device, as("tomasz"), "bea", () => now().getTime())).toMatchObject({
      why: "not-signed-in",
      failure: { kind: "somebody-elses" },
    });
    expect(await sendWaiting(device, as(null), "bea", () => now().getTime())).toMatchObject({
      failure: { kind: "signed-out" },
    });
    expect(await device.captures.toArray()).toMatchObject([{ state: "waiting" }]);
    // And the server itself takes nothing in another's name.
    expect(
      await storeCaptured(t.app, { ...bea, username: "tomasz" }, { by: "bea", entry: entryOf("lap", "x") }, now),
    ).toMatchObject({ failure: { kind: "somebody-elses" } });
  });

  test("is kept with why where it is refused, and the others go on", async () => {
    const round = uuidv7();
    const device = opened();
    await keepCapture(device, capture("lap", "bad", { entry: entryOf("lap", "", { sound: null, round }) }), null);
    await keepCapture(device, capture("foot", "good", { entry: entryOf("foot", "good", { round }) }), null);
    expect(await sendWaiting(device, server, "bea", () => now().getTime())).toEqual({ why: "sent" });
    const [bad, good] = await device.captures.orderBy("seq").toArray();
    expect(bad).toMatchObject({ state: "refused", failure: { kind: "zone-empty" } });
    expect(good).toMatchObject({ state: "sent" });
    expect(await recorded(round)).toHaveLength(1);
  });

  test("asks for its day where the clock was set anew, and is then of that day", async () => {
    const round = uuidv7();
    const device = opened();
    // Captured while the clock stood at 2019; when the network is back it has been set.
    const off = { serverMs: now().getTime() - 3_600_000, deviceMs: Date.UTC(2019, 2, 3) };
    const one = capture("lap", "when", { clock: off, entry: entryOf("lap", "when", { round }) });
    await keepCapture(device, one, null);
    expect(await sendWaiting(device, server, "bea", () => now().getTime())).toEqual({ why: "sent" });
    const [asks] = await device.captures.toArray();
    expect(asks).toMatchObject({ state: "asks-day", failure: { kind: "clock-moved" } });
    expect(await recorded(round)).toHaveLength(0);
    const day = new Date(now().getTime() - 86_400_000).toISOString();
    await giveDay(device, asks?.seq ?? 0, day);
    await sendWaiting(device, server, "bea", () => now().getTime());
    const [stored] = await recorded(round);
    const record = await t.app
      .selectFrom("record")
      .select("happened_at")
      .where("id", "=", stored?.id ?? "")
      .executeTakeFirstOrThrow();
    expect(record.happened_at.toISOString()).toBe(day);
  });

  test("is not begun to be kept where the device is full, and that is said with what is left", async () => {
    const device = opened();
    expect(await keepCapture(device, capture("lap", "full"), 3e6)).toEqual({
      ok: false,
      failure: { kind: "device-full", freeMb: 3 },
    });
    expect(await device.captures.count()).toBe(0);
    expect(
      await keepPhoto(device, { id: uuidv7(), of: "form", type: "image/png", bytes: new ArrayBuffer(9e6) }, 25e6),
    ).toMatchObject({ failure: { kind: "device-full" } });
    expect(await device.kept.count()).toBe(0);
  });

  test("only what is captured on site is taken this way", async () => {
    const outcome = await storeCaptured(t.app, bea, { by: "bea", entry: { kind: "disposition" } }, now);
    expect(outcome).toMatchObject({ failure: { kind: "bad-entry", field: "kind" } });
    expect(await storeCaptured(t.app, bea, { entry: 3 }, now)).toMatchObject({ failure: { kind: "bad-entry" } });
  });
});

describe("what is taken along", () => {
  test("names every structure, has those asked for with all their zones, and the next one lets go of what was sent before", async () => {
    const { lines, taken } = await takeAlong(t.app, bea, ["off-1"], now());
    expect(lines.map((l) => l.code)).toContain("OFF-1");
    expect(taken[0]).toMatchObject({ line: { code: "OFF-1" } });
    expect(taken[0]?.zones.map((z) => z.name)).toContain("zone 11");
    const device = opened();
    await keepCapture(device, capture("lap", "sent before", { entry: entryOf("lap", "sent before") }), null);
    await keepCapture(device, capture("lap", "waits"), null);
    const [first] = await device.captures.orderBy("seq").toArray();
    await device.captures.update(first?.seq ?? 0, { state: "sent", sentMs: 1000 });
    await keepPack(device, { user: "bea", clock: { serverMs: 2000, deviceMs: 2000 } } as Pack);
    expect((await device.captures.toArray()).map((c) => c.state)).toEqual(["waiting"]);
  });
});
