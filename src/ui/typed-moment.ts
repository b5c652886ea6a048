import { momentOf } from "@/core/shifts";

/** A day and time typed by the shop's clock (YYYY-MM-DDTHH:MM) as a moment; null for what is none. */
export function typedMoment(local: string, timeZone: string): Date | null {
  const ms = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/.test(local) ? Date.parse(`${local}Z`) : Number.NaN;
  return Number.isNaN(ms) ? null : new Date(momentOf(ms, timeZone));
}
