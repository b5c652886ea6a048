import type { Kysely } from "kysely";
import { questionAddition, sameProduct } from "@/core/bath";
import type { Database } from "@/db/schema";
import { advisedLitres } from "../baths/additions";
import { chemicalStock } from "../baths/chemical-stock";
import { loadBath } from "../baths/load-bath";
import { standingOf } from "../baths/recent-values";
import { dayIn } from "../day";
import { refuse } from "../outcome";
import { setupAt, siteAt } from "../setup/setup-data";
import type { Made, Makes, Of } from "./made";

export const makes: Makes<"bath-event"> = {
  "bath-event": ({ db }, entry) => bathEvent(db, entry),
};

/**
 * An addition, a dump or a recharge. An addition that looks wrong (drum, amount, direction, room) is asked back as
 * `addition-in-question` and stands when the person is sure and says why; `reason-needed-here` where they do not.
 */
async function bathEvent(db: Kysely<Database>, entry: Of<"bath-event">): Promise<Made> {
  const baths = [...(await setupAt(db, "bath", entry.happenedAt)).values()];
  const bath = baths.find((b) => b.code.toLowerCase() === entry.bath.trim().toLowerCase());
  if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
  const drum = entry.lot
    ? (await chemicalStock(db, entry.happenedAt)).find((c) => c.code.toLowerCase() === entry.lot?.toLowerCase())
    : null;
  if (entry.lot && !drum) return refuse({ kind: "unknown-set-up", what: "drum", name: entry.lot });
  if (drum && !sameProduct(drum.product, entry.product))
    return refuse({ kind: "another-drum", lot: drum.code, product: entry.product });
  if (entry.event === "addition") {
    if (!entry.amountL) return refuse({ kind: "bad-entry", field: "litres", value: "", why: "is missing" });
    const standing = await standingOf(db, bath.id, entry.happenedAt);
    if (standing.emptySince)
      return refuse({ kind: "bath-empty", bath: bath.code, since: standing.emptySince.toISOString() });
    const file = await loadBath(db, bath.code, entry.happenedAt, 8);
    const newest = (parameter: string): number | null => {
      const point = file?.series.find((s) => s.parameter === parameter)?.points.at(-1);
      return point && (!standing.lastChange || point.at > standing.lastChange) ? point.value : null;
    };
    const advisedL = advisedLitres(file?.additions ?? [], (product) => sameProduct(product, entry.product));
    const { data } = bath;
    const questions = questionAddition({
      product: entry.product,
      litres: entry.amountL,
      bath: {
        concentrate: data.product,
        acid: data.acidProduct,
        others: data.otherProducts,
        freeboardL: data.freeboardL,
        maxSingleL: data.maxSingleL,
        targetPercent: data.targetPercent,
        targetPh: data.targetPh,
      },
      elsewhere: baths.flatMap((b) =>
        b.id === bath.id
          ? []
          : [b.data.product, b.data.acidProduct, ...b.data.otherProducts].map((product) => ({ bath: b.code, product })),
      ),
      advisedL,
      percent: newest("concentration"),
      ph: newest("ph"),
      drum: drum ?? null,
      today: dayIn(entry.happenedAt, (await siteAt(db, entry.happenedAt)).timeZone),
    });
    if (!questions.ok) return refuse(questions.error);
    const [question] = questions.value;
    if (question && !entry.sure) return refuse({ kind: "addition-in-question", bath: bath.code, ...question });
    if (question && entry.note.length < 3) return refuse({ kind: "reason-needed-here", question: question.question });
  }
  return {
    ok: true,
    where: { bathId: bath.id },
    details: {
      bath_event: [
        {
          event: entry.event,
          product: entry.product || null,
          amount_l: entry.amountL,
          parameter: null,
          expected_value: null,
          note: entry.note || null,
          lot_id: drum?.id ?? null,
        },
      ],
    },
  };
}
