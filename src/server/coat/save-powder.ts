import type { Kysely } from "kysely";
import * as v from "valibot";
import { colourDifference } from "@/core/bench";
import { fitCureCurve, gelSchedule } from "@/core/cure";
import { families } from "@/core/plan";
import { readDay } from "@/core/powder";
import type { Failure, Result } from "@/core/result";
import { lock } from "@/db/queries/locks";
import type { Database } from "@/db/schema";
import { dayIn } from "../day";
import { badEntry, filled, said, text } from "../input";
import { type Outcome, refuse } from "../outcome";
import { canonicalText } from "../record/canonical";
import { addVersion } from "../setup/add-version";
import { addEntity, type SetupSaved, saveSetup } from "../setup/save-setup";
import { type SetupInput, type SetupItem, setupAt, siteAt } from "../setup/setup-data";
import type { Person } from "../sign-in/roles";
import { type Clock, write } from "../write";

const number = v.pipe(v.number("is not a number"), v.finite("is not a number"));
const over0 = v.pipe(number, v.gtValue(0, "is not over 0"));
const point = v.strictObject({
  metalC: v.pipe(number, v.minValue(80, "is under 80 °C"), v.maxValue(350, "is over 350 °C")),
  minutes: v.pipe(number, v.gtValue(0, "is not over 0"), v.maxValue(600, "is over 600 min")),
});
const range = v.pipe(
  v.tuple([number, number]),
  v.check(([lower, upper]) => lower < upper, "has its limits crossed"),
);
const code = v.pipe(filled(40), v.regex(/^[\w./-]+( [\w./-]+)*$/, "is not letters and digits"));
const powderData = v.strictObject({
  name: filled(80),
  chemistry: filled(60),
  minUm: over0,
  maxUm: over0,
  specificGravity: v.pipe(number, v.minValue(0.8, "is under 0.8"), v.maxValue(6, "is over 6")),
  schedule: v.pipe(v.array(point), v.minLength(1, "has no point: type metal temperature and minutes"), v.maxLength(8)),
  overbake: v.pipe(v.array(point), v.maxLength(8)),
  onsetC: v.nullable(number),
  gel: v.nullable(
    v.strictObject({
      metalC: v.pipe(number, v.minValue(80, "is under 80 °C"), v.maxValue(350, "is over 350 °C")),
      leastMin: over0,
      mostMin: over0,
    }),
  ),
  climbCPerMin: v.nullable(range),
  shelfLifeDays: v.pipe(over0, v.maxValue(3650, "is over ten years")),
  knownCuredRubGrade: v.pipe(number, v.minValue(0), v.maxValue(5)),
  traits: v.array(
    v.picklist([
      "low-flow-powder",
      "high-flow-powder",
      "water-releasing-powder",
      "indoor-chemistry-outdoors",
      "primer",
    ]),
  ),
  weathering: v.picklist(["indoor", "standard", "high"]),
  family: v.picklist(families),
  pricePerKg: v.nullable(v.pipe(number, v.minValue(0, "is under 0"))),
  smoothness: v.optional(v.nullable(v.pipe(number, v.integer(), v.minValue(1), v.maxValue(10))), null),
  glossGu: v.nullable(v.tuple([number, number])),
  swatch: v.nullable(
    v.strictObject({
      code: filled(40),
      deltaE: over0,
      lab: v.optional(
        v.nullable(
          v.pipe(
            v.tuple([number, number, number]),
            v.check(
              (lab) => colourDifference(lab, lab).ok,
              "is no colour that a meter gives: L* 0 to 100, a* and b* to ±200",
            ),
          ),
        ),
        null,
      ),
    }),
  ),
  storeMostC: v.nullable(number),
  mostPerCoatUm: v.nullable(over0),
  mostInAllUm: v.nullable(over0),
  yearsPromised: v.nullable(v.pipe(over0, v.maxValue(50, "is over 50 years"))),
  /** Said or not, they stay as they are: photos are kept by themselves. */
  photos: v.optional(v.strictObject({ raw: v.nullable(v.string()), cured: v.nullable(v.string()) })),
  hazards: text(300),
});
const sheetData = v.strictObject({
  powderCode: filled(40),
  partCode: v.nullable(filled(60)),
  gun: v.nullable(filled(40)),
  gunType: v.picklist(["corona-negative", "corona-positive", "friction"]),
  tip: text(60),
  kv: range,
  recessKv: over0,
  recoatKv: v.nullable(range),
  currentMostUa: v.nullable(over0),
  distanceMm: v.nullable(range),
  passes: v.nullable(v.tuple([over0, over0])),
  conveyingAirKPa: v.nullable(range),
  hookPitchMm: v.nullable(range),
  hopperFillPercent: v.nullable(range),
  airReadAt: v.picklist(["rest", "flowing"]),
  gunAirKPa: range,
  earthLimitMohm: over0,
  boothAirMPerS: range,
  hookCyclesLimit: over0,
  reclaimLimitPercent: v.pipe(number, v.minValue(0), v.maxValue(100)),
});
const saveOf = <S extends v.GenericSchema>(data: S) =>
  v.object({
    code,
    /** The version that was on screen; null for what is new. */
    seen: v.nullable(v.pipe(v.string(), v.uuid("is not a version"))),
    reason: said(300, "is too short: name why it changes"),
    data,
  });
const powderSchema = saveOf(powderData);
const sheetSchema = saveOf(sheetData);
/** What a sheet must hold beyond its fields: film range, cure points that make a curve, no over-bake under its cure. */
function checkPowder(data: v.InferOutput<typeof powderData>): Result<true> {
  const bad = (field: string, value: number | string, why: string) => ({
    ok: false as const,
    error: { kind: "bad-sheet", field, value, why },
  });
  if (data.minUm >= data.maxUm) return bad("film", data.minUm, `is not under its upper limit (${data.maxUm})`);
  if (data.mostPerCoatUm !== null && data.mostPerCoatUm < data.minUm)
    return bad("most in one coat", data.mostPerCoatUm, "is under the least film");
  if (data.mostInAllUm !== null && data.mostInAllUm < data.maxUm)
    return bad("most in all", data.mostInAllUm, "is under the most of one film");
  const curve = fitCureCurve(data.schedule);
  if (!curve.ok) return curve;
  if (data.gel) {
    const gel = gelSchedule(data.gel, data.schedule);
    if (!gel.ok) return gel;
  }
  if (data.climbCPerMin && data.climbCPerMin[0] <= 0)
    return bad("climb", data.climbCPerMin[0], "°C a min is not over 0");
  const cool = data.overbake.find((o) => data.schedule.some((s) => s.metalC === o.metalC && o.minutes <= s.minutes));
  if (cool) return bad("over-bake", cool.minutes, `min at ${cool.metalC} °C is no longer than the cure itself`);
  return { ok: true, value: true };
}

/**
 * A powder's data sheet, new or changed from now on; what was judged before stays judged by the sheet of its time.
 * Failures: `bad-entry`, `bad-sheet` (field, value, why), those of the cure curve, `code-taken`, `unknown-set-up`,
 * `set-up-changed`.
 */
export async function savePowder(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(powderSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const checked = checkPowder(parsed.output.data);
  if (!checked.ok) return refuse(checked.error);
  const { photos: _, ...data } = parsed.output.data;
  const own =
    parsed.output.seen === null ? data : (now: SetupItem<"powder">["data"]) => ({ ...data, photos: now.photos });
  return saveSetup(db, person, "powder", { ...parsed.output, data: own }, clock);
}

const listSchema = v.object({
  reason: said(300, "is too short: say where the list is from"),
  powders: v.pipe(
    v.array(
      v.strictObject({
        code,
        ...v.pick(powderData, [
          "name",
          "chemistry",
          "family",
          "minUm",
          "maxUm",
          "specificGravity",
          "schedule",
          "shelfLifeDays",
          "pricePerKg",
        ]).entries,
      }),
    ),
    v.minLength(1, "is empty"),
    v.maxLength(500, "is more than 500 powders"),
  ),
});
/**
 * Powders of a list put on record, all or none; one that is there already exactly so is left as it is. What a list does not
 * say is as on a blank sheet. Failures: `bad-entry`, `bad-sheet` and `code-taken`, each with its line.
 */
export async function savePowderList(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly added: number }>> {
  const parsed = v.safeParse(listSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { reason, powders } = parsed.output;
  return write(db, [lock.setUp("powder")], clock, async (trx, at) => {
    const known = new Map([...(await setupAt(trx, "powder", at)).values()].map((p) => [p.code.toLowerCase(), p]));
    const fresh: { code: string; data: SetupInput<"powder"> }[] = [];
    for (const [i, { code, ...own }] of powders.entries()) {
      const data = { ...blankPowder, ...own };
      const checked = checkPowder(data);
      if (!checked.ok) return refuse({ ...checked.error, line: i + 2 });
      const there = known.get(code.toLowerCase());
      if (
        there &&
        Object.entries(own).some(
          ([k, value]) => canonicalText(value) !== canonicalText(there.data[k as keyof typeof own]),
        )
      )
        return refuse({ kind: "code-taken", code: there.code, line: i + 2 });
      if (!there) fresh.push({ code, data });
    }
    for (const { code, data } of fresh)
      await addEntity<"powder">(trx, person, { kind: "powder", code, at, reason, data });
    return { ok: true as const, added: fresh.length };
  });
}
/** What of a sheet a list does not tell. */
const blankPowder = {
  overbake: [],
  onsetC: null,
  gel: null,
  climbCPerMin: null,
  knownCuredRubGrade: 5,
  traits: [],
  weathering: "standard" as const,
  smoothness: null,
  glossGu: null,
  swatch: null,
  storeMostC: null,
  mostPerCoatUm: null,
  mostInAllUm: null,
  yearsPromised: null,
  hazards: "",
};

/** A set-up sheet, new or changed from now on. Failures: as for a powder; `unknown-set-up` where its powder or part is none. */
export async function saveSheet(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<SetupSaved> {
  const parsed = v.safeParse(sheetSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const { data } = parsed.output;
  return saveSetup(db, person, "setup-sheet", parsed.output, clock, {
    what: "set-up sheet",
    check: async (trx, _, __, at) => {
      const [powders, parts] = [await setupAt(trx, "powder", at), await setupAt(trx, "part", at)];
      if (![...powders.values()].some((p) => p.code === data.powderCode))
        return { kind: "unknown-set-up", what: "powder", name: data.powderCode };
      if (data.partCode !== null && ![...parts.values()].some((p) => p.code === data.partCode))
        return { kind: "unknown-set-up", what: "part", name: data.partCode };
      return null;
    },
  });
}

const day = v.pipe(
  v.string(),
  v.check((typed) => {
    const day = readDay(typed);
    return day.ok && day.value === typed;
  }, "is not a date"),
);
export const lotSchema = v.object({
  powder: filled(40),
  lot: v.pipe(filled(40), v.regex(/^[\w./-]+$/, "is not letters and digits")),
  madeOn: day,
  receivedOn: day,
  stockKg: v.nullable(v.pipe(number, v.minValue(0, "is under 0"), v.maxValue(20_000, "is over 20,000 kg"))),
});
export type LotInput = v.InferInput<typeof lotSchema>;

/**
 * Lots taken into stock, all or none; the same lot with the same weight twice is one. Failures: `bad-entry`,
 * `unknown-set-up` (powder), `made-after-received`, `in-the-future`, `code-taken` (there with another weight or date);
 * each with `line` where several came.
 */
export async function receiveLots(
  db: Kysely<Database>,
  person: Person,
  input: unknown,
  clock: Clock,
): Promise<Outcome<{ readonly added: number }>> {
  const parsed = v.safeParse(
    v.pipe(v.array(lotSchema), v.minLength(1, "is empty"), v.maxLength(500, "is more than 500 lots")),
    input,
  );
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  const lots = parsed.output;
  const fail = (failure: Failure, line: number) => refuse(lots.length > 1 ? { ...failure, line: line + 1 } : failure);
  return write(db, [lock.setUp("lot")], clock, async (trx, at) => {
    const [powders, known] = await Promise.all([setupAt(trx, "powder", at), setupAt(trx, "lot", at)]);
    const codes = new Map([...known.values()].map((l) => [l.code.toLowerCase(), l]));
    const fresh: { code: string; data: SetupInput<"lot"> }[] = [];
    for (const [i, lot] of lots.entries()) {
      const powder = [...powders.values()].find((p) => p.code.toLowerCase() === lot.powder.toLowerCase());
      if (!powder) return fail({ kind: "unknown-set-up", what: "powder", name: lot.powder }, i);
      if (lot.madeOn > lot.receivedOn) return fail({ kind: "made-after-received", ...lot }, i);
      if (new Date(lot.receivedOn).getTime() > at.getTime() + 86_400_000)
        return fail({ kind: "in-the-future", happenedAt: lot.receivedOn }, i);
      const lotCode = `${powder.code}/${lot.lot}`;
      const data = { powderCode: powder.code, madeOn: lot.madeOn, receivedOn: lot.receivedOn, stockKg: lot.stockKg };
      const there = codes.get(lotCode.toLowerCase());
      const twin = fresh.find((f) => f.code.toLowerCase() === lotCode.toLowerCase());
      if (there && (there.data.stockKg !== lot.stockKg || there.data.madeOn !== lot.madeOn))
        return fail({ kind: "code-taken", code: there.code }, i);
      if (twin) return fail({ kind: "code-taken", code: twin.code }, i);
      if (!there) fresh.push({ code: lotCode, data });
    }
    for (const { code, data } of fresh) {
      const since = new Date(Math.min(at.getTime(), new Date(data.receivedOn).getTime()));
      await addEntity<"lot">(trx, person, { kind: "lot", code, at: since, reason: "Received", data });
    }
    return { ok: true as const, added: fresh.length };
  });
}

const openedSchema = v.object({ lot: filled(80) });
/**
 * A lot's first box opened, today by the shop's clock; once, since powder ages faster from then on. Failures: `bad-entry`,
 * `unknown-set-up`, `lot-opened` (when).
 */
export async function openLot(db: Kysely<Database>, person: Person, input: unknown, clock: Clock): Promise<SetupSaved> {
  const parsed = v.safeParse(openedSchema, input);
  if (!parsed.success) return refuse(badEntry(parsed.issues));
  return write<SetupSaved>(db, [lock.setUp("lot")], clock, async (trx, at) => {
    const { timeZone } = await siteAt(trx, at);
    const known = [...(await setupAt(trx, "lot", at)).values()].find(
      (l) => l.code.toLowerCase() === parsed.output.lot.toLowerCase(),
    );
    if (!known) return refuse({ kind: "unknown-set-up", what: "lot", name: parsed.output.lot });
    const { openedOn } = known.data;
    if (openedOn !== null) return refuse({ kind: "lot-opened", lot: known.code, openedOn });
    const data = { ...known.data, openedOn: dayIn(at, timeZone) };
    await addVersion<"lot">(trx, person, { entityId: known.id, at, reason: "Opened", data });
    return { ok: true, code: known.code, already: false };
  });
}
