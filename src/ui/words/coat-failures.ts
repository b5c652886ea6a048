import { countOf } from "../format";
import { linkName } from "./coating";

type Failure = { readonly kind: string; readonly [detail: string]: unknown };
const s = (value: unknown): string =>
  typeof value === "number" ? String(Math.round(value * 100) / 100) : String(value);
const at = (f: Failure): string => (f.line === undefined ? "" : ` (line ${s(f.line)})`);
const columns: Record<string, string> = {
  powder: "powder",
  lot: "lot",
  madeOn: "made",
  receivedOn: "received",
  stockKg: "kg",
};

/** Refusals of powder, coat and gauge. */
export const coatSentences: Record<string, (f: Failure) => string> = {
  "no-coat-yet": (f) => `Rack ${s(f.number)} has no coat on record in this pass. Record the coat first.`,
  "no-link-read": () => `Read at least one link of the earth: ${Object.values(linkName).join(", ")}.`,
  "panel-does-not-match": (f) =>
    `${s(f.what)} ${s(f.value)} is beyond what the sheet allows (${s(f.limit)}): it does not match. Record it as off, or read it again.`,
  "hopper-gained": (f) =>
    `The hopper weighs ${s(f.afterKg)} kg after and ${s(f.beforeKg)} kg before, with ${s(f.addedKg)} kg filled in: nothing left it. Read the scales again.`,
  "more-on-than-used": (f) =>
    `${s(f.onKg)} kg is on the parts and only ${s(f.usedKg)} kg left the hopper. A weight, the area or the film is wrong.`,
  "stored-longer-than-old": (f) =>
    `The store was read over ${countOf(Number(f.days), "day")}, and the lot is ${countOf(Number(f.ageDays), "day")} old. Correct the day it was made.`,
  "bad-sheet": (f) => `${s(f.field)}: ${s(f.value)} ${s(f.why)}. Put it right and save again.`,
  "made-after-received": (f) =>
    `Lot ${s(f.lot)} was made on ${s(f.madeOn)}, after it was received on ${s(f.receivedOn)}. Correct one of the two${at(f)}.`,
  "no-heading": (f) =>
    `The first line names the columns, and “${columns[s(f.what)] ?? s(f.what)}” is missing. For example: powder, lot, made, received, kg.`,
  "no-powder-heading": (f) =>
    `The list has no column for ${Array.isArray(f.missing) ? f.missing.join(", ") : ""}. The first line names them: code,name,film from,film to,sg,cure.`,
  "unknown-powder-heading": (f) =>
    `“${s(f.heading)}” is not a column known here. Use code, name, film from, film to, sg, cure, and chemistry, family, shelf life, price.`,
  "powder-line-without": (f) => `Line ${s(f.line)} lacks its ${s(f.what)}.`,
  "too-many-powders": (f) => `${s(f.got)} powders at once; up to ${s(f.most)} are taken. Split the list.`,
  "not-a-cure": (f) =>
    `Line ${s(f.line)}: “${s(f.text)}” is not a cure. Type metal temperature and minutes: 180 20, 190 15.`,
  "unknown-family": (f) =>
    `Line ${s(f.line)}: “${s(f.name)}” is not a family known here. Use one of ${Array.isArray(f.of) ? f.of.join(", ") : ""}.`,
  "powder-twice": (f) => `Line ${s(f.line)}: ${s(f.code)} stands in the list twice. Leave one.`,
  "unknown-heading": (f) => `“${s(f.heading)}” is not a column known here. Use powder, lot, made, received, kg.`,
  "line-without": (f) => `Line ${s(f.line)} lacks its ${columns[s(f.what)] ?? s(f.what)}.`,
  "not-a-date": (f) => `“${s(f.text)}” is not a date${at(f)}. Type it as 2026-03-02, or 02.03.2026.`,
  "date-of-two": (f) =>
    `“${s(f.text)}” could be ${s(f.dayFirst)} or ${s(f.monthFirst)}${at(f)}. Type the one that is meant.`,
  "built-already": (f) => `The film asked is built already, and ${s(f.overUm)} µm over it.`,
  "pairs-differ": (f) =>
    `${s(f.total)} spots in all and ${s(f.primer)} of the primer do not pair up. Read the same spots.`,
  "primer-over-total": (f) =>
    `The primer reads ${s(f.primerUm)} µm and the whole ${s(f.totalUm)} µm. One of the two was read elsewhere.`,
  "no-shim": () => "Read at least one shim.",
  "too-few-readings": (f) =>
    f.shimUm === null || f.shimUm === undefined
      ? `${s(f.got)} readings are too few: take ${s(f.need)}.`
      : `${s(f.got)} readings on the ${s(f.shimUm)} µm shim are too few: take ${s(f.need)}.`,
  "not-a-gauge-line": (f) => `“${s(f.text)}” is not a reading. Look at the gauge's display, or type it.`,
};
