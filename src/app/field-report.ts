import { type Kysely, sql } from "kysely";
import { loadKnowledge } from "@/core/diagnosis";
import { designFor, repairFor } from "@/core/field";
import type { UnitSystem } from "@/core/units";
import { worstResult } from "@/core/verdict";
import type { Database } from "@/db/schema";
import { fieldReportPdf } from "@/server/field/field-report";
import { loadStructure } from "@/server/field/load-structure";
import { sitePlanOf } from "@/server/field/site-plan";
import { factOf } from "@/server/field/structure-facts";
import { CREEP_LIMIT_MM, type ZoneFile, zonesOf } from "@/server/field/zones-of";
import { printedPhotos } from "@/server/photos/printed";
import { siteAt } from "@/server/setup/setup-data";
import type { Person } from "@/server/sign-in/roles";
import { countOf, dateAndTime, dayMonthYear, figure, withUnit } from "@/ui/format";
import { failureText } from "@/ui/words/failures";
import {
  costName,
  designName,
  forecastSaid,
  repairCaution,
  repairName,
  zoneFound,
  zonePlace,
} from "@/ui/words/field-zones";
import { gradeOnPaper } from "@/ui/words/grades";

/** Photos printed, newest first; how many more there are is said. */
const MOST_PHOTOS = 12;
const YEAR_MS = 365.25 * 86_400_000;

/** The report on a structure as it stands, for whoever may see it; null where there is none for them. */
export async function fieldReport(
  db: Kysely<Database>,
  person: Person,
  code: string,
  units: UnitSystem,
  at: Date,
): Promise<Buffer | null> {
  const s = await loadStructure(db, person, code, at);
  if (!s) return null;
  const [site, zones, fact, confirmed, sitePlan] = await Promise.all([
    siteAt(db, at),
    zonesOf(db, s.id, s.since),
    factOf(db, s.id),
    causesOf(db, s.id),
    sitePlanOf(db, person, s.code),
  ]);
  const day = (moment: Date) => dayMonthYear(moment, site.timeZone);
  const told = (what: string | null, grade: string | null) =>
    what ? [`${what} (${gradeOnPaper(grade ?? "unknown")})`] : [];
  const { since } = s;
  const putUp = s.putUp ?? s.coatedOn;
  const knowledge = loadKnowledge();
  const photos = s.photos.filter((p) => p.file_id !== null);
  return fieldReportPdf({
    site: site.name,
    name: s.name,
    facts: [
      ["Owner", s.customer],
      ["Site", s.site],
      ["Stands in", s.exposure.join(", ").replaceAll("-", " ") || "not said"],
      [
        "Put up",
        putUp ? `${day(putUp)}, ${((at.getTime() - putUp.getTime()) / YEAR_MS).toFixed(1)} years ago` : "not on record",
      ],
      ...(fact?.promised_years != null ? [["Promised", `${fact.promised_years} years`] as const] : []),
    ],
    inShort: inShort(zones, putUp, fact?.promised_years ?? null, at),
    zones: zones.map((z) => ({
      name: z.name,
      place: zonePlace(z),
      found: `${zoneFound(z, units, day)}${z.newest[0] ? `; ${day(z.newest[0].at)}` : ""}`,
      protection: z.verdict.protection,
      appearance: z.verdict.appearance,
      growth: growthSaid(z, units, day),
    })),
    map: zoneMap(zones),
    plan: sitePlan?.plan
      ? {
          lines: sitePlan.plan.document.lines,
          words: sitePlan.plan.document.words,
          // Its own place; what else stands there may be left to its own report.
          marks: sitePlan.plan.document.marks
            .filter((m) => m.structure === s.code)
            .map((m) => ({
              name: s.name,
              at: m.at,
              result: worstResult(zones.map((z) => z.verdict.protection).filter((r) => r !== "unknown")),
            })),
        }
      : null,
    creep: creepOver(zones, since, units),
    causes: confirmed.map(
      (c) =>
        `${c.zone}: ${c.defect.replaceAll("-", " ")}, ${c.cause === null ? "cause not confirmed yet" : `${knowledge.causes.get(c.cause)?.label ?? c.cause.replaceAll("-", " ")}. ${c.proof ?? ""}`}`,
    ),
    made:
      s.pieces.length > 0
        ? [
            `${countOf(s.pieces.length, "piece")} from rack ${[...new Set(s.pieces.map((p) => p.number))].join(", ")}${s.coatedOn ? `, coated ${day(s.coatedOn)}` : ""}. Bath, film, cure and tests of that day stand on its thread.`,
          ]
        : [
            ...told(fact?.told_system ?? null, fact?.told_system_grade ?? null),
            ...told(fact?.told_year == null ? null : `coated ${fact.told_year}`, fact?.told_year_grade ?? null),
            ...told(fact?.told_coater ? `by ${fact.told_coater}` : null, fact?.told_coater_grade ?? null),
          ],
    offered: s.offered.map((o) => `${o.what}: ${o.state}${o.by ? `, ${o.by}, ${o.on}` : ""}. ${o.risk}`),
    advice: zones.flatMap((z) =>
      repairFor({
        what: z.what,
        protection: z.verdict.protection,
        appearance: z.verdict.appearance,
        worst: z.verdict.judged.filter((j) => j.result === "out").map((j) => j.name),
        rustPercent: z.found.rustPercent,
      }).map((a) => ({
        zone: z.name,
        what: `${repairName[a.repair]} Cost: ${costName[a.cost]}.`,
        caution: repairCaution[a.repair],
      })),
    ),
    design: designFor(
      zones.map((z) => ({ what: z.what, protection: z.verdict.protection, appearance: z.verdict.appearance })),
    ).map((d) => designName[d]),
    photos: await printedPhotos(
      db,
      photos.slice(0, MOST_PHOTOS).map((p) => ({
        fileId: p.file_id ?? "",
        caption: `${[p.zone, p.caption === "photo" ? "" : p.caption].filter(Boolean).join(", ") || "Photo"}; ${day(p.happened_at)}`,
      })),
    ),
    morePhotos: Math.max(0, photos.length - MOST_PHOTOS),
    letter: units === "us",
    at: dateAndTime(at, site.timeZone),
  });
}

/** Zones of which the height is on record, by the side they face; null where there are fewer than two. */
function zoneMap(zones: readonly ZoneFile[]) {
  const known = zones.filter((z) => z.heightM !== null && z.heightM >= 0);
  if (known.length < 2) return null;
  const sideOf = (z: ZoneFile) =>
    z.bearingDeg === null
      ? "no side"
      : (["north", "east", "south", "west"] as const)[Math.round((((z.bearingDeg % 360) + 360) % 360) / 90) % 4];
  const sides = ["no side", "north", "east", "south", "west"].filter((side) => known.some((z) => sideOf(z) === side));
  const highest = Math.max(1, ...known.map((z) => z.heightM ?? 0));
  const seen = new Map<string, number>();
  return {
    sides,
    highestM: highest,
    marks: known.map((z) => {
      const side = sides.indexOf(sideOf(z) ?? "no side");
      // Two at one height stand beside each other.
      const key = `${side} ${Math.round((z.heightM ?? 0) * 4)}`;
      const nth = seen.get(key) ?? 0;
      seen.set(key, nth + 1);
      return {
        name: z.name,
        result: z.verdict.protection,
        at: [
          (side + 0.5 + (nth % 2 === 0 ? -1 : 1) * 0.16 * Math.ceil(nth / 2)) / sides.length,
          0.92 - 0.78 * ((z.heightM ?? 0) / highest),
        ] as const,
      };
    }),
  };
}

/** How it stands, in sentences that a customer understands. */
function inShort(
  zones: readonly ZoneFile[],
  since: Date | null,
  promisedYears: number | null,
  at: Date,
): readonly string[] {
  const named = (list: readonly ZoneFile[]) => list.map((z) => z.name).join(", ");
  const looked = zones.filter((z) => z.verdict.protection !== "unknown");
  if (zones.length === 0 || zones.every((z) => z.newest.length === 0)) return ["Nobody has looked at it yet."];
  const failed = zones.filter((z) => z.verdict.protection === "out");
  const faded = zones.filter((z) => z.verdict.appearance === "out");
  const worst = worstResult(looked.map((z) => z.verdict.protection));
  const years = since ? (at.getTime() - since.getTime()) / YEAR_MS : null;
  return [
    looked.length === 0
      ? "Whether the coating still keeps the metal was not looked at."
      : worst === "in"
        ? `The coating keeps the metal in all ${looked.length} zones that were looked at.`
        : failed.length === 0
          ? "The coating keeps the metal; first signs are to be watched."
          : `The coating no longer keeps the metal at: ${named(failed)}.`,
    ...(faded.length > 0 ? [`It no longer looks as it did at: ${named(faded)}.`] : []),
    ...(looked.length < zones.length
      ? [`Not looked at for rust: ${named(zones.filter((z) => z.verdict.protection === "unknown"))}.`]
      : []),
    ...(promisedYears !== null && years !== null && failed.length > 0
      ? [
          years < promisedYears
            ? `${promisedYears} years were promised, and it is ${years.toFixed(1)} years old.`
            : `The ${promisedYears} years that were promised are over.`,
        ]
      : []),
  ];
}

function growthSaid(z: ZoneFile, units: UnitSystem, day: (moment: Date) => string): string {
  if (!z.creepRate) return "";
  if (!z.creepRate.ok) return failureText(z.creepRate.error, units);
  const { rate, interval } = z.creepRate.value;
  const grows = `creep grows ${withUnit(rate, "creep", units)} a year (${withUnit(interval[0], "creep", units)} to ${withUnit(interval[1], "creep", units)})${z.creepFrom ? ` since ${day(z.creepFrom.at)}` : ""}${z.creepRateOfAll?.ok ? `, ${withUnit(z.creepRateOfAll.value.rate, "creep", units)} a year since it was coated` : ""}`;
  return z.forecast?.ok ? `${grows}; ${forecastSaid(z.forecast.value.years)}` : grows;
}

/** Creep of each zone over the years since it was coated, else put up; null where it was read nowhere, or nobody knows since when it stands. */
function creepOver(zones: readonly ZoneFile[], since: Date | null, units: UnitSystem) {
  if (!since) return null;
  const shown = (mm: number) => Number(figure(mm, "creep", units).text);
  const lines = zones.flatMap((z) => {
    const points = z.captures
      .filter((c) => c.row.creep_mm !== null)
      .map((c) => [(c.at.getTime() - since.getTime()) / YEAR_MS, shown(c.row.creep_mm ?? 0)] as const)
      .reverse();
    return points.length > 0 ? [{ name: z.name, points: [[0, 0] as const, ...points] }] : [];
  });
  return lines.length > 0
    ? {
        lines,
        limits: [{ at: shown(CREEP_LIMIT_MM), label: `failed from ${withUnit(CREEP_LIMIT_MM, "creep", units)}` }],
        unit: figure(0, "creep", units).unit,
      }
    : null;
}

/** Cases on a structure with what was confirmed last. */
async function causesOf(db: Kysely<Database>, structureId: string) {
  const { rows } = await sql<{ defect: string; zone: string; cause: string | null; proof: string | null }>`
    select c.defect, c.zone, f.cause, f.proof from root_cause_case c
    left join lateral (select q.cause, q.proof from record r join confirmation q on q.record_id = r.id where r.case_id = c.id and r.kind = 'confirmation' order by r.happened_at desc, r.stored_at desc, r.id desc limit 1) f on true
    where c.structure_id = ${structureId} order by c.opened_at`.execute(db);
  return rows;
}
