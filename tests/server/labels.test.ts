import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Label, labelsPdf } from "@/server/labels/label-pdf";
import { type LabelKind, labelsOf } from "@/server/labels/labels-of";
import { newId, now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";

let t: TestDatabase;
const at = now();
const inspector = person("inspector", "tomasz");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());
const ask = async (of: LabelKind, number: string, job = "", who = inspector) => {
  const found = await labelsOf(t.app, who, { of, number, job }, "http://shop.test", at);
  return found.ok ? found.labels : found.failure.kind;
};

describe("labels", () => {
  test("of a rack: its number, part, pieces, order and due day; its code opens the rack", async () => {
    const [label] = (await ask("rack", "1042")) as readonly Label[];
    expect(label).toMatchObject({ title: "Rack 1042", address: "http://shop.test/racks/1042" });
    expect(label?.lines.join(" ")).toMatch(/\d+ pcs.*Job J-/);
    const { job } = await t.app
      .selectFrom("rack")
      .innerJoin("job", "job.id", "rack.job_id")
      .select("job.number as job")
      .where("rack.number", "=", "1042")
      .executeTakeFirstOrThrow();
    const all = (await ask("rack", "", job)) as readonly Label[];
    expect(all.map((l) => l.title)).toContain("Rack 1042");
    const pieces = (await ask("piece", "1042")) as readonly Label[];
    const { n } = await t.app
      .selectFrom("piece")
      .innerJoin("rack", "rack.id", "piece.rack_id")
      .select(({ fn }) => fn.countAll<string>().as("n"))
      .where("rack.number", "=", "1042")
      .executeTakeFirstOrThrow();
    expect(pieces).toHaveLength(Number(n));
    expect(((await ask("panel", "1042")) as readonly Label[])[0]?.blanks).toContain("Panel no.");
    // Of very many none is left out: they are refused, with how many are taken.
    const rack = await t.owner.selectFrom("rack").selectAll().where("number", "=", "1042").executeTakeFirstOrThrow();
    await t.owner
      .insertInto("piece")
      .values(
        Array.from({ length: 1001 - Number(n) }, (_, i) => ({
          id: newId(),
          rack_id: rack.id,
          serial: `many-${i}`,
          position: 1000 + i,
        })),
      )
      .execute();
    expect(await ask("piece", "1042")).toBe("too-many-labels");
  });
  test("of a lot and a drum; what is none is said, and stock is the shop's own", async () => {
    const [lot] = (await setupAt(t.app, "lot", at)).values();
    const [drum] = (await setupAt(t.app, "chemical", at)).values();
    expect(await ask("lot", lot?.code ?? "")).toMatchObject([{ title: lot?.code }]);
    expect(await ask("drum", drum?.code ?? "")).toMatchObject([{ title: drum?.data.product }]);
    // What is not opened yet has a line to write the day on; what is opened says it.
    const lots = [...(await setupAt(t.app, "lot", at)).values()];
    for (const { code, data } of lots.slice(0, 6)) {
      const [label] = (await ask("lot", code)) as readonly Label[];
      const powder = [...(await setupAt(t.app, "powder", at)).values()].find((p) => p.code === data.powderCode);
      expect(label?.lines[0], code).toBe(powder?.data.name);
      expect(label?.blanks, code).toEqual(data.openedOn ? undefined : ["Opened on"]);
      expect(label?.lines[2], code).toBe(data.openedOn ? `Opened ${data.openedOn}` : "");
    }
    expect(((await ask("drum", drum?.code ?? "")) as readonly Label[])[0]?.lines[0]).toBe(
      `Lot ${drum?.data.lot}, ${drum?.data.litres} L`,
    );
    expect(await ask("lot", "none")).toBe("unknown-set-up");
    expect(await ask("rack", "none")).toBe("unknown-rack");
    expect(await ask("rack", "", "J-none")).toBe("no-labels");
    const [customer] = (await setupAt(t.app, "customer", at)).values();
    const held = { ...person("viewer", "otto"), customerId: customer?.id ?? null };
    expect(await ask("lot", lot?.code ?? "", "", held)).toBe("unknown-set-up");
  });
  test("are drawn ten to a sheet, or one to a page, with words of any length", async () => {
    const long = "Lamp body, cast, with the longest name that any customer of ours was ever called by ".repeat(3);
    const labels: Label[] = Array.from({ length: 23 }, (_, i) => ({
      title: i % 2 ? `Rack ${1000 + i}` : long,
      lines: [long, "Order 77", "", "Due 2026-12-01", "GR-505", "six", "seven", "eight"],
      blanks: ["Opened on"],
      address: `http://shop.test/racks/${1000 + i}`,
    }));
    const pages = (pdf: Buffer) => (pdf.toString("latin1").match(/\/Type \/Page\b/g) ?? []).length;
    expect(pages(await labelsPdf(labels, "Copper Lane Coatings", "a4"))).toBe(3);
    expect(pages(await labelsPdf(labels, "Copper Lane Coatings", "roll"))).toBe(23);
  });
});
