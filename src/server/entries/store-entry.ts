import type { Kysely } from "kysely";
import * as v from "valibot";
import { crossCutFromSquares } from "@/core/bench";
import { creepFromChip, creepFromScribe } from "@/core/field";
import type { EvidenceGrade } from "@/core/verdict";
import type { Database } from "@/db/schema";
import { findStructure } from "../field/find-structure";
import { badEntry } from "../input";
import { findRack } from "../rack/find-rack";
import type { DetailRows } from "../record/content";
import { derivedId } from "../record/derived-id";
import { storeRecord } from "../record/store-record";
import { storeTogether } from "../record/store-together";
import { setupAt } from "../setup/setup-data";
import { type Ability, may, type Person } from "../sign-in/roles";
import { bathCheck, bathEvent, findBath, washPanel } from "./bath-entries";
import { bakeEvent, cureTested, cureTrial, ovenSurveyed } from "./cure-entries";
import { type Entry, entrySchema } from "./entry";
import { baseMetal, gaugeCheck, planFilm } from "./gauge-entries";
import { coat, conditions, lineRun, load } from "./line-entries";
import { lineStop, takeStopBack } from "./line-stop";
import { type EntryOutcome, type Made, outcomeOf, refuse } from "./made";
import { dryOff, metalMark, outgas, panelTest, prepStep } from "./metal-entries";
import { firstPanel, lampCheck, powderHeight, preFlight } from "./powder-entries";
import { upkeep } from "./upkeep-entry";

/** An entry may lie this far ahead of the server's clock before it is taken for a slip. */
const CLOCK_SLACK_MS = 5 * 60_000;

export const abilityFor: Record<Entry["kind"], Ability> = {
  "bath-check": "log-line",
  "bath-event": "log-line",
  "round-skip": "log-line",
  "wash-panel": "log-line",
  sludge: "log-line",
  upkeep: "log-line",
  "pre-flight": "log-line",
  "lamp-check": "log-line",
  "powder-height": "log-line",
  "first-panel": "inspect",
  "gauge-check": "inspect",
  "base-metal": "inspect",
  "film-plan": "inspect",
  "bake-event": "log-line",
  "oven-survey": "inspect",
  "cure-trial": "inspect",
  "cure-test": "inspect",
  "line-stop": "log-line",
  "line-stop-back": "log-line",
  passage: "log-line",
  "line-run": "log-line",
  "prep-step": "log-line",
  "dry-off": "log-line",
  outgas: "log-line",
  "metal-mark": "log-line",
  "panel-test": "inspect",
  conditions: "log-line",
  coat: "log-line",
  load: "log-line",
  thickness: "inspect",
  "cross-cut": "inspect",
  "solvent-rub": "inspect",
  defect: "inspect",
  finding: "inspect",
  visit: "inspect",
};

/**
 * Checks and stores one entry: schema, role, time, names, arithmetic, then the record, in one transaction or not at all.
 * Failures (values, with what was wrong): `bad-entry`, `role-refused`, `in-the-future`, `unknown-…`, the core's own,
 * and the store's `key-conflict`, `already-superseded`, `unknown-superseded`.
 */
export async function storeEntry(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  at: Date,
): Promise<EntryOutcome> {
  const parsed = v.safeParse(entrySchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const entry = parsed.output;
  if (!may(person.role, abilityFor[entry.kind]))
    return refuse({ kind: "role-refused", role: person.role, needs: abilityFor[entry.kind] });
  if (entry.happenedAt.getTime() > at.getTime() + CLOCK_SLACK_MS)
    return refuse({ kind: "in-the-future", happenedAt: entry.happenedAt.toISOString() });
  if (entry.kind === "line-stop" && entry.until.getTime() > at.getTime() + CLOCK_SLACK_MS)
    return refuse({ kind: "in-the-future", happenedAt: entry.until.toISOString() });
  if (entry.happenedAt.getFullYear() < 1990)
    return refuse({ kind: "too-long-ago", happenedAt: entry.happenedAt.toISOString() });
  const made = await detailsOf(db, person, entry);
  if (!made.ok) return made;
  const base = { by: person.username, idempotencyKey: entry.idempotencyKey, supersedes: entry.supersedes };
  if ("several" in made) {
    if (entry.supersedes) return refuse({ kind: "correct-one-by-one" });
    const several = made.several.map(({ name, ...part }) => ({
      ...base,
      ...part,
      id: derivedId(entry.id, name),
      idempotencyKey: `${base.idempotencyKey}:${name}`,
    }));
    return outcomeOf(await storeTogether(db, several, at));
  }
  const record = {
    ...base,
    id: entry.id,
    kind: made.kind ?? entry.kind,
    happenedAt: entry.happenedAt,
    grade: made.grade ?? ("measured" as const),
    ...made.where,
    details: made.details,
  };
  return outcomeOf(await storeRecord(db, record, at));
}

async function detailsOf(db: Kysely<Database>, person: Person, entry: Entry): Promise<Made> {
  switch (entry.kind) {
    case "bath-check":
      return bathCheck(db, entry);
    case "bath-event":
      return bathEvent(db, entry);
    case "round-skip": {
      const bath = await findBath(db, entry.bath, entry.happenedAt);
      return bath
        ? {
            ok: true,
            where: { bathId: bath.id },
            grade: "unknown",
            details: { round_skip: [{ reason: entry.reason }] },
          }
        : refuse({ kind: "unknown-bath", name: entry.bath });
    }
    case "wash-panel":
      return washPanel(db, entry);
    case "sludge": {
      const bath = await findBath(db, entry.bath, entry.happenedAt);
      return bath
        ? {
            ok: true,
            where: { bathId: bath.id },
            grade: entry.depthMm === null ? "by-procedure" : "measured",
            details: { sludge: [{ what: entry.what, depth_mm: entry.depthMm, note: entry.note || null }] },
          }
        : refuse({ kind: "unknown-bath", name: entry.bath });
    }
    case "upkeep":
      return upkeep(db, entry);
    case "pre-flight":
      return preFlight(db, person, entry);
    case "lamp-check":
      return lampCheck(db, person, entry);
    case "powder-height":
      return powderHeight(db, person, entry);
    case "first-panel":
      return firstPanel(db, entry);
    case "gauge-check":
      return gaugeCheck(db, entry);
    case "bake-event":
      return bakeEvent(db, person, entry);
    case "oven-survey":
      return ovenSurveyed(db, entry);
    case "cure-test":
      return cureTested(db, person, entry);
    case "cure-trial":
      return cureTrial(entry);
    case "film-plan":
      return planFilm(db, person, entry);
    case "base-metal":
      return baseMetal(db, person, entry);
    case "line-stop":
      return lineStop(db, entry);
    case "line-stop-back":
      return takeStopBack(db, entry);
    case "passage":
      return withRack(db, person, entry.rack, () => ({
        passage: [{ stage: entry.stage, entered_at: entry.happenedAt, left_at: null, source: "key" }],
      }));
    case "line-run":
      return lineRun(db, person, entry);
    case "prep-step":
      return prepStep(db, person, entry);
    case "dry-off":
      return dryOff(db, person, entry);
    case "outgas":
      return outgas(db, person, entry);
    case "metal-mark":
      return metalMark(db, person, entry);
    case "panel-test":
      return panelTest(db, entry);
    case "conditions":
      return conditions(entry);
    case "coat":
      return coat(db, person, entry);
    case "load":
      return load(db, person, entry);
    case "thickness":
      return thickness(db, person, entry);
    case "cross-cut": {
      const grade = crossCutFromSquares(entry.squaresLost, entry.squares);
      if (!grade.ok) return refuse(grade.error);
      return withRack(db, person, entry.rack, () => ({
        cross_cut: [
          {
            removed_percent: grade.value.removedPercent,
            squares_lost: entry.squaresLost,
            squares: entry.squares,
            spacing_mm: entry.spacingMm,
            iso: grade.value.iso,
            astm: grade.value.astmB,
            on_panel: entry.onPanel,
          },
        ],
      }));
    }
    case "solvent-rub": {
      if (entry.doubleRubs > entry.limit)
        return refuse({ kind: "bad-rubs", doubleRubs: entry.doubleRubs, limit: entry.limit });
      const rack = await findRack(db, person, entry.rack);
      if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
      const powder = (await setupAt(db, "powder", entry.happenedAt)).get(rack.powder_id);
      return {
        ok: true,
        where: { jobId: rack.job_id, rackId: rack.id },
        details: {
          solvent_rub: [
            {
              double_rubs: entry.doubleRubs,
              rub_limit: entry.limit,
              grade: entry.grade,
              known_cured_grade: powder?.data.knownCuredRubGrade ?? null,
              on_panel: entry.onPanel,
            },
          ],
        },
      };
    }
    case "defect": {
      const details: DetailRows = {
        defect: [
          {
            defect: entry.defect,
            face: entry.face,
            x: entry.x,
            y: entry.y,
            extent_percent: entry.extentPercent,
            pieces_affected: entry.piecesAffected,
            pieces_seen: entry.piecesSeen,
            note: entry.note || null,
          },
        ],
      };
      if (entry.piecesAffected !== null && entry.piecesSeen !== null && entry.piecesAffected > entry.piecesSeen)
        return refuse({ kind: "more-affected-than-seen", affected: entry.piecesAffected, seen: entry.piecesSeen });
      if (entry.rack) return withRack(db, person, entry.rack, () => details);
      const structure = await findStructure(db, person, entry.structure ?? "");
      return structure
        ? { ok: true, where: { structureId: structure.id }, details }
        : refuse({ kind: "unknown-structure", name: entry.structure ?? "" });
    }
    case "finding": {
      const found = await db
        .selectFrom("root_cause_case")
        .select(["id", "rack_id", "structure_id"])
        .where("number", "=", entry.caseNumber)
        .executeTakeFirst();
      if (!found) return refuse({ kind: "unknown-case", number: entry.caseNumber });
      return {
        ok: true,
        where: {
          caseId: found.id,
          ...(found.rack_id ? { rackId: found.rack_id } : {}),
          ...(found.structure_id ? { structureId: found.structure_id } : {}),
        },
        details: { finding: [{ finding: entry.finding, state: entry.state, note: entry.note || null }] },
      };
    }
    case "visit":
      return visit(db, person, entry);
  }
}

async function thickness(
  db: Kysely<Database>,
  person: Person,
  entry: Extract<Entry, { kind: "thickness" }>,
): Promise<Made> {
  const rack = await findRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const [parts, instruments] = await Promise.all([
    setupAt(db, "part", entry.happenedAt),
    entry.instrument ? setupAt(db, "instrument", entry.happenedAt) : null,
  ]);
  const part = parts.get(rack.part_id);
  const gauge = [...(instruments?.values() ?? [])].find((i) => i.code === entry.instrument);
  if (entry.instrument && gauge?.data.kind !== "film-gauge")
    return refuse({ kind: "unknown-set-up", what: "film gauge", name: entry.instrument });
  const spots = new Set(part?.data.faces.flatMap((face) => face.spots.map((spot) => `${face.id}/${spot.id}`)));
  const stray = entry.readings.find((r) => !spots.has(`${r.face}/${r.spot}`));
  if (stray) return refuse({ kind: "unknown-spot", spot: stray.spot, face: stray.face, of: part?.data.name ?? "" });
  return {
    ok: true,
    where: { jobId: rack.job_id, rackId: rack.id, ...(gauge ? { instrumentId: gauge.id } : {}) },
    details: {
      thickness_set: [{ coat_no: entry.coatNo, source: entry.source, typed_unit: entry.typedUnit }],
      thickness_reading: entry.readings.map((r, i) => ({
        ordinal: i + 1,
        face: r.face,
        spot: r.spot,
        value_um: r.valueUm,
        typed: r.typed,
        rejected_reason: r.rejectedReason,
      })),
    },
  };
}

async function visit(db: Kysely<Database>, person: Person, entry: Extract<Entry, { kind: "visit" }>): Promise<Made> {
  const structure = await findStructure(db, person, entry.structure);
  if (!structure) return refuse({ kind: "unknown-structure", name: entry.structure });
  const rows: NonNullable<DetailRows["creep_measure"]>[number][] = [];
  for (const [i, measure] of entry.creep.entries()) {
    const creep =
      measure.from === "scribe"
        ? creepFromScribe(measure.widthsMm, measure.scribeMm ?? 0)
        : creepFromChip(measure.widthsMm);
    if (!creep.ok) return refuse({ ...creep.error, zone: measure.zone });
    rows.push({
      ordinal: i + 1,
      zone: measure.zone,
      from_what: measure.from,
      scribe_mm: measure.scribeMm,
      widths_mm: [...measure.widthsMm],
      creep_mm: creep.value.creepMm,
      rating: creep.value.rating,
    });
  }
  return {
    ok: true,
    where: { structureId: structure.id },
    details: { visit: [{ weather: entry.weather || null, note: entry.note || null }], creep_measure: rows },
  };
}

async function withRack(
  db: Kysely<Database>,
  person: Person,
  number: string,
  details: () => DetailRows,
  grade: EvidenceGrade = "measured",
): Promise<Made> {
  const rack = await findRack(db, person, number);
  return rack
    ? { ok: true, where: { jobId: rack.job_id, rackId: rack.id }, details: details(), grade }
    : refuse({ kind: "unknown-rack", number });
}
