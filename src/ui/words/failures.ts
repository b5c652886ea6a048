/** A failure as a person reads it: what was wrong, with the value, and what to do. */
type Failure = { readonly kind: string; readonly [detail: string]: unknown };
const s = (value: unknown): string =>
  typeof value === "number" ? String(Math.round(value * 1000) / 1000) : String(value);

const sentences: Record<string, (f: Failure) => string> = {
  empty: () => "Nothing was typed.",
  "not-understood": (f) =>
    `“${s(f.word)}” is not understood here. Try: rack 1042 dft a3 72 75 71, or tank 3 ph 5.1 at 48C.`,
  expected: (f) =>
    `Expected ${s(f.what)}${f.got ? `, got “${s(f.got)}”` : ""}. For example: ${Array.isArray(f.of) ? f.of.join(", ") : ""}.`,
  "ambiguous-number": (f) =>
    `“${s(f.text)}” could be ${Array.isArray(f.readAs) ? f.readAs.join(" or ") : "two numbers"}. Type it with a point for decimals and no thousands mark.`,
  "not-a-number": (f) => `“${s(f.text)}” is not a number. Type digits, with a point for decimals.`,
  "unknown-unit": (f) => `“${s(f.word)}” is not a unit known here. Use µm, mil, °C, °F or µS/cm.`,
  negative: (f) => `${s(f.valueUm)} µm is under zero. Read the place again.`,
  "beyond-any-film": (f) =>
    `${s(f.valueUm)} µm is more than any film (${s(f.mostUm)}). Check the unit and the decimal mark.`,
  "beyond-instrument": (f) =>
    `${s(f.value ?? f.tempC)} for ${s(f.parameter ?? "temperature")} is beyond what the instrument can read (${s(f.least)} to ${s(f.most)}). Check the decimal mark and the unit.`,
  "bad-entry": (f) => `${f.field ? `${s(f.field)}: ` : ""}${s(f.value)} ${s(f.why)}. Correct it and record again.`,
  "role-refused": (f) =>
    `Your role (${s(f.role)}) may not do this; it needs “${s(f.needs)}”. Ask a lead or the administrator.`,
  "signed-out": () =>
    "Your session has ended. Sign in again in another tab, then record: what you typed is still here.",
  "in-the-future": (f) => `${s(f.happenedAt)} lies ahead of the clock. Correct the time.`,
  "too-long-ago": (f) => `${s(f.happenedAt)} is before any record here. Correct the date.`,
  "unknown-rack": (f) => `There is no rack ${s(f.number)} for you. Check the number on its tag.`,
  "unknown-bath": (f) => `There is no bath “${s(f.name)}”. Type it as on the line: tank 3.`,
  "unknown-structure": (f) => `There is no structure “${s(f.name)}”.`,
  "unknown-case": (f) => `There is no case ${s(f.number)}.`,
  "number-taken": (f) => `There is already a ${s(f.what)} ${s(f.number)}. Give another number.`,
  "unknown-set-up": (f) => `There is no ${s(f.what)} “${s(f.name)}”. Choose one of the list.`,
  "unknown-job": (f) => `There is no job ${s(f.number)}.`,
  "unknown-oven-name": (f) => `There is no ${s(f.name)}. Type it as on the line: oven 1 pull.`,
  "nothing-in-oven": (f) => `No open load is on record for ${s(f.name)}.`,
  "unknown-oven": () => "No oven is set up. The administrator adds one.",
  "spots-do-not-fit": (f) =>
    `The file names ${s(f.got)} spots, ${s(f.part)} has ${s(f.has)}. Choose the rack it was read on.`,
  "no-recorder": () => "The recorder does not answer. Check that it is on, or import its file.",
  "unknown-spot": (f) => `${s(f.face)}/${s(f.spot)} is not a spot on ${s(f.of)}. The sketch shows the spots.`,
  "stages-overlap": (f) =>
    `The line's stages ${s(f.first)} and ${s(f.second)} overlap. Ask a lead to mend the line's set-up.`,
  "bad-input": (f) => `${s(f.value)} for ${s(f.name)} cannot be. Check the number and its unit.`,
  "wrong-powder": (f) => `Lot ${s(f.lot)} is not ${s(f.asked)}, the powder this job asks for. Check the box's label.`,
  "not-a-primer": (f) => `Lot ${s(f.lot)} is not a primer. Choose a primer lot, or record the coat as top.`,
  "rack-in-oven": (f) => `Rack ${s(f.number)} is in load ${s(f.load)}, which is not pulled yet. Pull that load first.`,
  "already-pulled": () => "This load was pulled already. Reload to see it.",
  "correct-one-by-one": () => "An entry of several readings is corrected one reading at a time.",
  "bad-size": (f) => `${s(f.name)}: ${s(f.value)} cannot be. Measure it again, and check the unit.`,
  "sections-crossed": (f) =>
    `The thinnest section (${s(f.thinnestMm)} mm) is over the thickest (${s(f.thickestMm)} mm). Turn them round.`,
  "section-beyond-box": (f) =>
    `A section of ${s(f.thickestMm)} mm is wider than the part itself (${s(f.boxMm)} mm). Check the unit.`,
  "mass-beyond-box": (f) =>
    `${s(f.massKg)} kg is more than its whole box in metal (${s(f.mostKg)} kg). Check the mass, the size or the metal.`,
  "area-under-face": (f) =>
    `${s(f.areaM2)} m² is less than the largest face of its box (${s(f.faceM2)} m²). Count both sides, and check the unit.`,
  "unknown-substrate": (f) =>
    `“${s(f.name)}” is not a metal known here. Type steel, sheet, alu, cast alu, galvanised or stainless.`,
  "unknown-part-word": (f) =>
    `“${s(f.word)}” is not a metal, a size, a number or a word known in a part's line. See what a line may say, in the margin.`,
  "part-without": (f) => `${s(f.name)} lacks ${s(f.what)}.`,
  "bad-count": (f) => `${s(f.pieces)} pieces cannot be. Type a whole number from 1.`,
  "too-many-lines": (f) => `${s(f.got)} parts at once; up to ${s(f.most)} are taken. Split the list.`,
  "no-exposure": () => "Choose where it will live: without it no system can be advised.",
  "bad-life": (f) => `${s(f.years)} years cannot be. Type the life asked for, from 0.1 to 100 years.`,
  "hotter-than-any-resin": (f) =>
    `${s(f.serviceC)} °C is more than any resin stands (${s(f.mostC)} °C). Powder is not for it.`,
  "in-the-past": (f) => `The ${s(f.what)} ${s(f.value)} lies in the past (it is ${s(f.today)}). Choose a later one.`,
  "refused-system": (f) =>
    `This system cannot work: ${s(f.refusal).replaceAll("-", " ")}. Choose another, or give a reason.`,
  "changed-meanwhile": (f) =>
    `${s(f.by)} changed this plan meanwhile: version ${s(f.version)} stands. Reload to see it, then change that one.`,
  "reason-needed": () => "This plan was released to the shop. A change after that needs its reason.",
  "no-measures": (f) =>
    `${s(f.part)} was never measured: its size, mass and area come first. Receive it again with its measures.`,
  "unknown-offer": () => "That option is not there for you. Reload, and answer it from the list.",
  "negative-price": (f) => `${s(f.name)}: ${s(f.value)} is under zero. Mend the rate or the price.`,
  "no-primer-powder": () => "The system has a primer, and no primer powder with a price is set up.",
  "does-not-fit": () => "Not one piece fits a rack this way: too wide, too tall or too heavy.",
  "no-hang-points": () => "No hang point is set on its sketch yet.",
  "points-in-one-place": () => "The hang points stand over one another: it can turn.",
  "value-given-twice": (f) => `${s(f.parameter)} is given twice. Keep one.`,
  "key-conflict": () => "This was already recorded with other content; the stored record stands. Reload to see it.",
  "already-superseded": (f) =>
    `${s(f.by)} corrected this record first (“${s(f.reason)}”). Reload, look at theirs, and correct that one if it is still wrong.`,
  "unknown-superseded": () => "The record to correct does not exist or is of another kind. Reload and choose it again.",
  "blank-over-titrant": (f) =>
    `The blank (${s(f.blankMl)} mL) is more than the titrant (${s(f.titrantMl)} mL). Check both burette readings.`,
  "bad-squares": (f) => `${s(f.squaresLost)} squares lost of ${s(f.squares)} cannot be. Count again.`,
  "bad-rubs": (f) =>
    `${s(f.doubleRubs)} double rubs on a limit of ${s(f.limit)} cannot be. Count to the limit at most.`,
  "more-affected-than-seen": (f) =>
    `${s(f.affected)} pieces affected of ${s(f.seen)} looked at cannot be. Check both counts.`,
  "narrower-than-scribe": (f) =>
    `The mean width (${s(f.meanMm)} mm) is less than the scribe (${s(f.scribeMm)} mm). Check the scribe width or the unit.`,
  "bad-width": (f) => `${s(f.widthMm)} mm is not a width. Measure again.`,
  "no-widths": () => "No widths were given. Measure six or more, evenly spaced.",
  "empty-file": () => "The file holds no readings. Export it again from the instrument.",
  "no-thickness-column": (f) =>
    `No thickness column was found (first line: “${s(f.firstLine)}”). Is this a gauge export?`,
  "no-time-column": (f) => `No time column was found among: ${Array.isArray(f.columns) ? f.columns.join(", ") : ""}.`,
  "missing-columns": (f) => `Missing columns: ${Array.isArray(f.missing) ? f.missing.join(", ") : ""}.`,
  "unit-unknown": () => "The file names no unit. Choose the unit below and read it again.",
  "mixed-units": (f) =>
    `The file mixes units (${Array.isArray(f.units) ? f.units.join(" and ") : ""}). Export it in one.`,
  "ambiguous-dates": (f) =>
    `“${s(f.example)}” could be day or month first, and no date in the file tells. Choose below.`,
  "mixed-dates": (f) => `Some dates are day first and some month first (like “${s(f.example)}”). Export it again.`,
  "bad-rows": () => "Some lines could not be taken, so the whole file is refused. Mend these lines and read it again:",
  "not-utf-8": () => "The file is not UTF-8 text. Export it as CSV or text (UTF-8).",
  "too-large": (f) => `The file is ${s(f.megabytes)} MB; up to ${s(f.mostMegabytes)} MB is taken. Split it.`,
  "wrong-kind-of-file": (f) => `This is not a picture Sorrel takes (${s(f.found)}). Use JPEG, PNG or WebP.`,
  "cut-off-upload": () => "The file arrived incomplete. Send it again.",
  "too-few-points": (f) => `${s(f.got)} checks since the last addition; ${s(f.need)} are needed to forecast.`,
  "equal-times": () => "All checks carry the same time; no trend can be drawn.",
  "points-away": () => "The trend points away from the limits.",
  "no-spread": () => "The last checks do not vary at all; run rules cannot be judged.",
  "too-few-values": (f) => `${s(f.got)} values; ${s(f.need)} are needed.`,
  "over-freeboard": (f) =>
    `${s(f.neededL)} L do not fit: the tank has ${s(f.freeboardL)} L free. Drain first, or keep the level.`,
  "no-readings": () => "No reading yet.",
  "no-live-metal-channel": () => "No live metal channel: the load's cure is not known from this trace.",
  "times-out-of-order": (f) => `Times are out of order near ${s(f.timeS)} s.`,
  "no-samples": () => "The trace holds no samples.",
  "wrong-password": () => "That password is not yours. Nothing was signed.",
  "wrong-sign-in": () =>
    "User name and password do not match. Check both; after several tries sign-in rests for ten minutes.",
  "too-many-tries": () => "Too many tries. Sign-in rests for ten minutes; then try again.",
  "not-saved": () => "This could not be saved just now. What you typed is kept; try again in a moment.",
};

export function failureText(failure: Failure): string {
  return sentences[failure.kind]?.(failure) ?? `Refused: ${failure.kind.replaceAll("-", " ")}.`;
}
