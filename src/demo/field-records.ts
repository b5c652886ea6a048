import type { Kysely } from "kysely";
import { creepFromChip } from "@/core/field";
import { valueOrThrow } from "@/core/result";
import type { SimulatedRack } from "@/core/simulated-line";
import type { Database } from "@/db/schema";
import { DAY, demoId, insertRecords, type Made, MINUTE, record } from "./demo-record";

/** A structure made of an old rack's pieces, its two visits, its defect and the case on it. */
export async function loadField(db: Kysely<Database>, made: Made, rack: SimulatedRack, anchor: Date): Promise<number> {
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
