import { randomUUID } from "node:crypto";
import { hash } from "@node-rs/argon2";
import type { Kysely } from "kysely";
import { type SimulatedRack, simulateLine } from "@/core/simulated-line";
import type { Database } from "@/db/schema";
import { completeStanding } from "@/server/line/standing";
import { sealRecords } from "@/server/record/seal";
import type { NewRecord } from "@/server/record/store-record";
import type { PlanInput, RequirementInput } from "@/server/requirement";
import type { SetupInput } from "@/server/setup/setup-data";
import { bathRecords } from "./bath-records";
import { DEMO_SEED, demoLine, midnightOf, recoatedRack, roughRacks } from "./demo-line";
import { DAY, demoId, insertRecords, type Made } from "./demo-record";
import { loadField } from "./field-records";
import { loadFieldStructures } from "./field-structures";
import { decideOldRacks } from "./old-decisions";
import { loadOvenStories } from "./oven-records";
import { insertOffersFirst, loadPlans, offerRecords, type ToldOffer } from "./plan-records";
import { powderRecords } from "./powder-records";
import { everyProduct, products } from "./products";
import { rackId, rackRecords } from "./rack-records";
import { recoatRecords } from "./recoat-records";
import { demoPassword, people, shop } from "./shop";
import { chemicals, type Seed } from "./shop-wash";
import { loadTestCalls } from "./test-calls";
import { upkeepRecords, upkeepSeeds } from "./upkeep-records";

/** Loads the demo into an empty database, anchored so that the line stands as it would at `anchor`. One transaction: all or nothing. */
export async function loadDemo(
  db: Kysely<Database>,
  anchor: Date,
  sealKeyPem: string,
  timeZone = "Europe/London",
): Promise<{ racks: number; records: number; readings: number }> {
  const result = await db.transaction().execute(async (trx) => {
    const setupFrom = anchor.getTime() - 7 * 365 * DAY;
    const made = await loadShop(trx, new Date(setupFrom), anchor, timeZone);
    await loadPeople(trx, made, anchor);
    const records: NewRecord[] = [...upkeepRecords(made, anchor), ...powderRecords(made, anchor)];
    const midnight = midnightOf(anchor);
    const line = demoLine(anchor);
    const oldFrom = midnight.getTime() - 760 * DAY;
    const old = simulateLine({
      seed: DEMO_SEED + 1,
      fromMs: oldFrom,
      toMs: oldFrom + 1.6 * DAY,
      racksPerDay: 2,
      firstRackNumber: 869,
      products: products.filter((p) => p.key === "FERRY-SEAT"),
      wrongAdditionMs: anchor.getTime(),
      putRightMs: anchor.getTime(),
      gassyDeliveryMs: anchor.getTime(),
    });
    const recoated = recoatedRack(line, anchor);
    const rough = roughRacks(line, anchor);
    let boxes: string | undefined;
    for (const part of [old, line]) {
      const jobs = await loadJobs(trx, made, part.racks, part === old);
      boxes = jobs.get("CHARGER-BOX");
      await loadRacks(trx, part.racks, jobs);
      records.push(
        ...bathRecords(made, part),
        ...part.racks.flatMap((rack) => {
          const own = rackRecords(made, rack, jobs.get(rack.product) as string, anchor.getTime());
          // Half of them hang on hooks past their uses: a lead that leads nowhere.
          const hooks = { hookCycles: rough.indexOf(rack) % 2 === 0 ? 13 : 3 };
          return rack === recoated || rough.includes(rack)
            ? recoatRecords(made, rack.number, own, rack === recoated ? null : hooks)
            : own;
        }),
      );
    }
    const first = old.racks[0] as SimulatedRack;
    records.push(...(await loadOvenStories(trx, made, anchor)));
    await insertRecords(trx, records);
    const field =
      (await loadField(trx, made, first, anchor)) +
      (await loadFieldStructures(trx, made, anchor)) +
      (await loadPlans(trx, made, anchor));
    await completeStanding(trx);
    const called = await loadTestCalls(trx, records, boxes);
    const decided = await decideOldRacks(trx, anchor);
    return {
      racks: line.racks.length + old.racks.length,
      records: records.length + field + called + decided,
      readings: records.reduce((n, r) => n + (r.details.thickness_reading?.length ?? 0), 0),
    };
  });
  await sealRecords(db, sealKeyPem, anchor);
  return result;
}

async function loadShop(db: Kysely<Database>, from: Date, anchor: Date, timeZone: string): Promise<Made> {
  const ids = new Map<string, string>();
  const day = (days: number) => new Date(anchor.getTime() + days * DAY).toISOString().slice(0, 10);
  const drums: Seed[] = chemicals.map(({ product, lot, litres, pricePerL, receivedDaysAgo, usableForDays }) => ({
    kind: "chemical",
    code: `${product} ${lot}`,
    data: { product, lot, litres, pricePerL, receivedOn: day(-receivedDaysAgo), usableUntil: day(usableForDays) },
  }));
  for (const item of [...shop, ...drums, ...upkeepSeeds]) {
    const id = demoId(from.getTime(), `${item.kind}:${item.code}`);
    ids.set(`${item.kind}:${item.code}`, id);
    await db.insertInto("setup_entity").values({ id, kind: item.kind, code: item.code }).execute();
    await db
      .insertInto("setup_version")
      .values({
        id: demoId(from.getTime(), `version:${item.kind}:${item.code}`),
        entity_id: id,
        valid_from: from,
        recorded_at: from,
        by_user: "dagny",
        reason: "First set-up",
        data: JSON.stringify(item.kind === "site" ? { ...item.data, timeZone } : item.data),
      })
      .execute();
  }
  return {
    entity: (kind, code) => {
      const id = ids.get(`${kind}:${code}`);
      if (!id) throw new RangeError(`no ${kind} ${code} in the demo shop`);
      return id;
    },
  };
}

async function loadPeople(db: Kysely<Database>, made: Made, anchor: Date): Promise<void> {
  for (const person of people) {
    const id = randomUUID();
    await db
      .insertInto("user")
      .values({
        id,
        name: person.name,
        email: `${person.username}@tarnwick.invalid`,
        emailVerified: true,
        image: null,
        username: person.username,
        displayUsername: person.username,
        role: person.role,
        customerId: person.customer ? made.entity("customer", person.customer) : null,
      })
      .execute();
    await db
      .insertInto("account")
      .values({
        id: randomUUID(),
        accountId: id,
        providerId: "credential",
        userId: id,
        password: await hash(demoPassword(person.username)),
        updatedAt: anchor,
      })
      .execute();
  }
}

const customerOf: Record<string, string> = {
  "SHELTER-POST": "C2",
  "LAMP-HEAD": "C3",
  "FERRY-SEAT": "C1",
  "GREENHOUSE-FRAME": "C5",
  "CHARGER-BOX": "C4",
};

/** The offer that the seats' story turns on. */
const declinedPrimer: ToldOffer = {
  code: "zinc-primer",
  what: "Zinc barrier primer GR-610",
  quantity: null,
  unit: null,
  price: 386,
  risk: "Rust creeps from every knock through a single coat, faster in salt",
  answer: { taken: false, who: "the ferry line's yard office", how: "by telephone" },
};

/** What was agreed for the line's regular work: one coat on blasted and washed metal. */
function agreedSystem(productKey: string, cast: boolean): NonNullable<PlanInput["system"]> {
  const code = everyProduct.find((p) => p.key === productKey)?.powder;
  const powder = shop.find((s) => s.kind === "powder" && s.code === code);
  if (!powder) throw new RangeError(`no powder for ${productKey} in the demo shop`);
  const { minUm, maxUm, family } = powder.data as SetupInput<"powder">;
  const part = shop.find((s) => s.kind === "part" && s.code === productKey)?.data as SetupInput<"part">;
  return {
    preparation: "blast",
    breakEdges: part.features?.some((f) => f === "sharp-edges" || f === "thermal-cut-edges") ?? false,
    outgas: cast,
    sealSeams: false,
    pretreatment: "iron-phosphate",
    primer: "none",
    primerUm: null,
    family: family ?? "polyester",
    coats: 1,
    topUm: [minUm, maxUm],
    curing: "one-cure",
  };
}

/** Racks of each job in hand whose pieces are still to come. */
const RACKS_TO_HANG = 6;

async function loadJobs(
  db: Kysely<Database>,
  made: Made,
  racks: readonly SimulatedRack[],
  old: boolean,
): Promise<Map<string, string>> {
  const jobs = new Map<string, string>();
  const firstMs = Math.min(...racks.map((r) => r.hungMs));
  for (const [i, product] of everyProduct.entries()) {
    if (!racks.some((r) => r.product === product.key)) continue;
    const powder = shop.find((s) => s.kind === "powder" && s.code === product.powder)?.data as {
      minUm: number;
      maxUm: number;
    };
    const requirement: RequirementInput = {
      film: { rule: "spot-area", minUm: powder.minUm, maxUm: powder.maxUm, level: 3 },
      adhesionWorstIso: 1,
      cureDecidedBy: "index",
    };
    const seat = product.key === "FERRY-SEAT";
    const plan: PlanInput = {
      stages: [
        "blast",
        "clean",
        "conversion",
        "rinse",
        "dry-off",
        ...(product.cast ? ["prebake"] : []),
        "booth",
        "oven",
      ],
      primer: false,
      exposure: seat ? ["weather", "salt", "standing-water", "knocks"] : ["weather", "sun"],
      offered: [],
      // Of what is in hand some pieces are still to hang.
      pieces: (racks.filter((r) => r.product === product.key).length + (old ? 0 : RACKS_TO_HANG)) * product.pieces,
      system: agreedSystem(product.key, product.cast),
    };
    const id = demoId(firstMs - DAY, `job:${product.key}:${old}`);
    jobs.set(product.key, id);
    await db
      .insertInto("job")
      .values({
        id,
        number: old ? `J-${271 + i}` : `J-${408 + i}`,
        customer_id: made.entity("customer", customerOf[product.key] as string),
        part_id: made.entity("part", product.key),
        powder_id: made.entity("powder", product.powder),
        received_at: new Date(firstMs - 2 * DAY),
        due_on: new Date(firstMs + 30 * DAY).toISOString().slice(0, 10),
        requirement: JSON.stringify(requirement),
        plan: JSON.stringify(plan),
        created_by: "ines",
      })
      .execute();
    if (seat)
      await insertOffersFirst(
        db,
        offerRecords(old ? `J-${271 + i}` : `J-${408 + i}`, id, firstMs - 2 * DAY, [declinedPrimer]),
      );
  }
  return jobs;
}

async function loadRacks(
  db: Kysely<Database>,
  racks: readonly SimulatedRack[],
  jobs: ReadonlyMap<string, string>,
): Promise<void> {
  for (const rack of racks) {
    await db
      .insertInto("rack")
      .values({
        id: rackId(rack),
        number: rack.number,
        job_id: jobs.get(rack.product) as string,
        hung_at: new Date(rack.hungMs),
        created_by: "maren",
      })
      .execute();
    const count = everyProduct.find((p) => p.key === rack.product)?.pieces ?? 1;
    const rows = Array.from({ length: count }, (_, i) => ({
      id: demoId(rack.hungMs, `piece:${rack.number}:${i + 1}`),
      rack_id: rackId(rack),
      serial: `${rack.number}-${String(i + 1).padStart(2, "0")}`,
      position: i + 1,
    }));
    await db.insertInto("piece").values(rows).execute();
  }
}
