import type { Kysely } from "kysely";
import { preFlightMeasures } from "@/core/coating";
import type { Database } from "@/db/schema";
import { loadRack } from "../rack/load-rack";
import { setupAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import type { Entry } from "./entry";
import { type Made, refuse } from "./made";

type Of<K extends Entry["kind"]> = Extract<Entry, { kind: K }>;

const byCode = <T extends { readonly code: string }>(items: Iterable<T>, code: string | null): T | undefined =>
  [...items].find((item) => item.code.toLowerCase() === code?.toLowerCase());

/** What was looked at before powder goes on. Measured where anything was read. Failures: `unknown-rack`, `unknown-set-up`. */
export async function preFlight(db: Kysely<Database>, person: Person, entry: Of<"pre-flight">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const [sheets, lots] = await Promise.all([
    setupAt(db, "setup-sheet", entry.happenedAt),
    setupAt(db, "lot", entry.happenedAt),
  ]);
  const sheet = byCode(sheets.values(), entry.sheet);
  if (entry.sheet && !sheet) return refuse({ kind: "unknown-set-up", what: "set-up sheet", name: entry.sheet });
  const lot = byCode(lots.values(), entry.lot);
  if (entry.lot && !lot) return refuse({ kind: "unknown-set-up", what: "lot", name: entry.lot });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: entry.items.some((i) => i.how === "measured")
      ? "measured"
      : entry.items.some((i) => i.how === "by-procedure")
        ? "by-procedure"
        : "unknown",
    details: {
      pre_flight: [{ situation: entry.situation, sheet_id: sheet?.id ?? null, lot_id: lot?.id ?? null }],
      pre_flight_item: entry.items.map((i, n) => ({
        ordinal: n + 1,
        item: i.item,
        how: i.how,
        value: i.how === "skipped" ? null : i.value,
        unit: i.value === null ? null : (preFlightMeasures[i.item]?.unit ?? null),
        good: i.how === "skipped" ? null : i.good,
        note: i.note || null,
      })),
    },
  };
}

/** The lamp's look at loose powder. Failures: `unknown-rack`, `unknown-spot` (no such face), `no-coat-yet` (number). */
export async function lampCheck(db: Kysely<Database>, person: Person, entry: Of<"lamp-check">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const faces = new Set(rack.part.data.faces.map((f) => f.id));
  const stray = [...entry.faces, ...entry.spots.map((s) => s.face)].find((face) => !faces.has(face));
  if (stray) return refuse({ kind: "unknown-spot", face: stray, spot: "lamp", of: rack.part.data.name });
  if (!rack.latest.some((r) => r.base.kind === "coat")) return refuse({ kind: "no-coat-yet", number: rack.number });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    grade: "measured",
    details: {
      lamp_check: [
        {
          coat_no: entry.coatNo,
          faces: entry.faces,
          wiped: entry.wiped,
          plugs_in: entry.plugsIn,
          bumped: entry.bumped,
          note: entry.note || null,
        },
      ],
      light_spot: entry.spots.map((s, n) => ({ ordinal: n + 1, ...s })),
    },
  };
}

/** Height of the loose powder at spots of the part. Failures: `unknown-rack`, `unknown-spot`. */
export async function powderHeight(db: Kysely<Database>, person: Person, entry: Of<"powder-height">): Promise<Made> {
  const rack = await loadRack(db, person, entry.rack);
  if (!rack) return refuse({ kind: "unknown-rack", number: entry.rack });
  const spots = new Set(rack.part.data.faces.flatMap((f) => f.spots.map((s) => `${f.id}/${s.id}`)));
  const stray = entry.readings.find((r) => !spots.has(`${r.face}/${r.spot}`));
  if (stray) return refuse({ kind: "unknown-spot", face: stray.face, spot: stray.spot, of: rack.part.data.name });
  return {
    ok: true,
    where: { jobId: rack.job.id, rackId: rack.id },
    details: {
      powder_height: entry.readings.map((r, n) => ({
        ordinal: n + 1,
        face: r.face,
        spot: r.spot,
        height_um: r.heightUm,
      })),
    },
  };
}

/** The first panel of a lot against its swatch: beyond the swatch's ΔE or the sheet's gloss it does not match. Failures: `unknown-set-up`, `panel-does-not-match` (what, value, limit). */
export async function firstPanel(db: Kysely<Database>, entry: Of<"first-panel">): Promise<Made> {
  const [lots, powders] = await Promise.all([
    setupAt(db, "lot", entry.happenedAt),
    setupAt(db, "powder", entry.happenedAt),
  ]);
  const lot = byCode(lots.values(), entry.lot);
  if (!lot) return refuse({ kind: "unknown-set-up", what: "lot", name: entry.lot });
  const powder = byCode(powders.values(), lot.data.powderCode)?.data;
  if (entry.result === "matches") {
    const gloss = powder?.glossGu;
    if (gloss && entry.gloss !== null && Math.abs(entry.gloss - gloss[0]) > gloss[1])
      return refuse({
        kind: "panel-does-not-match",
        what: "gloss",
        value: entry.gloss,
        limit: `${gloss[0]} ± ${gloss[1]} GU`,
      });
    const most = powder?.swatch?.deltaE;
    if (most !== undefined && entry.deltaE !== null && entry.deltaE > most)
      return refuse({ kind: "panel-does-not-match", what: "ΔE", value: entry.deltaE, limit: `at most ${most}` });
  }
  return {
    ok: true,
    where: {},
    grade: entry.gloss !== null || entry.deltaE !== null ? "measured" : "by-procedure",
    details: {
      first_panel: [
        {
          lot_id: lot.id,
          result: entry.result,
          gloss: entry.gloss,
          delta_e: entry.deltaE,
          film_um: entry.filmUm,
          note: entry.note || null,
        },
      ],
    },
  };
}
