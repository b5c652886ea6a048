import type { Kysely } from "kysely";
import { blankMlOf, concentrationFromTitration, titrationFactor } from "@/core/bath";
import type { EntryInput } from "@/core/kinds";
import { err, ok, type Result } from "@/core/result";
import type { Understood } from "@/core/shorthand";
import type { Database } from "@/db/schema";
import { openLoadOf } from "../cure/which-load";
import { findRack } from "../rack/find-rack";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";

/**
 * Turns what the entry line understood into an entry, with the names looked up and a titration worked out.
 * Failures: `unknown-…`, `expected`, `not-an-entry` for a line that goes somewhere.
 */
export async function entryFromShorthand(
  db: Kysely<Database>,
  person: Person,
  understood: Understood,
  id: string,
  happenedAt: string,
): Promise<Result<EntryInput>> {
  const base = { id, idempotencyKey: `line:${id}`, happenedAt };
  const moment = new Date(happenedAt);
  switch (understood.kind) {
    case "bath-check": {
      const bath = [...(await setupAt(db, "bath", moment)).values()].find(
        (b) => b.code.toLowerCase() === understood.tank.toLowerCase(),
      );
      if (!bath) return err({ kind: "unknown-bath", name: understood.tank });
      const values: Extract<EntryInput, { kind: "bath-check" }>["values"] = [];
      for (const x of understood.values) {
        if (x.parameter !== "titrant") {
          values.push({ parameter: x.parameter, value: x.value, typed: x.typed, typedUnit: x.typedUnit });
          continue;
        }
        const factor = titrationFactor(bath.data, "concentration");
        const blankMl = blankMlOf(bath.data, "concentration");
        if (factor === null)
          return err({
            kind: "expected",
            what: `a value for ${bath.code}: it has no titration`,
            got: x.typed,
            of: Object.keys(bath.data.windows),
          });
        const strength = concentrationFromTitration({ titrantMl: x.value, blankMl, factor });
        if (!strength.ok) return strength;
        values.push({
          parameter: "concentration",
          value: strength.value,
          typed: x.typed,
          typedUnit: "mL",
          titrantMl: x.value,
          blankMl,
        });
      }
      return ok({ ...base, kind: "bath-check", bath: bath.code, values });
    }
    case "passage":
      return ok({ ...base, kind: "passage", rack: understood.rack, stage: understood.stage as "blast" });
    case "prep-step":
      return ok({
        ...base,
        kind: "prep-step",
        rack: understood.rack,
        step: understood.step,
        done: true,
        value: understood.value,
        note: "",
      });
    case "line-run": {
      const [line] = (await setupAt(db, "line", moment)).values();
      if (!line) return err({ kind: "unknown-set-up", what: "line", name: "washer" });
      const speedMPerMin = understood.speedMPerMin ?? line.data.usualSpeedMPerMin;
      return ok({ ...base, kind: "line-run", rack: understood.rack, line: line.code, speedMPerMin });
    }
    case "conditions":
      return ok({ ...base, kind: "conditions", place: "hall", values: [...understood.values] });
    case "oven-load":
      return ok({
        ...base,
        kind: "load",
        oven: `Oven ${understood.oven}`,
        loadNo: understood.loadNo,
        timing: "metal-at-temperature",
        setPointC: null,
        places: understood.racks.map((rack) => ({ rack, place: "" })),
      });
    case "oven-event": {
      const oven = [...(await setupAt(db, "oven", moment)).values()].find(
        (o) => o.code.toLowerCase() === `oven ${understood.oven}`.toLowerCase(),
      );
      if (!oven) return err({ kind: "unknown-oven-name", name: `oven ${understood.oven}` });
      const which = await openLoadOf(db, oven, understood.loadNo ?? null, moment);
      if (!which.ok) return which;
      return ok({
        ...base,
        kind: "bake-event",
        oven: oven.code,
        loadNo: which.value.loadNo,
        event: understood.event,
        valueC: understood.valueC,
        note: "",
      });
    }
    case "cross-cut":
      return ok({
        ...base,
        kind: "cross-cut",
        rack: understood.rack,
        squaresLost: understood.squaresLost,
        squares: understood.squares as 25,
        spacingMm: null,
        onPanel: true,
      });
    case "solvent-rub":
      return ok({
        ...base,
        kind: "solvent-rub",
        rack: understood.rack,
        doubleRubs: understood.doubleRubs,
        limit: Math.max(50, understood.doubleRubs),
        grade: understood.grade,
        onPanel: true,
      });
    case "thickness": {
      if (!understood.rack)
        return err({ kind: "expected", what: "the rack", got: "", of: ["rack 1042 dft a3 72 75 71"] });
      if (!understood.spot)
        return err({ kind: "expected", what: "the spot", got: "", of: ["rack 1042 dft a3 72 75 71"] });
      const rack = await findRack(db, person, understood.rack);
      if (!rack) return err({ kind: "unknown-rack", number: understood.rack });
      const part = (await setupAt(db, "part", moment)).get(rack.part_id);
      const face = part?.data.faces.find((f) => f.spots.some((s) => s.id === understood.spot));
      if (!face) return err({ kind: "unknown-spot", face: "–", spot: understood.spot, of: part?.data.name ?? "" });
      return ok({
        ...base,
        kind: "thickness",
        rack: understood.rack,
        source: "typed",
        typedUnit: "um",
        coatNo: await coatNoOf(db, rack.id),
        readings: understood.readings.map((r) => ({
          face: face.id,
          spot: understood.spot as string,
          valueUm: r.valueUm,
          typed: r.typed,
        })),
      });
    }
    case "oven-pull":
      return err({
        kind: "expected",
        what: "the pull on the load's own page",
        got: `oven ${understood.oven}`,
        of: ["Cure"],
      });
    case "go-to":
      return err({ kind: "expected", what: "an entry", got: understood.word, of: ["tank 3 ph 5.1"] });
  }
}

/** The number of the newest coat on a rack; 1 where none is on record. */
async function coatNoOf(db: Kysely<Database>, rackId: string): Promise<number> {
  const newest = await db
    .selectFrom("record")
    .innerJoin("coat", "coat.record_id", "record.id")
    .select("coat.coat_no")
    .where("record.rack_id", "=", rackId)
    .orderBy("record.happened_at", "desc")
    .limit(1)
    .executeTakeFirst();
  return newest?.coat_no ?? 1;
}
