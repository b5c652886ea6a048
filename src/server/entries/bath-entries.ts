import type { Kysely } from "kysely";
import {
  coatingWeightGPerM2,
  questionAddition,
  questionBathValue,
  readsLikeAnother,
  sameProduct,
  titrationFactor,
} from "@/core/bath";
import type { Database } from "@/db/schema";
import { chemicalStock } from "../baths/chemical-stock";
import { loadBath } from "../baths/load-bath";
import { recentValues, standingOf } from "../baths/recent-values";
import { setupAt } from "../setup/setup-data";
import type { Entry } from "./entry";
import { type Made, refuse } from "./made";

type Of<K extends Entry["kind"]> = Extract<Entry, { kind: K }>;

export async function findBath(db: Kysely<Database>, name: string, at: Date) {
  const baths = await setupAt(db, "bath", at);
  return [...baths.values()].find((bath) => bath.code.toLowerCase() === name.trim().toLowerCase());
}

/**
 * A round of a bath. Refused on an empty tank; a value that looks like a slip of unit or point, and a round that reads
 * like another tank, are asked back once (`value-in-question`, `tank-in-question`) and stand when the person is sure.
 */
export async function bathCheck(db: Kysely<Database>, entry: Of<"bath-check">): Promise<Made> {
  const baths = await setupAt(db, "bath", entry.happenedAt);
  const bath = [...baths.values()].find((b) => b.code.toLowerCase() === entry.bath.trim().toLowerCase());
  if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
  const names = entry.values.map((x) => x.parameter);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice) return refuse({ kind: "value-given-twice", parameter: twice });
  const [standing, seen] = await Promise.all([
    standingOf(db, bath.id, entry.happenedAt),
    recentValues(db, [...baths.values()], entry.happenedAt),
  ]);
  if (standing.emptySince)
    return refuse({ kind: "bath-empty", bath: bath.code, since: standing.emptySince.toISOString() });
  const mine = seen.find((s) => s.code === bath.code);
  if (mine && !entry.sure) {
    for (const { parameter, value } of entry.values) {
      const question = questionBathValue(parameter, value, mine.before[parameter] ?? []);
      if (question) return refuse({ kind: "value-in-question", bath: bath.code, ...question });
    }
    const other = readsLikeAnother(
      entry.values,
      mine,
      seen.filter((s) => s !== mine),
    );
    if (other) return refuse({ kind: "tank-in-question", bath: bath.code, other });
  }
  return {
    ok: true,
    where: { bathId: bath.id },
    details: {
      bath_check: entry.values.map((x, i) => ({
        ordinal: i + 1,
        parameter: x.parameter,
        value: x.value,
        typed: x.typed,
        typed_unit: x.typedUnit,
        titrant_ml: x.titrantMl,
        blank_ml: x.blankMl,
        factor: x.titrantMl === null ? null : titrationFactor(bath.data, x.parameter),
      })),
    },
  };
}

/**
 * An addition, a dump or a recharge. An addition that looks wrong (drum, amount, direction, room) is asked back as
 * `addition-in-question` and stands when the person is sure and says why; `reason-needed-here` where they do not.
 */
export async function bathEvent(db: Kysely<Database>, entry: Of<"bath-event">): Promise<Made> {
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
    const advice = file?.addition;
    const advisedL =
      advice?.kind === "acid"
        ? advice.litres
        : advice?.kind === "concentrate" && advice.plan.ok
          ? advice.plan.value.dosesL.reduce((a, b) => a + b, 0)
          : null;
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
      today: entry.happenedAt.toISOString().slice(0, 10),
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

/** A panel of the conversion coat. Weighed it is measured, by colour alone it is by procedure: a band, not a number. */
export async function washPanel(db: Kysely<Database>, entry: Of<"wash-panel">): Promise<Made> {
  const bath = await findBath(db, entry.bath, entry.happenedAt);
  if (!bath) return refuse({ kind: "unknown-bath", name: entry.bath });
  const { beforeG, afterG, areaM2 } = entry;
  const weight =
    beforeG !== null && afterG !== null && areaM2 !== null ? coatingWeightGPerM2({ beforeG, afterG, areaM2 }) : null;
  if (weight && !weight.ok) return refuse(weight.error);
  return {
    ok: true,
    where: { bathId: bath.id },
    grade: weight ? "measured" : "by-procedure",
    details: {
      wash_panel: [
        {
          before_g: beforeG,
          after_g: afterG,
          area_m2: areaM2,
          g_per_m2: weight?.value ?? null,
          colour: entry.colour,
          look: entry.look,
          note: entry.note || null,
        },
      ],
    },
  };
}
