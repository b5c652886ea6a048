import { createHash, randomUUID } from "node:crypto";
import { hash } from "@node-rs/argon2";
import type { Kysely } from "kysely";
import { crossCutGrade } from "@/core/bench";
import { creepFromChip } from "@/core/field";
import { valueOrThrow } from "@/core/result";
import { type SimulatedRack, simulateLine, TITRATION_FACTOR_PERCENT_PER_ML } from "@/core/simulated-line";
import type { DetailTable, Json } from "@/db/detail-tables";
import type { Database } from "@/db/schema";
import { insertDetails } from "@/server/record/insert-details";
import { sealRecords } from "@/server/record/seal";
import { baseRow, type NewRecord } from "@/server/record/store-record";
import type { Plan, Requirement } from "@/server/requirement";
import { products } from "./products";
import { demoPassword, people, shop } from "./shop";

const DAY = 86_400_000;
const MINUTE = 60_000;
const SEED = 20_261_123;

/** A stable UUID (version 7 layout, time first) from the moment and a name: the same demo has the same ids. */
export function demoId(ms: number, name: string): string {
  const time = Math.max(0, Math.floor(ms)).toString(16).padStart(12, "0");
  const rest = createHash("sha256").update(name).digest("hex");
  return `${time.slice(0, 8)}-${time.slice(8, 12)}-7${rest.slice(0, 3)}-a${rest.slice(3, 6)}-${rest.slice(6, 18)}`;
}

type Made = { readonly entity: (kind: string, code: string) => string };

/** Loads the demo into an empty database, anchored so that the line stands as it would at `anchor`. One transaction: all or nothing. */
export async function loadDemo(
  db: Kysely<Database>,
  anchor: Date,
  sealKeyPem: string,
): Promise<{ racks: number; records: number; readings: number }> {
  const result = await db.transaction().execute(async (trx) => {
    const setupFrom = anchor.getTime() - 7 * 365 * DAY;
    const made = await loadShop(trx, new Date(setupFrom));
    await loadPeople(trx, made);
    const records: NewRecord[] = [];
    const midnight = new Date(anchor);
    midnight.setUTCHours(0, 0, 0, 0);
    const fromMs = midnight.getTime() - 25 * DAY;
    const line = simulateLine({
      seed: SEED,
      fromMs,
      toMs: anchor.getTime(),
      racksPerDay: 4,
      firstRackNumber: 942,
      products,
      wrongAdditionMs: midnight.getTime() - 16 * DAY + 7 * 3_600_000,
      putRightMs: midnight.getTime() - 7 * DAY + 9 * 3_600_000,
      gassyDeliveryMs: midnight.getTime() - 10 * DAY,
      inHand: (
        [
          [250, "SHELTER-POST"],
          [205, "SHELTER-POST"],
          [196, "FERRY-SEAT"],
          [128, "LAMP-HEAD"],
          [122, "SHELTER-POST"],
          [112, "FERRY-SEAT"],
          [89, "FERRY-SEAT"],
          [66, "SHELTER-POST"],
          [41, "SHELTER-POST"],
        ] as const
      ).map(([minutes, product]) => ({ minutes, product })),
    });
    const oldFrom = midnight.getTime() - 760 * DAY;
    const old = simulateLine({
      seed: SEED + 1,
      fromMs: oldFrom,
      toMs: oldFrom + 1.6 * DAY,
      racksPerDay: 2,
      firstRackNumber: 869,
      products: products.filter((p) => p.key === "FERRY-SEAT"),
      wrongAdditionMs: anchor.getTime(),
      putRightMs: anchor.getTime(),
      gassyDeliveryMs: anchor.getTime(),
    });
    for (const part of [old, line]) {
      const jobs = await loadJobs(trx, made, part.racks, part === old);
      await loadRacks(trx, part.racks, jobs);
      records.push(
        ...bathRecords(made, part),
        ...part.racks.flatMap((rack) => rackRecords(made, rack, jobs.get(rack.product) as string, anchor.getTime())),
      );
    }
    const first = old.racks[0] as SimulatedRack;
    await insertRecords(trx, records);
    const field = await loadField(trx, made, first, anchor);
    return {
      racks: line.racks.length + old.racks.length,
      records: records.length + field,
      readings: records.reduce((n, r) => n + (r.details.thickness_reading?.length ?? 0), 0),
    };
  });
  await sealRecords(db, sealKeyPem, anchor);
  return result;
}

async function loadShop(db: Kysely<Database>, from: Date): Promise<Made> {
  const ids = new Map<string, string>();
  for (const item of shop) {
    const id = demoId(from.getTime(), `${item.kind}:${item.code}`);
    ids.set(`${item.kind}:${item.code}`, id);
    await db.insertInto("setup_entity").values({ id, kind: item.kind, code: item.code }).execute();
    await db
      .insertInto("setup_version")
      .values({
        id: demoId(from.getTime(), `version:${item.kind}:${item.code}`),
        entity_id: id,
        valid_from: from,
        by_user: "dagny",
        reason: "First set-up",
        data: JSON.stringify(item.data),
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

async function loadPeople(db: Kysely<Database>, made: Made): Promise<void> {
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
        updatedAt: new Date(),
      })
      .execute();
  }
}

const customerOf: Record<string, string> = { "SHELTER-POST": "C2", "LAMP-HEAD": "C3", "FERRY-SEAT": "C1" };

async function loadJobs(
  db: Kysely<Database>,
  made: Made,
  racks: readonly SimulatedRack[],
  old: boolean,
): Promise<Map<string, string>> {
  const jobs = new Map<string, string>();
  const firstMs = Math.min(...racks.map((r) => r.hungMs));
  for (const [i, product] of products.entries()) {
    if (!racks.some((r) => r.product === product.key)) continue;
    const powder = shop.find((s) => s.kind === "powder" && s.code === product.powder)?.data as {
      minUm: number;
      maxUm: number;
    };
    const requirement: Requirement = {
      film: { rule: "spot-area", minUm: powder.minUm, maxUm: powder.maxUm, level: 3 },
      adhesionWorstIso: 1,
      cureDecidedBy: "index",
    };
    const seat = product.key === "FERRY-SEAT";
    const offeredOn = new Date(firstMs - 37 * DAY).toISOString().slice(0, 10);
    const plan: Plan = {
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
      offered: seat
        ? [
            {
              what: "Zinc barrier primer GR-610",
              pricePercent: 11,
              taken: false,
              by: "the customer",
              on: offeredOn,
              risk: "creep after knocks accepted",
            },
          ]
        : [],
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
  }
  return jobs;
}

const rackId = (rack: SimulatedRack) => demoId(rack.hungMs, `rack:${rack.number}`);

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
    const count = products.find((p) => p.key === rack.product)?.pieces ?? 1;
    const rows = Array.from({ length: count }, (_, i) => ({
      id: demoId(rack.hungMs, `piece:${rack.number}:${i + 1}`),
      rack_id: rackId(rack),
      serial: `${rack.number}-${String(i + 1).padStart(2, "0")}`,
      position: i + 1,
    }));
    await db.insertInto("piece").values(rows).execute();
  }
}

const record = (
  kind: string,
  atMs: number,
  name: string,
  rest: Omit<NewRecord, "id" | "kind" | "happenedAt" | "idempotencyKey">,
): NewRecord => ({
  id: demoId(atMs, `${kind}:${name}`),
  kind,
  happenedAt: new Date(atMs),
  idempotencyKey: `demo:${kind}:${name}:${atMs}`,
  ...rest,
});

function bathRecords(made: Made, line: ReturnType<typeof simulateLine>): NewRecord[] {
  const conversion = made.entity("bath", "Tank 3");
  const rinse = made.entity("bath", "Tank 4");
  const meter = made.entity("instrument", "M2");
  const empty = { titrant_ml: null, blank_ml: null, factor: null };
  return [
    ...line.conversion.checks.map((c) =>
      record("bath-check", c.atMs, "tank3", {
        by: "rufus",
        grade: "measured",
        bathId: conversion,
        instrumentId: meter,
        details: {
          bath_check: [
            { ordinal: 1, parameter: "ph", value: c.ph, typed: String(c.ph), typed_unit: "", ...empty },
            {
              ordinal: 2,
              parameter: "temperature",
              value: c.temperatureC,
              typed: String(c.temperatureC),
              typed_unit: "°C",
              ...empty,
            },
            {
              ordinal: 3,
              parameter: "concentration",
              value: (c.titrantMl - 0.2) * TITRATION_FACTOR_PERCENT_PER_ML,
              typed: String(c.titrantMl),
              typed_unit: "mL",
              titrant_ml: c.titrantMl,
              blank_ml: 0.2,
              factor: TITRATION_FACTOR_PERCENT_PER_ML,
            },
          ],
        },
      }),
    ),
    ...line.conversion.events.map((e) =>
      record("bath-event", e.atMs, "tank3", {
        by: "rufus",
        grade: "by-procedure",
        bathId: conversion,
        details: {
          bath_event: [
            {
              event: e.event,
              product: e.product,
              amount_l: e.amountL,
              parameter: null,
              expected_value: null,
              note: e.note || null,
            },
          ],
        },
      }),
    ),
    ...line.rinse.map((r) =>
      record("bath-check", r.atMs, "tank4", {
        by: "rufus",
        grade: "measured",
        bathId: rinse,
        instrumentId: meter,
        details: {
          bath_check: [
            {
              ordinal: 1,
              parameter: "conductivity",
              value: r.microSiemensPerCm,
              typed: String(r.microSiemensPerCm),
              typed_unit: "µS/cm",
              ...empty,
            },
          ],
        },
      }),
    ),
    ...line.air.flatMap((a) =>
      (
        [
          ["humidity", a.humidityPercent, "%", "hall"],
          ["air-temperature", a.airC, "°C", "hall"],
          ["compressed-air-dew-point", a.compressedAirDewPointC, "°C", "booth 1"],
        ] as const
      ).map(([quantity, value, unit, place]) =>
        record("condition", a.atMs, quantity, {
          by: "tomasz",
          grade: "measured",
          details: { condition: [{ quantity, value, unit, place }] },
        }),
      ),
    ),
  ];
}

function rackRecords(made: Made, rack: SimulatedRack, jobId: string, anchorMs: number): NewRecord[] {
  const base = { jobId, rackId: rackId(rack), by: rack.night ? "bea" : "tomasz" };
  const name = rack.number;
  const out: NewRecord[] = [];
  for (const p of rack.passages)
    out.push(
      record("passage", p.enteredMs, `${name}:${p.stage}`, {
        ...base,
        by: "maren",
        grade: "measured",
        details: {
          passage: [
            {
              stage: p.stage,
              entered_at: new Date(p.enteredMs),
              left_at: p.leftMs === null ? null : new Date(p.leftMs),
              source: "scan",
            },
          ],
        },
      }),
    );
  for (const p of rack.prep)
    out.push(
      record("prep-step", p.atMs, `${name}:${p.step}`, {
        ...base,
        by: "maren",
        grade: p.value === null ? "by-procedure" : "measured",
        details: { prep_step: [{ step: p.step, done: p.done, value: p.value, unit: p.unit, note: null }] },
      }),
    );
  if (rack.coat)
    out.push(
      record("coat", rack.coat.atMs, name, {
        ...base,
        by: "maren",
        grade: "measured",
        details: {
          coat: [
            {
              coat_no: 1,
              layer: "top",
              lot_id: made.entity("lot", rack.coat.lot),
              booth: "booth 1",
              kv: rack.coat.kv,
              current_ua: rack.coat.currentUa,
              gun_air_kpa: rack.coat.gunAirKPa,
              distance_mm: null,
              earth_mohm: rack.coat.earthMohm,
              hook_cycles: rack.coat.hookCycles,
              sprayed_hot: false,
              colour_change_before: false,
              reclaim_percent: 20,
            },
          ],
        },
      }),
    );
  if (rack.bake) {
    const powder = products.find((p) => p.key === rack.product)?.powder as string;
    const pulled = rack.bake.pulledMs <= anchorMs;
    out.push(
      record("bake", rack.bake.closedMs, name, {
        ...base,
        rackId: null,
        jobId: null,
        grade: "measured",
        instrumentId: made.entity("instrument", "R6"),
        details: {
          bake: [
            {
              oven_id: made.entity("oven", "Oven 1"),
              load_no: rack.bake.load,
              powder_id: made.entity("powder", powder),
              door_closed_at: new Date(rack.bake.closedMs),
              pulled_at: pulled ? new Date(rack.bake.pulledMs) : null,
              timing: "metal-at-temperature",
              set_point_c: rack.bake.setPointC,
            },
          ],
          bake_place: [{ rack_id: rackId(rack), place: rack.bake.place, channel: null }],
          bake_channel: rack.bake.channels.map((c, i) => ({
            ordinal: i + 1,
            name: c.name,
            medium: c.medium,
            time_s: [...c.trace.timeS],
            temp_c: [...c.trace.tempC],
          })),
        },
      }),
    );
  }
  const atHand = anchorMs - (rack.film?.atMs ?? 0) < 2 * 3_600_000;
  if (rack.film) {
    const readings = atHand ? rack.film.readings.slice(0, -3) : rack.film.readings;
    out.push(
      record("thickness", rack.film.atMs, name, {
        ...base,
        grade: "measured",
        instrumentId: made.entity("instrument", "731"),
        details: {
          thickness_set: [{ coat_no: 1, source: "gauge", typed_unit: "um" }],
          thickness_reading: readings.map((r, i) => ({
            ordinal: i + 1,
            face: r.face,
            spot: r.spot,
            value_um: r.valueUm,
            typed: String(r.valueUm),
            rejected_reason: null,
          })),
        },
      }),
    );
  }
  if (rack.crossCut) {
    const grade = valueOrThrow(crossCutGrade((100 * rack.crossCut.squaresLost) / 25));
    out.push(
      record("cross-cut", rack.crossCut.atMs, name, {
        ...base,
        grade: "measured",
        details: {
          cross_cut: [
            {
              removed_percent: grade.removedPercent,
              squares_lost: rack.crossCut.squaresLost,
              squares: 25,
              spacing_mm: 2,
              iso: grade.iso,
              astm: grade.astmB,
              on_panel: true,
            },
          ],
        },
      }),
    );
    if (grade.iso >= 2)
      out.push(
        record("defect", rack.crossCut.atMs + MINUTE, `${name}:adhesion`, {
          ...base,
          grade: "measured",
          details: {
            defect: [
              {
                defect: "adhesion-loss",
                face: null,
                x: null,
                y: null,
                extent_percent: grade.removedPercent,
                pieces_affected: 1,
                pieces_seen: 1,
                note: "On the panel that travelled with the rack",
              },
            ],
          },
        }),
      );
  }
  if (rack.rub)
    out.push(
      record("solvent-rub", rack.rub.atMs, name, {
        ...base,
        grade: "measured",
        details: {
          solvent_rub: [
            { double_rubs: 50, rub_limit: 50, grade: rack.rub.grade, known_cured_grade: 5, on_panel: true },
          ],
        },
      }),
    );
  if (rack.pinholes)
    out.push(
      record("defect", rack.pinholes.atMs, `${name}:pinholes`, {
        ...base,
        grade: "measured",
        details: {
          defect: [
            {
              defect: "pinholes",
              face: "H",
              x: 50,
              y: 40,
              extent_percent: 8,
              pieces_affected: rack.pinholes.pieces,
              pieces_seen: 20,
              note: "On the cast hood; the rolled brackets beside it are clean",
            },
          ],
        },
      }),
    );
  const doneMs = (rack.rub?.atMs ?? 0) + 40 * MINUTE;
  const clean =
    rack.rub && rack.film && !atHand && (rack.crossCut?.squaresLost ?? 0) < 2 && (rack.pinholes?.pieces ?? 0) < 2;
  if (rack.rub && doneMs < anchorMs - 3_600_000) {
    const decision = clean ? "accept" : "hold";
    const verdict: Json = { decidedOn: "demo", filmFails: false };
    const notes = {
      accept: "Film, cure and adhesion in",
      hold: (rack.pinholes?.pieces ?? 0) >= 2 ? "Pinholes on the hood" : "Cross-cut on panel outside the requirement",
    };
    out.push(
      record("disposition", doneMs, name, {
        ...base,
        by: "ines",
        grade: "measured",
        details: { disposition: [{ decision, note: notes[decision], verdict, signed_name: "Ines Calder" }] },
      }),
    );
  }
  return out;
}

async function loadField(db: Kysely<Database>, made: Made, rack: SimulatedRack, anchor: Date): Promise<number> {
  const putUp = new Date(rack.hungMs + 20 * DAY);
  const structureId = demoId(putUp.getTime(), "structure:jetty-a");
  await db
    .insertInto("structure")
    .values({
      id: structureId,
      code: "JETTY-A",
      customer_id: made.entity("customer", "C1"),
      site: "Saltmarsh landing",
      name: "Jetty A seats",
      put_up_on: putUp.toISOString().slice(0, 10),
      exposure: JSON.stringify(["salt", "standing-water", "knocks", "sun"]),
      created_by: "bea",
    })
    .execute();
  for (let i = 0; i < 12; i++)
    await db
      .insertInto("structure_piece")
      .values({
        structure_id: structureId,
        piece_id: demoId(rack.hungMs, `piece:${rack.number}:${i + 1}`),
        place: `bay ${1 + Math.floor(i / 3)}, seat ${1 + (i % 3)}`,
      })
      .execute();
  const visits: [number, number][] = [
    [380, 1.7],
    [2, 3.4],
  ];
  const records = visits.map(([daysAgo, meanMm], visit) => {
    const atMs = anchor.getTime() - daysAgo * DAY;
    const zones = ["bay 1, trolley height", "bay 4, splash zone", "bay 2, seat edge"];
    const details = zones.map((zone, i) => {
      const widths = [0.9, 1.1, 1.0, 0.8, 1.2, 1.0, 0.95].map(
        (f) => Math.round(f * meanMm * (i === 2 ? 0.35 : 1 - 0.1 * i + 0.1) * 10) / 10,
      );
      const creep = valueOrThrow(creepFromChip(widths));
      return {
        ordinal: i + 1,
        zone,
        from_what: "chip",
        scribe_mm: null,
        widths_mm: widths,
        creep_mm: creep.creepMm,
        rating: creep.rating,
      };
    });
    return record("visit", atMs, `jetty-a:${visit}`, {
      by: "bea",
      grade: "measured",
      structureId,
      details: {
        visit: [
          {
            weather: visit === 0 ? "dry, 14 °C" : "drizzle, 9 °C",
            note:
              visit === 0
                ? "Creep only at knocks; elsewhere tight"
                : "Trolleys still strike the legs; salt on the boards",
          },
        ],
        creep_measure: details,
      },
    });
  });
  const lastMs = anchor.getTime() - 2 * DAY + 30 * MINUTE;
  records.push(
    record("defect", lastMs, "jetty-a", {
      by: "bea",
      grade: "measured",
      structureId,
      details: {
        defect: [
          {
            defect: "rust-creep",
            face: "L",
            x: 50,
            y: 70,
            extent_percent: 4,
            pieces_affected: 9,
            pieces_seen: 12,
            note: "From trolley knocks on the legs, splash zone worst",
          },
        ],
      },
    }),
  );
  const caseId = demoId(lastMs + MINUTE, "case:29");
  const findings = (
    [
      ["near-damage", "present"],
      ["impact-service", "present"],
      ["low-on-structure", "present"],
    ] as const
  ).map(([finding, state]) =>
    record("finding", lastMs + 2 * MINUTE, `29:${finding}`, {
      by: "bea",
      grade: "measured",
      structureId,
      caseId,
      details: { finding: [{ finding, state, note: null }] },
    }),
  );
  await insertRecords(db, records);
  await db
    .insertInto("root_cause_case")
    .values({
      id: caseId,
      number: "29",
      defect: "rust-creep",
      defect_record_id: demoId(lastMs, "defect:jetty-a"),
      rack_id: null,
      structure_id: structureId,
      zone: "Legs, splash zone",
      opened_at: new Date(lastMs + MINUTE),
      opened_by: "bea",
    })
    .execute();
  await insertRecords(db, findings);
  return records.length + findings.length;
}

/** Inserts many records at once; the demo's own records never clash, so no idempotency look-ups. */
async function insertRecords(db: Kysely<Database>, records: readonly NewRecord[]): Promise<void> {
  const rows = records.map((r) => baseRow(r, new Date(r.happenedAt.getTime() + MINUTE)));
  for (let i = 0; i < rows.length; i += 1000)
    await db
      .insertInto("record")
      .values(rows.slice(i, i + 1000))
      .execute();
  const byTable = new Map<DetailTable, { record_id: string; values: object }[]>();
  for (const r of records)
    for (const [table, details] of Object.entries(r.details))
      for (const values of details) {
        const rowsOfTable = byTable.get(table as DetailTable) ?? [];
        rowsOfTable.push({ record_id: r.id, values });
        byTable.set(table as DetailTable, rowsOfTable);
      }
  for (const [table, details] of byTable) await insertDetails(db, table, details);
}
