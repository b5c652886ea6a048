import type { UnitSystem } from "@/core/units";
import { plainly } from "../format";
import { bathValue, parameterName } from "./baths";

type Failure = { readonly kind: string; readonly [detail: string]: unknown };
const s = (value: unknown): string =>
  typeof value === "number" ? String(Math.round(value * 100) / 100) : String(value);
const nameOf = (parameter: unknown): string => parameterName[s(parameter)] ?? s(parameter);

const volume = (litres: unknown, units: UnitSystem) => plainly(Number(litres), "volume", units);

/** What a slip was, in words. */
const slips: Record<string, string> = {
  "fahrenheit-as-celsius": "as if °F were typed as °C",
  "celsius-as-fahrenheit": "as if °C were typed as °F",
  "milli-as-micro": "as if mS/cm were typed as µS/cm",
  "micro-as-milli": "as if µS/cm were typed as mS/cm",
  "bar-as-kilopascal": "as if bar were typed as kPa",
  "psi-as-kilopascal": "as if psi were typed as kPa",
  "tenfold-high": "as if the decimal point had slipped",
  "tenfold-low": "as if the decimal point had slipped",
};

/** What is asked about an addition before it is recorded. */
const additions: Record<string, (f: Failure, units: UnitSystem) => string> = {
  "wrong-product": (f) =>
    `“${s(f.product)}” is not a product of ${s(f.bath)} (${Array.isArray(f.known) ? f.known.join(", ") : ""})${f.belongsTo ? `; it belongs to ${s(f.belongsTo)}` : ""}. Look at the drum.`,
  tenfold: (f, units) =>
    `${volume(f.litres, units)} is ${s(Math.round(Number(f.litres) / Number(f.advisedL)))} times what the bath asks for (${volume(f.advisedL, units)}). Look at the decimal point.`,
  "wrong-direction": (f) =>
    f.parameter === "ph"
      ? `pH is at ${s(f.value)}, under its target of ${s(f.target)}: acid takes it further away.`
      : `The bath is at ${s(f.value)} %, over its target of ${s(f.target)} %: concentrate takes it further away.`,
  "over-freeboard": (f, units) =>
    `${volume(f.litres, units)} is more than the tank has room for (${volume(f.freeboardL, units)}). Drain first.`,
  "drum-out-of-date": (f) => `Lot ${s(f.lot)} was usable until ${s(f.usableUntil)}. Take a fresh drum.`,
  "more-than-left": (f, units) =>
    `Lot ${s(f.lot)} has ${volume(f.leftL, units)} left on record, and ${volume(f.litres, units)} are logged. Look at the drum's label.`,
  "over-single": (f, units) =>
    `${volume(f.litres, units)} is more than may go in at once (${volume(f.mostL, units)}). Split it, with a check between.`,
};

/** Refusals and questions of the wash. */
export const washSentences: Record<string, (f: Failure, units: UnitSystem) => string> = {
  "bath-empty": (f) =>
    `${s(f.bath)} was dumped at ${s(f.since).slice(0, 16).replace("T", " ")} UTC and is not recharged on record. Log the recharge first.`,
  "value-in-question": (f, units) => {
    const said = (value: unknown) => bathValue(s(f.parameter), Number(value), units);
    return `${nameOf(f.parameter)} ${said(f.value)} in ${s(f.bath)}, which usually reads ${said(f.usual)}: ${slips[s(f.slip)] ?? ""}. ${said(f.suggested)} was meant, or it stands as typed: say which.`;
  },
  "tank-in-question": (f) =>
    `These values read like ${s(f.other)}, not like ${s(f.bath)}. Look at the tank, or record them as they are.`,
  "addition-in-question": (f, units) =>
    additions[s(f.question)]?.(f, units) ?? "This addition looks wrong. Look at the drum again.",
  "reason-needed-here": () => "What was asked about stands only with a reason. Write it in the note.",
  "bad-stop": (f) => `A stop of ${s(f.minutes)} min cannot be. Its end comes after its start, within a day.`,
  "unknown-stop": () => "This stop is not on record. Reload to see how the line stands.",
  "stop-built-upon": (f) =>
    `Rack ${s(f.number)}'s ${s(f.stage)} was corrected since. Correct that one first, then take the stop back.`,
  "stop-in-a-stop": (f) =>
    `The line already stood then, from ${s(f.from).slice(0, 16).replace("T", " ")} UTC. Begin this stop after it.`,
  "not-a-meter-line": (f) => `“${s(f.text)}” is not what this meter sends. Type the values.`,
  "another-drum": (f) => `Drum ${s(f.lot)} does not hold “${s(f.product)}”. Choose the drum that was opened.`,
  "burette-runs-back": (f) =>
    `The burette reads ${s(f.endMl)} mL at the end and ${s(f.startMl)} mL at the start. It only runs down: read it again.`,
  "bad-recipe": (f) => `Titration, ${s(f.field)}: ${f.value === "" ? "" : `${s(f.value)} `}${s(f.why)}.`,
  "bad-upkeep": (f) =>
    `${s(f.field)}: ${f.value === "" ? "" : `${s(f.value)} `}${s(f.why)}. Put it right and save again.`,
  "upkeep-without": (f) =>
    f.lacks === "who"
      ? `${s(f.what)} is not the line’s own to do. Name who did it.`
      : `${s(f.what)}: write what came of it, and what is to be changed by when.`,
  "upkeep-not-in-order": (f) =>
    `${s(f.name)} ${s(f.value)} ${s(f.unit)} is beyond its limit, so it is not in order. Say what was put right, or leave it not in order.`,
  "bad-bath": (f) =>
    `${s(f.field)}: ${f.value === "" ? "" : `${s(f.value)} `}${s(f.why)}. Put it right and save again.`,
  "bad-moves": (f) =>
    `“${s(f.word)}” is no value that is watched. Write each product with what it moves, like Acid: ph, conductivity; there are ${Array.isArray(f.of) ? f.of.join(", ").replaceAll("-", " ") : ""}, or nothing.`,
  "code-taken": (f) => `There is a ${s(f.code)} already. Give this one another name.`,
  "set-up-changed": (f) =>
    `${s(f.by)} changed ${s(f.what)} meanwhile. Reload to see it, then change it on top of that.`,
  "nothing-passed": () => "Nothing has passed the bath yet, so its use for each area is not known.",
  "no-window": () => "No window is set for this value. Ask a lead to set it.",
};
