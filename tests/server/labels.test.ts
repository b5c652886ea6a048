import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Label, labelsPdf } from "@/server/labels/label-pdf";
import { type LabelKind, labelsOf } from "@/server/labels/labels-of";
import { now } from "@/server/now";
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
  });
  test("of a lot and a drum; what is none is said, and stock is the shop's own", async () => {
    const [lot] = (await setupAt(t.app, "lot", at)).values();
    const [drum] = (await setupAt(t.app, "chemical", at)).values();
    expect(await ask("lot", lot?.code ?? "")).toMatchObject([{ title: lot?.code }]);
    expect(await ask("drum", drum?.code ?? "")).toMatchObject([{ title: drum?.data.product }]);
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
