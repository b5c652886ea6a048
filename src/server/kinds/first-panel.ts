import type { Kysely } from "kysely";
import type { Database } from "@/db/schema";
import { refuse } from "../outcome";
import { byCode } from "../setup/by-code";
import { setupAt } from "../setup/setup-data";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"first-panel"> = {
  "first-panel": ({ db }, entry) => firstPanel(db, entry),
};

/** The first panel of a lot against its swatch: beyond the swatch's ΔE or the sheet's gloss it does not match. Failures: `unknown-set-up`, `panel-does-not-match` (what, value, limit). */
async function firstPanel(db: Kysely<Database>, entry: Of<"first-panel">): Promise<Made> {
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
