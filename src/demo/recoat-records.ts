import type { Json } from "@/db/detail-tables";
import type { NewRecord } from "@/server/record/store-record";
import { type Made, MINUTE, record } from "./demo-record";

/** How much thinner the first coat came out, and what the second added, µm. */
const THIN_BY_UM = 26;
const SECOND_COAT_UM = 33;
const HOUR = 60 * MINUTE;

/**
 * A rack whose first coat came out thin: its own records with the film as it was then, the lead's decision to scuff
 * and recoat, and the second pass: scuffed, coated at lower voltage, baked, measured, tested, accepted.
 */
export function recoatRecords(
  made: Made,
  name: string,
  own: readonly NewRecord[],
  /** Coated again at the voltage of a first coat, on hooks with so many uses: it comes out rough. */
  rough: { readonly hookCycles: number } | null = null,
): NewRecord[] {
  const find = (kind: string) => own.find((r) => r.kind === kind);
  const [film, coat, bake, cut, rub] = ["thickness", "coat", "bake", "cross-cut", "solvent-rub"].map(find);
  if (!film || !coat || !bake || !cut || !rub) throw new RangeError(`rack ${name} has no whole first pass to recoat`);
  const kept = own.filter((r) => !["thickness", "cross-cut", "solvent-rub", "disposition"].includes(r.kind));
  const rowOf = film.details.thickness_reading ?? [];
  const filmOf = (change: (um: number) => number) =>
    rowOf.map((r) => {
      const valueUm = Math.round(change(r.value_um) * 10) / 10;
      return { ...r, value_um: valueUm, typed: valueUm.toFixed(1) };
    });
  const base = { by: film.by, grade: "measured" as const, jobId: film.jobId ?? null, rackId: film.rackId ?? null };
  const decide = (atMs: number, decision: string, note: string) =>
    record("disposition", atMs, `${name}:${decision}`, {
      ...base,
      by: "ines",
      details: {
        disposition: [{ decision, note, verdict: { decidedOn: "demo" } satisfies Json, signed_name: "Ines Calder" }],
      },
    });
  const sentBackMs = film.happenedAt.getTime() + 25 * MINUTE;
  const again = sentBackMs + 3 * HOUR;
  const bakeRow = bake.details.bake?.[0];
  const bakedForMs = bakeRow?.pulled_at ? bakeRow.pulled_at.getTime() - bakeRow.door_closed_at.getTime() : 34 * MINUTE;
  const closed = new Date(again + 50 * MINUTE);
  const tested = closed.getTime() + bakedForMs + 90 * MINUTE;
  const [firstCoat] = coat.details.coat ?? [];
  if (!bakeRow || !firstCoat) throw new RangeError(`rack ${name} has no coat or bake to repeat`);
  const passage = (stage: string, atMs: number, minutes: number) =>
    record("passage", atMs, `${name}:again:${stage}`, {
      ...base,
      by: "maren",
      details: {
        passage: [{ stage, entered_at: new Date(atMs), left_at: new Date(atMs + minutes * MINUTE), source: "scan" }],
      },
    });
  const step = (what: string, atMs: number) =>
    record("prep-step", atMs, `${name}:again:${what}`, {
      ...base,
      by: "maren",
      grade: "by-procedure",
      details: { prep_step: [{ step: what, done: true, value: null, unit: null, note: null }] },
    });
  const moved = (r: NewRecord, atMs: number): NewRecord => ({
    ...r,
    ...record(r.kind, atMs, `${name}:again`, { by: r.by, grade: r.grade, details: r.details }),
    rackId: r.rackId ?? null,
    jobId: r.jobId ?? null,
    instrumentId: r.instrumentId ?? null,
  });
  return [
    ...kept,
    { ...film, details: { ...film.details, thickness_reading: filmOf((um) => um - THIN_BY_UM) } },
    decide(
      sentBackMs,
      "scuff-and-recoat",
      rough
        ? "Thin all over: one quick pass. Scuff, second coat"
        : "Thin all over: one quick pass; hopper ran low. Scuff, second coat at 45 kV",
    ),
    step("scuff", again),
    step("blow-off", again + 12 * MINUTE),
    step("solvent-wipe", again + 16 * MINUTE),
    passage("booth", again + 24 * MINUTE, 14),
    {
      ...moved(coat, again + 36 * MINUTE),
      details: {
        coat: [
          {
            ...firstCoat,
            coat_no: 2,
            situation: "recoat",
            kv: rough ? 76 : 45,
            hook_cycles: rough ? rough.hookCycles : (firstCoat.hook_cycles ?? 0) + 1,
          },
        ],
      },
    },
    passage("oven", closed.getTime(), bakedForMs / MINUTE),
    {
      ...moved(bake, closed.getTime()),
      details: {
        ...bake.details,
        bake: [
          {
            ...bakeRow,
            oven_id: made.entity("oven", "Oven 1"),
            load_no: `${bakeRow.load_no}R`,
            door_closed_at: closed,
            pulled_at: new Date(closed.getTime() + bakedForMs),
          },
        ],
      },
    },
    {
      ...moved(film, tested),
      details: {
        thickness_set: [{ coat_no: 2, source: "gauge", typed_unit: "um" }],
        thickness_reading: filmOf((um) => um - THIN_BY_UM + SECOND_COAT_UM),
      },
    },
    moved(cut, tested + 12 * MINUTE),
    moved(rub, tested + 20 * MINUTE),
    ...(rough
      ? [
          record("defect", tested + 5 * MINUTE, `${name}:rough`, {
            ...base,
            details: {
              defect: [
                {
                  defect: "orange-peel",
                  face: "A",
                  x: 50,
                  y: 40,
                  extent_percent: 60,
                  pieces_affected: 8,
                  pieces_seen: 8,
                  note: "Coarse and starred over the whole face; sound under it",
                },
              ],
            },
          }),
          decide(tested + 55 * MINUTE, "hold", "Rough after the second coat"),
        ]
      : [decide(tested + 55 * MINUTE, "accept", "Second coat: film, cure and adhesion in")]),
  ];
}
