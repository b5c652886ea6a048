import * as v from "valibot";
import { wellFormed } from "../text";

/** Text as a person types it, trimmed. PostgreSQL keeps no NUL, so that one character is refused here. */
export const text = (most: number) =>
  v.pipe(
    v.string("is not text"),
    v.transform(wellFormed),
    v.trim(),
    v.maxLength(most, `is longer than ${most} characters`),
    v.check((typed) => !typed.includes("\u0000"), "holds a character that cannot be kept"),
  );
/** Text that must be there. */
export const filled = (most: number) => v.pipe(text(most), v.minLength(1, "is empty"));
/** Text that must say something: a reason, a proof. */
export const said = (most: number, tooShort: string) => v.pipe(text(most), v.minLength(3, tooShort));
/** The panel it was done on, by its number; null where it has none. */
export const panelNo = v.optional(v.nullable(filled(40)), null);
export const uuid = v.pipe(v.string(), v.uuid("not an id"));
export const number = (least: number, most: number) =>
  v.pipe(
    v.number("is not a number"),
    v.finite("is not a number"),
    v.minValue(least, `is under ${least}`),
    v.maxValue(most, `is over ${most}`),
  );
export const whole = (least: number, most: number) => v.pipe(number(least, most), v.integer("is not a whole number"));
export const moment = v.pipe(
  v.string(),
  v.isoTimestamp("is not a moment"),
  v.transform((s) => new Date(s)),
);

/** What every entry carries: its own id and key, made where it was caught, and when it happened. */
const base = {
  id: uuid,
  idempotencyKey: filled(120),
  happenedAt: moment,
  supersedes: v.optional(v.nullable(v.object({ recordId: uuid, reason: filled(400) })), null),
};
export const entry = <K extends string, T extends v.ObjectEntries>(kind: K, rest: T) =>
  v.object({ kind: v.literal(kind), ...base, ...rest });

/** Samples of one channel; a day at one a second is the most that is taken. */
const samples = 86_400;
export const traceChannel = v.object({
  name: filled(40),
  medium: v.picklist(["air", "metal"]),
  timeS: v.pipe(v.array(v.pipe(v.number(), v.finite())), v.minLength(2, "are fewer than two"), v.maxLength(samples)),
  tempC: v.pipe(v.array(v.nullable(v.pipe(v.number(), v.finite()))), v.maxLength(samples)),
});
