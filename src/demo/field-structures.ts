import type { Kysely } from "kysely";
import { creepFromChip, rustGrade, type ZoneKind } from "@/core/field";
import { valueOrThrow } from "@/core/result";
import { type AgeingStructure, type AgeingZone, aged, seededRandom } from "@/core/simulated-line";
import type { Database } from "@/db/schema";
import type { NewRecord } from "@/server/record/store-record";
import { DEMO_SEED } from "./demo-line";
import { DAY, demoId, insertRecords, type Made, record } from "./demo-record";

type Kind = {
  readonly name: string;
  readonly site: string;
  readonly customer: string;
  readonly exposure: readonly string[];
  readonly system: string;
  readonly promisedYears: number | null;
  readonly roadM: number | null;
  readonly saltM: number | null;
  readonly ages: readonly number[];
  readonly stands: Omit<AgeingStructure, "seed">;
  readonly zones: readonly (readonly [name: string, what: ZoneKind, ages: AgeingZone["kind"], over?: object])[];
};
const open = ["weather", "sun"];
const usual: Kind["zones"] = [
  ["upper edge", "edge", "edge"],
  ["leg foot", "foot", "foot", { height_m: 0.2 }],
  ["south face", "face", "face", { bearing_deg: 180, height_m: 1.5 }],
  ["under the rail", "sheltered", "sheltered", { height_m: 1.2 }],
];
const oneCoat = "one coat of polyester on blasted steel, iron phosphate";
/** What stands out there, coated before this record began: by the papers of those days. */
const kinds: readonly Kind[] = [
  {
    name: "Shelter, High Street stop",
    site: "Brackwater high street",
    customer: "C2",
    exposure: open,
    system: `${oneCoat}, standard grade`,
    promisedYears: 5,
    roadM: 3,
    saltM: null,
    ages: [5.9, 5.4, 5.2, 4.8, 4.4, 4.1, 3.6, 3.1],
    stands: { blasted: true, primer: false, filmUm: 82, fading: 1, salt: 0.3, wet: 0.35, knocks: 0.3, sun: 0.9 },
    zones: [...usual, ["bench lap seam", "seam", "seam", { length_mm: 1800 }]],
  },
  {
    name: "Shelter, Weir Lane stop",
    site: "Brackwater high street",
    customer: "C2",
    exposure: open,
    system: `${oneCoat}, higher grade`,
    promisedYears: 10,
    roadM: 4,
    saltM: null,
    ages: [5.8, 5.3, 4.7, 4.2, 3.6],
    stands: { blasted: true, primer: false, filmUm: 84, fading: 0.4, salt: 0.3, wet: 0.35, knocks: 0.3, sun: 0.9 },
    zones: [...usual, ["bench lap seam", "seam", "seam", { length_mm: 1800 }]],
  },
  {
    name: "Quay rail",
    site: "Saltmarsh landing",
    customer: "C1",
    exposure: [...open, "salt", "knocks"],
    system: oneCoat,
    promisedYears: 3,
    roadM: null,
    saltM: 6,
    ages: [5.8, 5.5, 5.1, 4.6, 3.9, 3.2, 2.6, 1.9, 1.3],
    stands: { blasted: true, primer: false, filmUm: 78, fading: 1, salt: 0.85, wet: 0.6, knocks: 1.4, sun: 0.7 },
    zones: [...usual, ["trolley knock", "chip", "chip", { height_m: 0.6 }]],
  },
  {
    name: "Ferry gate",
    site: "Saltmarsh landing",
    customer: "C1",
    exposure: [...open, "salt", "knocks"],
    system: "zinc primer and one coat of polyester on blasted steel",
    promisedYears: 10,
    roadM: null,
    saltM: 4,
    ages: [5.6, 4.9, 4.3, 3.4, 2.2, 1.2],
    stands: { blasted: true, primer: true, filmUm: 140, fading: 1, salt: 0.85, wet: 0.6, knocks: 1.2, sun: 0.7 },
    zones: [...usual, ["trolley knock", "chip", "chip", { height_m: 0.6 }]],
  },
  {
    name: "Notice frame",
    site: "Pinnock glasshouses",
    customer: "C5",
    exposure: open,
    system: "one coat of polyester over mill scale, blasting turned down",
    promisedYears: null,
    roadM: 20,
    saltM: null,
    ages: [5.8, 5.2, 4.7, 3.8, 2.9, 2.1],
    stands: { blasted: false, primer: false, filmUm: 70, fading: 1, salt: 0.05, wet: 0.45, knocks: 0.2, sun: 0.6 },
    zones: usual,
  },
  {
    name: "Lamp column bracket",
    site: "Ordway yard",
    customer: "C3",
    exposure: open,
    system: "one coat of fine texture on blasted castings",
    promisedYears: 5,
    roadM: 8,
    saltM: null,
    ages: [5.8, 5.5, 4.5, 3.7, 2.8, 2.0, 1.2],
    stands: { blasted: true, primer: false, filmUm: 95, fading: 0.8, salt: 0.2, wet: 0.3, knocks: 0.2, sun: 0.8 },
    zones: usual,
  },
  {
    name: "Charger post",
    site: "Pellan car park",
    customer: "C4",
    exposure: ["indoor", "knocks"],
    system: oneCoat,
    promisedYears: 5,
    roadM: 0,
    saltM: null,
    ages: [5.7, 5.3, 4.9, 4.4, 3.5, 3.0, 2.4, 1.8, 1.4],
    stands: { blasted: true, primer: false, filmUm: 80, fading: 1, salt: 0.35, wet: 0.2, knocks: 1.1, sun: 0.05 },
    zones: [...usual.filter(([, what]) => what !== "face"), ["bumper knock", "chip", "chip", { height_m: 0.5 }]],
  },
];

/** Structures coated up to six years ago, each walked zone by zone about every year since, as they aged. Returns how many records. */
export async function loadFieldStructures(db: Kysely<Database>, made: Made, anchor: Date): Promise<number> {
  const random = seededRandom(DEMO_SEED + 77);
  const records: NewRecord[] = [];
  let number = 0;
  for (const kind of kinds)
    for (const [i, age] of kind.ages.entries()) {
      number += 1;
      const putUp = new Date(anchor.getTime() - age * 365.25 * DAY);
      const code = `S-${String(100 + number)}`;
      const id = demoId(putUp.getTime(), `structure:${code}`);
      await db
        .insertInto("structure")
        .values({
          id,
          code,
          customer_id: made.entity("customer", kind.customer),
          site: kind.site,
          name: `${kind.name} ${i + 1}`,
          put_up_on: putUp.toISOString().slice(0, 10),
          exposure: JSON.stringify(kind.exposure),
          created_by: "bea",
        })
        .execute();
      records.push(...onRecord(kind, id, code, putUp));
      const stands = { ...kind.stands, seed: DEMO_SEED + number * 13 };
      for (let year = 1; year < age; year++) {
        // Now and then a year is missed.
        if (year > 1 && random.uniform() < 0.04) continue;
        const atMs = putUp.getTime() + (year + random.normal(0, 0.05)) * 365.25 * DAY;
        if (atMs > anchor.getTime() - 3 * DAY) continue;
        records.push(...round(kind, stands, { id, code, putUp, atMs, random }));
      }
    }
  records.push(await landingPlan(db, made, anchor));
  await insertRecords(db, records);
  return records.length;
}

/** The landing as Bea drew it: the quay's edge, the road behind it, rails and gates along the water. */
async function landingPlan(db: Kysely<Database>, made: Made, anchor: Date): Promise<NewRecord> {
  const customer = made.entity("customer", "C1");
  const there = await db
    .selectFrom("structure")
    .select(["id", "code", "name"])
    .where("customer_id", "=", customer)
    .where("site", "=", "Saltmarsh landing")
    .orderBy("code")
    .execute();
  const [first] = there;
  if (!first) throw new Error("nothing stands at the landing");
  const along = (name: string, y: number) =>
    there
      .filter((s) => s.name.startsWith(name))
      .map((s, i, all) => ({
        structure: s.code,
        at: [0.08 + (0.78 * i) / Math.max(1, all.length - 1), y + (i % 2) * 0.05],
      }));
  return record("site-plan", anchor.getTime() - 20 * DAY, "landing", {
    by: "bea",
    grade: "by-procedure",
    structureId: first.id,
    details: {
      site_plan: [
        {
          customer_id: customer,
          site: "Saltmarsh landing",
          picture: null,
          document: {
            lines: [
              [
                [0.02, 0.2],
                [0.98, 0.16],
              ],
              [
                [0.02, 0.84],
                [0.6, 0.86],
                [0.98, 0.8],
              ],
              [
                [0.02, 0.93],
                [0.6, 0.95],
                [0.98, 0.89],
              ],
            ],
            words: [
              { at: [0.5, 0.09], text: "the water" },
              { at: [0.2, 0.91], text: "salted road" },
            ],
            marks: [...along("Quay rail", 0.28), ...along("Ferry gate", 0.6)],
          },
          note: null,
        },
      ],
    },
  });
}

function onRecord(kind: Kind, structureId: string, code: string, putUp: Date): NewRecord[] {
  const atMs = putUp.getTime() + DAY;
  return [
    record("structure-fact", atMs, code, {
      by: "bea",
      grade: "by-procedure",
      structureId,
      details: {
        structure_fact: [
          {
            told_year: putUp.getUTCFullYear(),
            told_year_grade: "by-procedure",
            told_coater: "this shop, before the record began",
            told_coater_grade: "by-procedure",
            told_system: kind.system,
            told_system_grade: "by-procedure",
            told_protection: kind.stands.primer ? "primed" : kind.stands.blasted ? "blasted" : "bare",
            road_m: kind.roadM,
            salt_m: kind.saltM,
            promised_years: kind.promisedYears,
          },
        ],
      },
    }),
    ...kind.zones.map(([zone, what, , over], i) =>
      record("structure-zone", atMs + i * 1000, `${code}:${zone}`, {
        by: "bea",
        grade: "measured",
        structureId,
        details: { structure_zone: [{ zone, what, place: i + 1, gone: false, ...over }] },
      }),
    ),
  ];
}

/** Tenths, as a rule is read. */
const tenth = (n: number): number => Math.round(n * 10) / 10;

function round(
  kind: Kind,
  stands: AgeingStructure,
  at: {
    readonly id: string;
    readonly code: string;
    readonly putUp: Date;
    readonly atMs: number;
    readonly random: ReturnType<typeof seededRandom>;
  },
): NewRecord[] {
  const years = (at.atMs - at.putUp.getTime()) / (365.25 * DAY);
  const roundId = demoId(at.atMs, `round:${at.code}`);
  const { random } = at;
  return kind.zones.map(([zone, what, ages, over], i) => {
    const so = aged(stands, { kind: ages }, years);
    const rust = so.rustPercent < 0.02 ? 0 : Math.round(so.rustPercent * Math.exp(random.normal(0, 0.12)) * 100) / 100;
    const widths =
      so.creepMm < 0.25 ? null : Array.from({ length: 6 }, () => tenth(so.creepMm * (1 + random.normal(0, 0.11))));
    const creep = widths && valueOrThrow(creepFromChip(widths));
    const length = what === "seam" ? ((over as { length_mm?: number })?.length_mm ?? 1000) : null;
    return record("zone-visit", at.atMs + i * 4 * 60_000, `${at.code}:${zone}`, {
      by: "bea",
      grade: "measured",
      structureId: at.id,
      details: {
        zone_visit: [
          {
            round_id: roundId,
            zone,
            sound: rust === 0 && widths === null,
            from_what: widths ? "chip" : null,
            widths_mm: widths,
            creep_mm: creep?.creepMm ?? null,
            rating: creep?.rating ?? null,
            rust_percent: rust,
            rust_ri: valueOrThrow(rustGrade(rust)),
            blister_density: so.blisterDensity,
            blister_size: so.blisterDensity > 0 ? 3 : null,
            chalk: what === "face" || what === "sheltered" ? so.chalk : null,
            gloss_gu:
              what === "face" || what === "sheltered"
                ? Array.from({ length: 3 }, () => tenth(so.glossGu + random.normal(0, 0.8)))
                : null,
            gloss_deg: what === "face" || what === "sheltered" ? 60 : null,
            delta_e: what === "face" ? tenth(so.deltaE) : null,
            seam_rusted_mm: length === null ? null : Math.round(so.seamRustedShare * length),
            seam_mm: length,
          },
        ],
      },
    });
  });
}
