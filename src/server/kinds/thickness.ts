import type { Kysely } from "kysely";
import { strangeReadings } from "@/core/thickness";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { findRack } from "../rack/find-rack";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"thickness"> = {
  thickness: ({ db, person }, entry) => thickness(db, person, entry),
};

async function thickness(db: Kysely<Database>, person: Person, entry: Of<"thickness">): Promise<Made> {
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
  const strange = entry.sure ? [] : strangeReadings(entry.readings.map((r) => r.valueUm));
  if (strange.length > 0)
    return refuse({
      kind: "strange-readings",
      count: strange.length,
      asked: strange
        .slice(0, 20)
        .map(({ index, strange }) => ({ line: index + 1, text: entry.readings[index]?.typed, strange })),
    });
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
