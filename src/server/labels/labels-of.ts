import type { Kysely } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import type { Database } from "@/db/schema";
import { findStructure } from "../field/find-structure";
import { zonesOf } from "../field/zones-of";
import { type Outcome, refuse } from "../outcome";
import { setupAt } from "../setup/setup-data";
import { ofTheShop, type Person } from "../sign-in/roles";
import type { Label } from "./label-pdf";

export const labelKinds = ["rack", "piece", "panel", "lot", "drum", "structure"] as const;
export type LabelKind = (typeof labelKinds)[number];
/** A hundred sheets; more at once is refused, never cut. */
const MOST = 1000;

/**
 * Labels of a kind: of a rack, of all racks of a job, of a rack's pieces, a test panel of a rack, a lot of powder, a drum,
 * a structure with each of its zones. Failures: `unknown-rack`, `unknown-structure`, `unknown-set-up`, `no-labels`, `too-many-labels`.
 */
export async function labelsOf(
  db: Kysely<Database>,
  person: Person,
  ask: { readonly of: LabelKind; readonly number: string; readonly job: string },
  base: string,
  at: Date,
): Promise<Outcome<{ readonly labels: readonly Label[] }>> {
  if (ask.of === "structure") return structureLabels(db, person, ask.number, base);
  if (ask.of === "lot" || ask.of === "drum") return stockLabel(db, person, ask.of, ask.number, base, at);
  const rows = await db
    .selectFrom("rack")
    .innerJoin("job", "job.id", "rack.job_id")
    .select([
      "rack.id",
      "rack.number",
      "job.number as job",
      "job.customer_id",
      "job.part_id",
      "job.powder_id",
      "job.due_on",
      "job.customer_order",
      (eb) =>
        eb
          .selectFrom("piece")
          .select(eb.fn.countAll<string>().as("n"))
          .whereRef("piece.rack_id", "=", "rack.id")
          .as("pieces"),
    ])
    .where(ask.job === "" ? "rack.number" : "job.number", "=", ask.job === "" ? ask.number : ask.job)
    .where(forPerson(person, "job.customer_id"))
    .orderBy("rack.number")
    .limit(MOST + 1)
    .execute();
  const [first] = rows;
  if (!first)
    return refuse(ask.job === "" ? { kind: "unknown-rack", number: ask.number } : { kind: "no-labels", job: ask.job });
  if (rows.length > MOST) return refuse({ kind: "too-many-labels", of: `job ${ask.job}`, most: MOST });
  const [customers, parts, powders] = await Promise.all([
    setupAt(db, "customer", at),
    setupAt(db, "part", at),
    setupAt(db, "powder", at),
  ]);
  const linesOf = (r: (typeof rows)[number]): string[] => [
    `${parts.get(r.part_id)?.data.name ?? ""}, ${r.pieces} pcs`,
    customers.get(r.customer_id)?.data.name ?? "",
    `Job ${r.job}${r.customer_order ? `, order ${r.customer_order}` : ""}`,
    r.due_on ? `Due ${r.due_on}` : "",
    `${powders.get(r.powder_id)?.code ?? ""} ${powders.get(r.powder_id)?.data.name ?? ""}`,
  ];
  const rackLabel = (r: (typeof rows)[number]): Label => ({
    title: `Rack ${r.number}`,
    lines: linesOf(r),
    address: `${base}/racks/${encodeURIComponent(r.number)}`,
  });
  if (ask.of === "rack") return { ok: true, labels: rows.map(rackLabel) };
  if (ask.of === "panel")
    return {
      ok: true,
      labels: [
        {
          title: `Panel, rack ${first.number}`,
          lines: [
            `Job ${first.job}`,
            `${powders.get(first.powder_id)?.code ?? ""} ${powders.get(first.powder_id)?.data.name ?? ""}`,
          ],
          blanks: ["Panel no.", "Metal, where it hung", "Test, date, by"],
          address: `${base}/racks/${encodeURIComponent(first.number)}/bench`,
        },
      ],
    };
  const pieces = await db
    .selectFrom("piece")
    .select(["serial", "position"])
    .where("rack_id", "=", first.id)
    .orderBy("position")
    .limit(MOST + 1)
    .execute();
  if (pieces.length === 0) return refuse({ kind: "no-labels", job: first.job });
  if (pieces.length > MOST) return refuse({ kind: "too-many-labels", of: `rack ${first.number}`, most: MOST });
  return {
    ok: true,
    labels: pieces.map((p) => ({
      title: p.serial,
      lines: [`Piece ${p.position} of rack ${first.number}`, ...linesOf(first).slice(0, 4)],
      address: `${base}/racks/${encodeURIComponent(first.number)}`,
    })),
  };
}

/** A structure's own, which opens its page, and one of each zone, which opens its round there. */
async function structureLabels(
  db: Kysely<Database>,
  person: Person,
  code: string,
  base: string,
): Promise<Outcome<{ readonly labels: readonly Label[] }>> {
  const structure = await findStructure(db, person, code);
  if (!structure) return refuse({ kind: "unknown-structure", name: code });
  const zones = await zonesOf(db, structure.id, null);
  const own = encodeURIComponent(structure.code);
  return {
    ok: true,
    labels: [
      {
        title: structure.code,
        lines: [structure.name, structure.site],
        address: `${base}/field/${encodeURIComponent(structure.code.toLowerCase())}`,
      },
      ...zones
        .filter((z) => z.registered)
        .map((z) => ({
          title: z.name,
          lines: [`${structure.code} ${structure.name}`, structure.site],
          address: `${base}/round#${own}/${encodeURIComponent(z.name)}`,
        })),
    ],
  };
}

async function stockLabel(
  db: Kysely<Database>,
  person: Person,
  of: "lot" | "drum",
  code: string,
  base: string,
  at: Date,
): Promise<Outcome<{ readonly labels: readonly Label[] }>> {
  const unknown = refuse({ kind: "unknown-set-up", what: of, name: code });
  // What a shop has in store is its own affair.
  if (!ofTheShop(person)) return unknown;
  const same = (e: { readonly code: string }) => e.code.toLowerCase() === code.toLowerCase();
  if (of === "lot") {
    const lot = [...(await setupAt(db, "lot", at)).values()].find(same);
    if (!lot) return unknown;
    const powder = [...(await setupAt(db, "powder", at)).values()].find((p) => p.code === lot.data.powderCode);
    const label: Label = {
      title: lot.code,
      lines: [
        powder?.data.name ?? "",
        `Made ${lot.data.madeOn}, received ${lot.data.receivedOn}`,
        lot.data.openedOn ? `Opened ${lot.data.openedOn}` : "",
        powder?.data.storeMostC == null ? "" : `Store up to ${powder.data.storeMostC} °C, dry`,
        powder?.data.hazards ?? "",
      ],
      ...(lot.data.openedOn ? {} : { blanks: ["Opened on"] }),
      address: `${base}/coat/powders#${encodeURIComponent(lot.code)}`,
    };
    return { ok: true, labels: [label] };
  }
  const drum = [...(await setupAt(db, "chemical", at)).values()].find(same);
  if (!drum) return unknown;
  const { product, lot, receivedOn, litres, usableUntil } = drum.data;
  return {
    ok: true,
    labels: [
      {
        title: product,
        lines: [
          `Lot ${lot}, ${litres} L`,
          `Received ${receivedOn}`,
          usableUntil ? `Usable until ${usableUntil}` : "",
          "Its safety sheet first: gloves, eyes covered",
        ],
        blanks: ["Opened on"],
        address: `${base}/pretreat/set-up`,
      },
    ],
  };
}
