import type { Kysely } from "kysely";
import {
  advise,
  asNew,
  type Condition,
  type Exposure,
  facesOf,
  lineStagesOf,
  parseIntakeLine,
  routeCard,
} from "@/core/plan";
import { valueOrThrow } from "@/core/result";
import type { Json } from "@/db/detail-tables";
import type { Database } from "@/db/schema";
import { drawnFaces } from "@/server/plan/save-part";
import type { NewRecord } from "@/server/record/store-record";
import type { PlanInput, RequirementInput } from "@/server/requirement";
import type { SetupInput } from "@/server/setup/setup-data";
import { DAY, demoId, insertRecords, type Made, record } from "./demo-record";

export type ToldOffer = {
  readonly code: string;
  readonly what: string;
  readonly quantity: number | null;
  readonly unit: string | null;
  readonly price: number;
  readonly risk: string;
  readonly answer: { readonly taken: boolean; readonly who: string; readonly how: string } | null;
};
type Told = {
  readonly number: string;
  /** A rack of it that already hangs; null while it waits. */
  readonly rack: string | null;
  readonly line: string;
  readonly customer: string;
  readonly powder: string;
  readonly exposure: readonly Exposure[];
  readonly lifeYears: number | null;
  readonly condition: Condition;
  readonly receivedDaysAgo: number;
  readonly dueInDays: number;
  /** Which of the systems was agreed; the cheaper one where the customer turned an option down. */
  readonly agreed: "recommended" | "cheaper";
  readonly without: Partial<{ primer: true; blast: true; sealSeams: true }>;
  readonly offers: readonly ToldOffer[];
};

/** Work on hand, as a lead planned it: the declined primer, the declined blast, the declined sealer, and heavy plates among thin covers. */
const told: readonly Told[] = [
  {
    number: "J-421",
    rack: "1101",
    line: "Gangway rail,steel,2400x300x900,5,31,2.3,14,sharp",
    customer: "C1",
    powder: "GR-505",
    exposure: ["weather", "coast", "knocks"],
    lifeYears: 5,
    condition: { ...asNew, scale: true },
    receivedDaysAgo: 2,
    dueInDays: 9,
    agreed: "recommended",
    without: { primer: true },
    offers: [
      {
        code: "zinc-primer",
        what: "Zinc barrier primer GR-610",
        quantity: null,
        unit: null,
        price: 412,
        risk: "Rust creeps from every knock; by the sea it is seen within two years",
        answer: { taken: false, who: "the ferry line's yard office", how: "by telephone" },
      },
      {
        code: "edge-breaking",
        what: "Edges broken and dressed",
        quantity: 63,
        unit: "m",
        price: 118,
        risk: "Film draws back thin from sharp edges and rust begins there",
        answer: { taken: true, who: "the ferry line's yard office", how: "by telephone" },
      },
    ],
  },
  {
    number: "J-422",
    rack: null,
    line: "Notice frame,plate,1200x60x1600,6,18,1.95,8",
    customer: "C2",
    powder: "GR-340",
    exposure: ["weather"],
    lifeYears: 6,
    condition: { ...asNew, scale: true },
    receivedDaysAgo: 3,
    dueInDays: 6,
    agreed: "recommended",
    without: { blast: true, primer: true },
    offers: [
      {
        code: "blast",
        what: "Blast to a profile",
        quantity: 15.6,
        unit: "m²",
        price: 168,
        risk: "Mill scale lets go of the steel within a year or so and takes the film with it",
        answer: { taken: false, who: "the borough's works office", how: "by mail" },
      },
    ],
  },
  {
    number: "J-423",
    rack: null,
    line: "Shelter bench,steel,1800x450x450,4,24,1.8,10,laps 3.2",
    customer: "C2",
    powder: "GR-212",
    exposure: ["weather", "salt", "standing-water"],
    lifeYears: 10,
    condition: asNew,
    receivedDaysAgo: 1,
    dueInDays: 14,
    agreed: "recommended",
    without: { sealSeams: true },
    offers: [
      {
        code: "seam-seal",
        what: "Seam sealer on the lap under the seat",
        quantity: 32,
        unit: "m",
        price: 236,
        risk: "The lap stays open: street salt gets in, and it weeps rust",
        answer: { taken: false, who: "the borough's works office", how: "by mail" },
      },
      {
        code: "test-panels",
        what: "Test panels with the job, three",
        quantity: 3,
        unit: "pieces",
        price: 45,
        risk: "No salt-spray panel to show later",
        answer: null,
      },
    ],
  },
  {
    number: "J-424",
    rack: null,
    line: "Mooring plate,plate,600x400x60,25,42,0.56,12",
    customer: "C1",
    powder: "GR-210",
    exposure: ["weather", "coast"],
    lifeYears: 8,
    condition: { ...asNew, rust: "B" },
    receivedDaysAgo: 1,
    dueInDays: 7,
    agreed: "recommended",
    without: {},
    offers: [],
  },
  {
    number: "J-425",
    rack: null,
    line: "Plate cover,sheet,620x420x40,2,3.1,0.54,12",
    customer: "C1",
    powder: "GR-210",
    exposure: ["weather", "coast"],
    lifeYears: 8,
    condition: asNew,
    receivedDaysAgo: 1,
    dueInDays: 7,
    agreed: "recommended",
    without: {},
    offers: [],
  },
];

const schedule = { metalC: 190, minutes: 15 };

/** Jobs on hand with their plans, offers and answers, planned through the same core as the Plan stage. Returns how many records. */
export async function loadPlans(db: Kysely<Database>, made: Made, anchor: Date): Promise<number> {
  const records: NewRecord[] = [];
  const racks: NewRecord[] = [];
  for (const t of told) {
    const part = valueOrThrow(parseIntakeLine(t.line));
    const receivedMs = anchor.getTime() - t.receivedDaysAgo * DAY;
    const service = { exposure: t.exposure, lifeYears: t.lifeYears, finish: "standard" as const, serviceC: null };
    const advised = valueOrThrow(advise(part, t.condition, service))[t.agreed]?.system;
    if (!advised) throw new RangeError(`job ${t.number} has no ${t.agreed} system`);
    const system = {
      ...advised,
      ...(t.without.primer ? { primer: "none" as const, primerUm: null, curing: "one-cure" as const } : {}),
      ...(t.without.blast ? { preparation: "sand" as const } : {}),
      ...(t.without.sealSeams ? { sealSeams: false } : {}),
      family: t.powder === "GR-212" ? ("polyester-high-weathering" as const) : ("polyester" as const),
      primerUm:
        t.without.primer || !advised.primerUm ? null : ([advised.primerUm[0], advised.primerUm[1]] as [number, number]),
      topUm: [60, 90] as [number, number],
    };
    const route = routeCard({
      part,
      condition: t.condition,
      system,
      cureMetalC: schedule.metalC,
      cureMinutes: schedule.minutes,
      blastProfileUm: [35, 60],
      contactS: [60, 120],
      masks: 0,
    });
    const plan: PlanInput = {
      stages: [...lineStagesOf(route)],
      primer: system.primer !== "none",
      exposure: [...t.exposure],
      offered: [],
      pieces: part.pieces,
      condition: t.condition,
      lifeYears: t.lifeYears,
      system,
    };
    const partId = demoId(receivedMs, `part:${t.number}`);
    const data: SetupInput<"part"> = {
      name: part.name,
      substrate: part.substrate,
      thickestMm: part.thickestMm,
      features: [...part.features],
      measures: {
        box: part.box,
        thinnestMm: part.thinnestMm,
        massKg: part.massKg,
        areaM2: part.areaM2,
        lapM: part.lapM,
        edgeM: t.number === "J-421" ? 4.5 : 0,
      },
      marks: [
        { kind: "hang", face: "F", at: [15, 4], note: "hole, hidden when fitted" },
        { kind: "hang", face: "F", at: [85, 4], note: "hole, hidden when fitted" },
      ],
      // Sides of these look alike: front, back and the underside that is easily forgotten.
      faces: drawnFaces(facesOf("box").filter((f) => f.id !== "S")),
    };
    await db
      .insertInto("setup_entity")
      .values({ id: partId, kind: "part", code: part.name.toUpperCase().replaceAll(" ", "-") })
      .execute();
    await db
      .insertInto("setup_version")
      .values({
        id: demoId(receivedMs, `part-version:${t.number}`),
        entity_id: partId,
        valid_from: new Date(receivedMs),
        recorded_at: new Date(receivedMs),
        by_user: "ines",
        reason: "First intake",
        data: JSON.stringify(data),
      })
      .execute();
    const requirement: RequirementInput = {
      film: { rule: "spot-area", minUm: 60, maxUm: 90, level: 3 },
      adhesionWorstIso: 1,
      cureDecidedBy: "index",
    };
    const jobId = demoId(receivedMs, `job:${t.number}`);
    await db
      .insertInto("job")
      .values({
        id: jobId,
        number: t.number,
        customer_id: made.entity("customer", t.customer),
        part_id: partId,
        powder_id: made.entity("powder", t.powder),
        received_at: new Date(receivedMs),
        due_on: new Date(anchor.getTime() + t.dueInDays * DAY).toISOString().slice(0, 10),
        requirement: JSON.stringify(requirement),
        plan: JSON.stringify(plan),
        created_by: "ines",
      })
      .execute();
    if (t.rack) {
      // Hung and blasted a while ago: the agreement is already on its thread.
      const hungMs = anchor.getTime() - 95 * 60_000;
      const rackId = demoId(hungMs, `rack:${t.rack}`);
      await db
        .insertInto("rack")
        .values({ id: rackId, number: t.rack, job_id: jobId, hung_at: new Date(hungMs), created_by: "maren" })
        .execute();
      await db
        .insertInto("piece")
        .values(
          [1, 2, 3, 4].map((position) => ({
            id: demoId(hungMs, `piece:${t.rack}:${position}`),
            rack_id: rackId,
            serial: `${t.rack}-0${position}`,
            position,
          })),
        )
        .execute();
      racks.push(
        record("passage", hungMs + 1000, `${t.rack}:blast`, {
          by: "maren",
          grade: "measured",
          jobId,
          rackId,
          details: {
            passage: [
              {
                stage: "blast",
                entered_at: new Date(hungMs + 1000),
                left_at: new Date(hungMs + 25 * 60_000),
                source: "scan",
              },
            ],
          },
        }),
      );
    }
    const base = { by: "ines", grade: "measured" as const, jobId };
    records.push(...offerRecords(t.number, jobId, receivedMs, t.offers));
    records.push(
      record("plan", receivedMs + 5 * 3_600_000, t.number, {
        ...base,
        details: {
          job_plan: [
            { version: 1, released: t.number !== "J-423", document: JSON.parse(JSON.stringify(plan)) as Json },
          ],
        },
      }),
    );
  }
  await insertOffersFirst(db, records);
  await insertRecords(db, racks);
  return records.length + racks.length;
}

/** What was offered with a job on the day it came in, ten minutes apart, and its answers an hour after. */
export function offerRecords(
  number: string,
  jobId: string,
  receivedMs: number,
  offers: readonly ToldOffer[],
): NewRecord[] {
  const base = { by: "ines", grade: "measured" as const, jobId };
  return offers.flatMap((o, i) => {
    const atMs = receivedMs + (i + 1) * 600_000;
    const { code, what, quantity, unit, price, risk } = o;
    const offer = record("offer", atMs, `${number}:${code}`, {
      ...base,
      details: { offer: [{ code, what, quantity, unit, price, currency: "GBP", risk }] },
    });
    if (!o.answer) return [offer];
    const answeredMs = atMs + 3_600_000;
    const answer = {
      offer_id: offer.id,
      ...o.answer,
      answered_on: new Date(answeredMs).toISOString().slice(0, 10),
      note: null,
    };
    return [
      offer,
      record("offer-answer", answeredMs, `${number}:${code}`, { ...base, details: { offer_answer: [answer] } }),
    ];
  });
}

/** An answer points at its offer, so that offers go first. */
export async function insertOffersFirst(db: Kysely<Database>, records: readonly NewRecord[]): Promise<void> {
  await insertRecords(
    db,
    records.filter((r) => r.kind === "offer"),
  );
  await insertRecords(
    db,
    records.filter((r) => r.kind !== "offer"),
  );
}
