import type { PreFlightItem, RecoatAsk } from "@/core/coating";
import type { OpenKind, OrderFault } from "@/core/line";
import type { MetalHold, PrepStep } from "@/core/preparation";
import { type SiteLimitName, siteLimits } from "@/core/site";
import type { UnitSystem } from "@/core/units";
import { countOf, localMoment } from "../format";
import { coatSentences } from "./coat-failures";
import { preFlightOff } from "./coating";
import { decisionWords } from "./decisions";
import { fieldSentences } from "./field-failures";
import { openName, openRemedy, orderSaid } from "./open";
import { metalHoldSaid, prepStepName } from "./preparation";
import { plannedTestName } from "./test-plan";
import { washSentences } from "./wash-failures";

/** Names in a row; nothing where there are none. */
const list = (names: unknown): string => (Array.isArray(names) ? names.map(s).join(", ") : "");
/** A failure as a person reads it: what was wrong, with the value, and what to do. */
type Failure = { readonly kind: string; readonly [detail: string]: unknown };
const s = (value: unknown): string =>
  typeof value === "number" ? String(Math.round(value * 1000) / 1000) : String(value);

const sentences: Record<string, (f: Failure, units: UnitSystem) => string> = {
  ...washSentences,
  ...coatSentences,
  ...fieldSentences,
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
  "bad-entry": (f) =>
    `${f.field ? `${fieldSaid(s(f.field))}: ` : ""}${f.value === "" || f.value === "null" ? "" : `${s(f.value)} `}${s(f.why)}. Correct it and record again.`,
  "role-refused": (f) =>
    `Your role (${s(f.role)}) may not do this; it needs “${s(f.needs)}”. Ask a lead or the administrator.`,
  "shop-begun": () => "This shop was begun already. Sign in; the administrator makes people.",
  "user-name-taken": (f) => `${s(f.username)} is another’s user name. Choose another: it stands under all they record.`,
  "unknown-person": (f) => `Nobody here has the user name ${s(f.username)}. Reload the page.`,
  "unknown-customer": (f) => `There is no customer ${s(f.code)}. Choose one from the list.`,
  "customer-needs-viewer": (f) =>
    `Who is held to a customer looks and records nothing: make them a viewer, not ${s(f.role)}.`,
  "last-administrator": (f) =>
    `${s(f.username)} is the only administrator who can sign in. Make another first: nobody could let anyone in.`,
  "own-lock": () => "You would lock yourself out. Ask another administrator.",
  "wrong-code": () => "User name and code do not fit, or the code was used or is over a day old. Ask for a new one.",
  "passwords-differ": () => "The two passwords are not the same. Type them again.",
  "signed-out": () =>
    "Your session has ended. Sign in again in another tab, then record: what you typed is still here.",
  "in-the-future": (f) => `${localMoment(new Date(s(f.happenedAt)))} lies ahead of the clock. Correct the time.`,
  "too-long-ago": (f) => `${s(f.happenedAt)} is before any record here. Correct the date.`,
  "unknown-rack": (f) =>
    `${f.line ? `Line ${s(f.line)}: ` : ""}There is no rack ${s(f.number)} for you. Check the number on its tag.`,
  "unknown-bath": (f) => `There is no bath “${s(f.name)}”. Type it as on the line: tank 3.`,
  "unknown-structure": (f) => `There is no structure “${s(f.name)}”.`,
  "unknown-cause": (f) => `There is no cause called ${s(f.cause)}: choose one of the list.`,
  "never-seen": () => "It is on record of no rack before, so that no fall can be counted.",
  "no-plan": (f) => `With these shares no trial of up to ${s(f.most)} panels a group would tell.`,
  "bad-weight": (f) =>
    `A weight of ${s(f.weight)} is out of range: base weights go from 0.1 to 100, a finding’s from −5 to 5.`,
  "no-longer-failing": (f) =>
    `Nothing of that stands past its limit on ${s(f.structure)} any more, by its newest reading. Leave it out, or load the page again.`,
  "in-another-case": (f) => `That defect is in case ${s(f.number)} already: split it from there first.`,
  "unknown-case": (f) => `There is no case ${s(f.number)}.`,
  "number-taken": (f) => `There is already a ${s(f.what)} ${s(f.number)}. Give another number.`,
  "unknown-set-up": (f) => `There is no ${s(f.what)} “${s(f.name)}”. Choose one of the list.`,
  "unknown-job": (f) => `There is no job ${s(f.number)}.`,
  "unknown-oven-name": (f) => `There is no ${s(f.name)}. Type it as on the line: oven 1 pull.`,
  "nothing-in-oven": (f) => `No open load is on record for ${s(f.name)}.`,
  "unknown-oven": () => "No oven is set up. A lead sets one up under Cure, Ovens.",
  "spots-do-not-fit": (f) =>
    `The file names ${s(f.got)} spots, ${s(f.part)} has ${s(f.has)}. Choose the rack it was read on.`,
  "no-recorder": () => "The recorder does not answer. Check that it is on, or import its file.",
  "unknown-spot": (f) =>
    `${f.line ? `Line ${s(f.line)}: ` : ""}${f.face ? `${s(f.face)}/` : ""}${s(f.spot) || "no spot"} is not a spot on ${s(f.of)}. The sketch shows the spots.`,
  "stages-overlap": (f) =>
    `The line's stages ${s(f.first)} and ${s(f.second)} overlap. Ask a lead to mend the line's set-up.`,
  "bad-input": (f) => `${s(f.value)} for ${s(f.name)} cannot be. Check the number and its unit.`,
  "wrong-powder": (f) => `Lot ${s(f.lot)} is not ${s(f.asked)}, the powder this job asks for. Check the box's label.`,
  "not-a-primer": (f) => `Lot ${s(f.lot)} is not a primer. Choose a primer lot, or record the coat as top.`,
  "step-out-of-order": (f) =>
    `${prepStepName[f.first as PrepStep] ?? s(f.first)} comes first and is not on record. Record it, or leave it out with its reason.`,
  "bad-how": (f) => `${s(f.field)}: “${s(f.value)}” ${s(f.why)}. Put it right, or leave it out.`,
  "inspect-all": (f) =>
    `No sample of ${s(f.lot)} pieces tells these shares apart (${s(f.atAql)} and ${s(f.atRql)} pieces). Look at every piece, or ask for less.`,
  "bad-subgroup": (f) => `Groups of ${s(f.size)} cannot be charted: take ${s(f.least)} to ${s(f.most)} at a time.`,
  "subgroups-differ": (f) =>
    `Group ${Number(f.index) + 1} has ${s(f.size)} values and the first has ${s(f.first)}. Take as many each time.`,
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
    `${s(f.areaM2)} m² is less than the largest face of its box (${s(f.faceM2)} m²). Count both sides, and check the unit; if it is bars with air between, add the word frame.`,
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
  "confirmed-meanwhile": (f) =>
    `${s(f.by)} confirmed another cause meanwhile, ${localMoment(new Date(s(f.at)))}: “${s(f.cause)}”. Read it first: yours stands here; record it again once you have loaded the page anew.`,
  "already-superseded": (f) =>
    `${s(f.by)} corrected this record first (“${s(f.reason)}”). Reload, look at theirs, and correct that one if it is still wrong.`,
  "unknown-superseded": () => "The record to correct does not exist or is of another kind. Reload and choose it again.",
  "blank-over-titrant": (f) =>
    `The blank (${s(f.blankMl)} mL) is more than the titrant (${s(f.titrantMl)} mL). Check both burette readings.`,
  "unknown-panel": (f) => `No panel ${s(f.number)} is on record. Put it on record first, with the racks it stands for.`,
  "panel-of-another-load": (f) =>
    `Panel ${s(f.number)} stands for ${list(f.racks) || "other racks"}, not for ${s(f.rack)}. Take the panel that hung with it.`,
  "panel-there-already": (f) =>
    `Panel ${s(f.number)} is on record already, for ${list(f.racks)}. Give this one another number.`,
  "unknown-sub-kind": (f) =>
    `“${s(f.name)}” is no kind of ${s(f.defect).replaceAll("-", " ")}${list(f.of) ? `: ${list(f.of)}` : ""}. Choose one of them, or none.`,
  "hours-run-back": (f) =>
    `Panel ${s(f.number)} has had ${s(f.had)} h already; ${s(f.hours)} h would run back. Type the hours it has had in all.`,
  "series-ended": (f) =>
    `Panel ${s(f.number)} came out for good at ${s(f.hours)} h. Correct that reading if it goes on.`,
  "bad-colour": (f) => `${s(f.lab)} is no colour that a meter gives: L* 0 to 100, a* and b* to ±200.`,
  "not-a-reading": (f) => `“${s(f.line)}” is no reading of an instrument that is known here.`,
  "no-such-piece": (f) =>
    `There is no piece ${s(f.piece)} on this rack: it has ${countOf(Number(f.of ?? 0), "piece")}.`,
  "piece-gone": (f) => `Piece ${s(f.piece)} (${s(f.serial)}) has left already. Choose among those that hang there.`,
  "part-only-leaves": (f) =>
    `“${decisionWords[s(f.decision)] ?? s(f.decision)}” is of all that hangs there. Let the good pieces go first, then decide on the rest.`,
  "rack-has-left": (f) => `Rack ${s(f.number)} has left: it cannot be held here any more. Tell the customer.`,
  "nothing-left": (f) => `Nothing hangs on rack ${s(f.number)} any more: all ${s(f.pieces)} pieces have left.`,
  "concession-unnamed": () => "Say who of the customer’s takes it as it is, and what their word is.",
  "class-missing": () => "Say which class it is downgraded to.",
  "nothing-to-wipe": (f) => `Rack ${s(f.number)} has no coat on record to wipe off.`,
  "baked-already": (f) => `Rack ${s(f.number)} has been in the oven since it was coated: scuff and recoat, or strip.`,
  "not-of-this-rack": (f) => `That fault is not one of rack ${s(f.number)}.`,
  "photo-too-large": (f) =>
    `The photo has ${s(f.megapixels)} megapixels; up to 60 are taken. Make it smaller, or take it from nearer.`,
  "photo-too-small": (f) => `The photo is ${s(f.width)} by ${s(f.height)} px: too small to tell anything.`,
  "bad-photo": () => "The photo is damaged, or could not be read here. Take it again, or count the squares by eye.",
  "no-lattice": () =>
    "Cannot tell: no lattice of cuts is found that is told from what else is there. Have all of it in the photo, square on and sharp, or tap its corners.",
  "lattice-cut-off": () =>
    "Cannot tell: the lattice runs out of the photo. Have all of it in, with a margin of half a square.",
  "two-lattices": () => "Cannot tell: there are two lattices in the photo. Frame one of them, or tap its corners.",
  "no-film-to-go-by": () =>
    "Cannot tell: there is no film round the lattice to go by. Leave a margin of half a square about it.",
  "looks-alike": () => "Cannot tell: film and metal look alike in this light. Count the squares by eye.",
  glare: (f) =>
    `Cannot tell: a highlight lies on ${s(Math.ceil(Number(f.sharePercent)))} % of the lattice. Turn the panel or the lamp, and take it again.`,
  "flat-points": () => "The corners lie on one line. Tap the four corners of the lattice in turn.",
  "too-few-corners": (f) => `${s(f.got)} corners are too few: ${s(f.need)} are wanted.`,
  "bad-squares": (f) => `${s(f.squaresLost)} squares lost of ${s(f.squares)} cannot be. Count again.`,
  "bad-rubs": (f) =>
    `${s(f.doubleRubs)} double rubs on a limit of ${s(f.limit)} cannot be. Count to the limit at most.`,
  "more-affected-than-seen": (f) =>
    `${countOf(Number(f.affected), "piece")} affected of ${s(f.seen)} looked at cannot be. Check both counts.`,
  "narrower-than-scribe": (f) =>
    `The mean width (${s(f.meanMm)} mm) is less than the scribe (${s(f.scribeMm)} mm). Check the scribe width or the unit.`,
  "bad-width": (f) => `${f.widthMm === undefined ? s(f.width) : `${s(f.widthMm)} mm`} is not a width. Measure again.`,
  "no-widths": () => "No widths were given. Measure six or more, evenly spaced.",
  "empty-file": () => "The file holds no readings. Export it again from the instrument.",
  "no-thickness-column": (f) =>
    `No thickness column was found (first line: “${s(f.firstLine)}”). Is this a gauge export?`,
  "no-time-column": (f) =>
    `No time column was found among: ${Array.isArray(f.columns) ? f.columns.join(", ") : ""}. Say below which it is.`,
  "missing-columns": (f) => `Missing columns: ${Array.isArray(f.missing) ? f.missing.join(", ") : ""}.`,
  "no-temperature-column": (f) =>
    `No column is a temperature among: ${Array.isArray(f.columns) ? f.columns.join(", ") : ""}. Say below which are.`,
  "channel-named-twice": (f) => `Two columns are called ${s(f.name)}. Leave one out, or name them apart in the file.`,
  "file-of-two-kinds": () => "This could be film readings or a trace. Say which it is:",
  "not-text": () => "This is no text and no spreadsheet. Export it as CSV, text or XLSX.",
  "old-spreadsheet": () => "This is a spreadsheet of the old kind (XLS). Save it as XLSX or CSV and choose it again.",
  "bad-spreadsheet": () => "The spreadsheet cannot be opened. Save it again as XLSX, or as CSV.",
  "lot-opened": (f) => `Lot ${s(f.lot)} is on record as opened ${s(f.openedOn)}. Nothing is to be done.`,
  "more-returned-than-hung": (f) =>
    `${countOf(Number(f.returned), "piece")} returned, and ${s(f.hung)} hung on rack ${s(f.rack)}. Check the count, or name the other racks in a complaint of their own.`,
  "unknown-complaint": () => "There is no such complaint. Open it from the list of complaints.",
  "no-labels": (f) => `Nothing hangs under job ${s(f.job)} yet: hang a rack first.`,
  "unknown-export": (f) => `There is no table ${s(f.table)} to take away. Choose one from the list.`,
  "unknown-label": () => "Say what the label is of: rack, piece, panel, lot or drum.",
  "no-face": () => "The part has no face. Draw one: begin with a shape.",
  "face-named-twice": (f) => `Two faces are called ${s(f.face)}. Give each a name of its own.`,
  "bad-outline": (f) =>
    f.why === "crossed"
      ? `The outline of ${s(f.face)} crosses itself. Move a corner so that it does not.`
      : `The outline of ${s(f.face)} has fewer than three corners. Add one.`,
  "outside-the-field": (f) => `${s(f.face)}: ${s(f.x)}, ${s(f.y)} lies off the sketch. Keep all within 0 to 100.`,
  "spot-outside": (f) => `Spot ${s(f.spot)} lies off the outline of ${s(f.face)}. Move it onto the face.`,
  "spot-named-twice": (f) => `Two spots are called ${s(f.spot)}. Give each a name of its own.`,
  "no-spot": () => "No place to read is on the sketch. Put a spot on it.",
  "empty-area": (f) => `An area on ${s(f.face)} has no size. Drag its corner, or take it off.`,
  "too-many": (f) => `There are more than ${s(f.most)} ${s(f.what)}. Take some off.`,
  "unit-unknown": () => "The file names no unit. Choose the unit below and read it again.",
  "mixed-units": (f) =>
    `The file mixes units (${Array.isArray(f.units) ? f.units.join(" and ") : ""}). Export it in one.`,
  "ambiguous-dates": (f) =>
    `“${s(f.example)}” could be day or month first, and no date in the file tells. Choose below.`,
  "mixed-dates": (f) => `Some dates are day first and some month first (like “${s(f.example)}”). Export it again.`,
  "bad-rows": () => "Some lines could not be taken, so the whole file is refused. Mend these lines and read it again:",
  "more-than-ordered": (f) =>
    `${countOf(Number(f.ordered), "piece")} ordered, and ${s(f.hung)} hung already: ${s(f.pieces)} more would be over. Check the count, or hang them all the same.`,
  "strange-readings": (f) =>
    `${s(f.count)} ${f.count === 1 ? "reading is" : "readings are"} unlike the ones beside ${f.count === 1 ? "it" : "them"}. Look at ${f.count === 1 ? "it" : "them"}, and say that ${f.count === 1 ? "it stands" : "they stand"} or mend the file; nothing was stored.`,
  "bad-oven": (f) => `${s(f.field)}: ${s(f.value)} ${s(f.why)}. Correct it and keep it again.`,
  "bad-oven-line": (f) => `Line ${s(f.line)}: “${s(f.value)}” ${s(f.why)}. Correct the line.`,
  "unknown-load": (f) => `No load ${s(f.load)} is on record for ${s(f.oven)}. Close its door first.`,
  "before-the-door": () => "That is before the oven's door was closed on this load. Correct the time.",
  "reading-needs-value": () => "A temperature is missing. Type what the instrument shows.",
  "plugs-need-count": () => "Count what came out: plugs and masks out must be plugs and masks in.",
  "no-program": () => "The oven has no set point. Give one.",
  "program-out-of-order": (f) => `The step at ${s(f.fromS)} s does not come after the one before. The first is at 0.`,
  "no-pieces": () => "No piece is in this load. Put one in.",
  "no-zones": () => "The conveyor oven has no zones. Ask a lead to set it up.",
  "never-cures": (f) =>
    `${s(f.piece)} is not cured at any speed: it gets to ${s(f.peakC)} °C. It wants hotter zones or the batch oven.`,
  "too-few-places": (f) => `A survey wants ${s(f.need)} places or more; ${s(f.got)} given.`,
  "bad-hold": (f) => `A hold from ${s(f.fromS)} s to ${s(f.toS)} s has no length. Give its start before its end.`,
  "no-rack-named": () => "The file has no column for the rack, and none was given. Type the rack it was read on.",
  "no-spot-column": () =>
    "The heading has no column for the spot. Name it “spot”, with the spots as on the part's sketch.",
  "import-stopped": () => "Stopped: nothing of the file was kept.",
  "other-site": () => "This came from another site and was refused. Send it from Sorrel's own page.",
  "not-utf-8": () => "The file is not UTF-8 text. Export it as CSV or text (UTF-8).",
  "no-racks": () => "No rack was decided on in this span. Choose a longer one.",
  "not-so-many": (f) => `${s(f.passed)} of ${s(f.racks)} racks cannot be. Count both anew.`,
  "too-many-labels": (f) => `The labels of ${s(f.of)} are more than ${s(f.most)}. Print them rack by rack.`,
  "no-paper-file": () => "No file was chosen. Choose the certificate’s PDF.",
  "not-a-paper-file": (f) => `“${s(f.name)}” is not a PDF of up to 4 MB. Choose the certificate’s PDF as it was sent.`,
  "not-checked": () => "The file could not be compared. Try again; if it stays so, tell the shop.",
  "too-large": (f) => `The file is ${s(f.megabytes)} MB; up to ${s(f.mostMegabytes)} MB is taken. Split it.`,
  "wrong-kind-of-file": (f) => `This is not a picture Sorrel takes (${s(f.found)}). Use JPEG, PNG or WebP.`,
  "cut-off-upload": () => "The file arrived incomplete. Send it again.",
  "too-few-points": (f) =>
    `${countOf(Number(f.got), "check")} since the last addition; ${s(f.need)} are needed to forecast.`,
  "equal-times": () => "All checks carry the same time; no trend can be drawn.",
  "points-away": () => "The trend points away from the limits.",
  "no-spread": () => "The last checks do not vary at all; run rules cannot be judged.",
  "too-few-values": (f) => `${countOf(Number(f.got), "value")}; ${s(f.need)} are needed.`,
  "measure-over-single": (f) =>
    `The least that can be measured out (${s(f.stepL)} L) is more than may go in at once (${s(f.maxSingleL)} L). Mend the bath's set-up.`,
  "over-freeboard": (f) =>
    `${s(f.neededL)} L do not fit: the tank has ${s(f.freeboardL)} L free. Drain first, or keep the level.`,
  "no-readings": () => "No reading yet.",
  "over-the-oven": (f) => {
    const asF = (((Number(f.setC) - 32) * 5) / 9).toFixed(0);
    return `${s(Math.round(Number(f.setC)))} °C is more than ${s(f.oven)} may be set to, ${s(f.mostC)} °C. Meant in °F it is ${asF} °C: type the set point again.`;
  },
  "rack-not-in-load": (f) => `Rack ${s(f.number)} is not in load ${s(f.load)}. Choose one of its racks.`,
  "cooling-needs-method": () => "Say how it cools: still air, a chamber, a fan or cold air.",
  "sections-missing": (f) =>
    `Under ${s(f.oven)} a piece is cured section by section: name its sections first, one a line.`,
  "lamps-one-rack": (f) => `${s(f.count)} racks are too many: lamps cure one piece at a time. Start one load for each.`,
  "unknown-section": (f) =>
    `“${s(f.section)}” is no section of this piece${Array.isArray(f.sections) && f.sections.length > 0 ? `: ${f.sections.map(s).join(", ")}` : ""}.`,
  "section-missing": () => "Say which section was read: tap it first.",
  "still-warm": (f) =>
    `The metal is still about ${Math.round(Number(f.nowC))} °C; it is packed under ${s(f.belowC)} °C. Read it and record it with load ${s(f.load)}, or accept it when it has cooled.`,
  "only-gelled": (f) =>
    f.gelled === "short"
      ? `Its primer is not gelled yet (${s(Math.round(Number(f.index)))} of 100); the top coat and its cure are still to come.`
      : `Its primer is gelled${f.gelled === "too-far" ? ", further than its sheet asks" : ""}; the top coat and its cure are still to come.`,
  "bad-gel": (f) =>
    f.cureMin !== undefined
      ? `Gel: ${s(f.mostMin)} min at ${s(f.metalC)} °C is as much heat as its whole cure (${s(Math.round(Number(f.cureMin)))} min there). Type fewer minutes.`
      : `Gel: ${s(f.leastMin)} to ${s(f.mostMin)} min is no range. Type the least and the most minutes, like 5–12.`,
  "no-live-metal-channel": () => "No live metal channel: the load's cure is not known from this trace.",
  "times-out-of-order": (f) =>
    f.years === undefined
      ? `The trace runs backwards at ${s(f.timeS)} s (after ${s(f.previousS)} s). Export it again.`
      : `${s(f.years)} years lie between the two. The later must come after the earlier: check both dates.`,
  "no-samples": () => "The trace holds no samples.",
  "wrong-password": () => "That password is not yours. Nothing was signed.",
  "wrong-sign-in": () =>
    "User name and password do not match. Check both; after several tries sign-in rests for ten minutes.",
  "too-many-tries": () => "Too many tries. Sign-in rests for ten minutes; then try again.",
  "nothing-to-add": (f) =>
    `The bath stands at ${s(f.fromPercent)} %, asked for are ${s(f.toPercent)} %: nothing to add. To go down, dilute.`,
  "nothing-to-dilute": (f) =>
    `The bath stands at ${s(f.fromPercent)} %, asked for are ${s(f.toPercent)} %: nothing to dilute. To go up, add concentrate.`,
  "concentrate-too-weak": (f) =>
    `A concentrate of ${s(f.concentratePercent)} % cannot bring the bath to ${s(f.toPercent)} %. Choose a stronger one.`,
  "make-up-too-strong": (f) =>
    `Make-up of ${s(f.makeUpPercent)} % cannot bring the bath down to ${s(f.toPercent)} %. Dilute with weaker make-up or water.`,
  "too-few-additions": (f) =>
    `${countOf(Number(f.got), "addition")} with a check before and after; ${s(f.need)} are needed to learn from. Check the bath after each addition.`,
  "no-dose": (f) => `The ${s(f.n)} additions carry no litres. Record how much was added.`,
  "compensation-out-of-reach": (f) =>
    `At ${s(f.temperatureC)} °C the conductivity cannot be turned to 25 °C. Cool the sample and read it again.`,
  "gained-mass": (f) =>
    `The panel weighs more after stripping (${s(f.afterG)} g) than before (${s(f.beforeG)} g). Dry it and weigh both again.`,
  "bad-limit": (f) => `A limit of ${s(f.limit)} cannot be. Ask a lead to mend the window in the set-up.`,
  "lengths-differ": () => "The times and the values are not equally many. Export the file again.",
  "not-finite": (f) => `${s(f.value ?? "A value")} is not a number. Read it again, and type digits.`,
  "bad-share": (f) => `${s(f.removedPercent ?? f.sharePercent)} % cannot be. Give a share from 0 to 100 %.`,
  "shares-do-not-add": (f) => `The shares of the failed area add up to ${s(f.sum)} %, not 100 %. Estimate them again.`,
  "bad-grade": (f) => `Grade ${s(f.grade)} is not on the scale. Choose 0 (worst) to 5 (untouched).`,
  "bad-lambda": (f) => `λ ${s(f.lambda)} cannot be. Choose a weight over 0, up to 1.`,
  "bad-sigma": (f) =>
    `A centre of ${s(f.centre)} with a spread of ${s(f.sigma)} gives no chart. More checks that differ are needed.`,
  "never-reaches": (f) =>
    `${s(f.toC)} °C is never reached in air of ${s(f.airC)} °C. Raise the set point, or ask for less.`,
  "too-few-samples": (f) => `${s(f.got)} samples; ${s(f.need)} are needed. Record at a shorter interval.`,
  "no-heating": (f) =>
    `The channel does not warm up (${s(f.fromC)} to ${s(f.toC)} °C). Choose one that was on metal, in the oven.`,
  "no-points": () => "The powder's sheet has no cure point. Add a temperature and its minutes in the set-up.",
  "bad-point": (f) =>
    `${s(f.minutes)} min at ${s(f.metalC)} °C cannot be a cure point. Mend it in the powder's set-up.`,
  "two-times-at-one-temperature": (f) =>
    `The sheet names ${Array.isArray(f.minutes) ? f.minutes.map(s).join(" and ") : "two times"} min at ${s(f.metalC)} °C. Keep one in the powder's set-up.`,
  "bad-activation-energy": (f) =>
    `An activation energy of ${s(f.activationKJPerMol)} kJ/mol cannot be. Give one over zero.`,
  "not-faster-when-hotter": () =>
    "By its points this powder cures no faster when hotter. Mend the sheet's points in the powder's set-up.",
  "unknown-defect": (f) => `“${s(f.defect)}” is not a defect known here. Choose one of the list.`,
  "unknown-finding": (f) => `“${s(f.finding)}” is not a finding known here. Choose one of the list.`,
  "bad-state": (f) => `${s(f.finding)} cannot be “${s(f.state)}”. Answer yes, no or not known.`,
  "no-stages": () => "The line has no stage to pass. Ask a lead to set the line up.",
  "no-shapes": () => "No shape was given to add up. Type its length, width and how many.",
  twice: (f) => `Job ${s(f.job)} stands twice in the plan. Reload the calendar.`,
  "no-working-time": () => "The site works no hours in the calendar. Set its working days and hours, at most 24 a day.",
  "no-work": (f) => `Job ${s(f.job)} has no stage left to plan.`,
  "bad-hours": (f) => `${s(f.hours)} h for ${s(f.stage)} of job ${s(f.job)} cannot be. Mend the route or the rates.`,
  "no-shifts": () => "No shift is set up. A lead adds one under Shop.",
  "bad-time": (f) => `“${s(f.text)}” is not a time of day. Type it as 06:00.`,
  "shifts-start-together": (f) => `Two shifts start at ${s(f.at)}. Give each its own start.`,
  "no-limits": () => "There is no limit to hold the values against. Give a least, a most or both.",
  "limits-crossed": (f) => `The least (${s(f.min)}) is over the most (${s(f.max)}). Turn them round.`,
  "no-values": () => "There is no value to work with yet. Record one first.",
  "bad-area": (f) => `${s(f.areaM2)} m² is not an area. Measure again, and check the unit.`,
  "bad-requirement": (f) =>
    `A film of ${[f.minUm ?? f.nominalUm, f.maxUm]
      .filter((x) => typeof x === "number")
      .map(s)
      .join(" to ")} µm cannot be asked for. Mend the job's requirement.`,
  "too-few-areas": (f) => `${s(f.got)} measuring areas; ${s(f.need)} are needed. Measure more of them.`,
  "no-areas": () => "No measuring area is set on the part yet. Place its spots first.",
  "decided-meanwhile": (f) =>
    `${s(f.by)} decided meanwhile: ${decisionWords[s(f.decision)] ?? s(f.decision)}. Reload to see it, then decide on top of it if it should change.`,
  "accept-against-verdict": (f) =>
    `It cannot be accepted as it stands: ${Array.isArray(f.items) ? f.items.join(", ") : "something"} out or not known. Hold it, or choose concession with the customer's word.`,
  "concession-unseen": (f) =>
    `A concession names each gap, and there is more open now than was on screen: ${Array.isArray(f.items) ? f.items.join(", ") : ""}. Look again and sign anew.`,
  "out-of-order": (f) => `Rack ${s(f.number)}: ${orderSaid(f.fault as OrderFault)}`,
  "trace-of-another-moment": (f) =>
    `Load ${s(f.load)} of this rack was closed at ${localMoment(new Date(s(f.doorAt)))}; this trace began at ${localMoment(new Date(s(f.startedAt)))}. If it is of that load, correct when it began; if not, name the load it is of.`,
  "trace-not-over": (f) =>
    `This trace begins at ${localMoment(new Date(s(f.startedAt)))} and runs to ${localMoment(new Date(s(f.endsAt)))}, which is still to come. Correct when it began.`,
  "faster-than-clock": (f) =>
    `The recorder ran for ${Math.round(Number(f.ranS) / 60)} min, and the door closed ${Math.round(Number(f.sinceDoorS) / 60)} min ago: a practice run is no record. Pull the load without it, or correct when the door closed.`,
  "which-load": (f) => {
    const loads = Array.isArray(f.loads) ? f.loads.map(String) : [];
    return `In ${s(f.oven)} are loads ${loads.join(" and ")}. Say which: ${s(f.oven).toLowerCase()} ${loads[0] ?? ""} melted.`;
  },
  "metal-not-ready": (f) => `Rack ${s(f.number)}: ${metalHoldSaid(f.hold as MetalHold)}`,
  "stop-first": (f) =>
    `Stop: ${(Array.isArray(f.items) ? (f.items as PreFlightItem[]) : []).map((i) => preFlightOff[i]).join("; ")}. Put it right, look again, then spray rack ${s(f.number)}.`,
  "recoat-not-ready": (f) =>
    `Rack ${s(f.number)} goes over an old film, which still asks for: ${(Array.isArray(f.asks) ? (f.asks as RecoatAsk[]) : []).map((a) => (a === "voltage-reduced" ? lowerKv(f) : recoatAskSaid[a])).join("; ")}.`,
  "first-piece-first": (f) =>
    `Rack ${s(f.number)} waits for the first of its ${s(f.every)}: rack ${s(f.first)} ${f.out ? "was out" : "is not tested yet"} (${plannedTestName(s(f.test)).toLowerCase()}). Test that one${f.out ? ", or see what went wrong," : ""} before the rest is coated.`,
  "touch-up-needs-rack": (f) => `Several racks are in load ${s(f.load)}: say which one was touched up.`,
  "not-of-this-structure": (f) => `That photo is none of ${s(f.name)}: attach it there first.`,
  "frame-too-small": () => "The frame is too small to tell anything: draw it larger.",
  "film-like-rust": () =>
    "Cannot tell: this film has the colour of rust. Type the share by eye, against the pictures of the scale.",
  "zone-empty": (f) => `${s(f.zone)}: say whether it is sound, or what was read there.`,
  "nothing-said": (f) => `Nothing was said of ${s(f.name)}: fill one field at least.`,
  "blisters-need-size": (f) =>
    `Blisters of density ${s(f.density)} want their size: 2 (seen under a glass) to 5 (over 5 mm).`,
  "longer-than-all": (f) =>
    `${s(f.rustedMm)} mm of ${s(f.ofMm)} mm cannot rust: the rusted length is longer than all of it.`,
  "nothing-followed": () => "Nothing is followed yet: visit it first.",
  "too-soon": (f) => `${s(f.days)} days apart: too soon to say how fast it grows; from ${s(f.least)} days on.`,
  "beyond-already": (f) => `It is at ${s(f.value)} already, past ${s(f.limit)}.`,
  "not-growing": () => "It is not told from standing still, so nothing is foretold.",
  "no-such-serial": (f) => `Piece ${s(f.serial)} is none of rack ${s(f.rack) || "that is not from here"}.`,
  "test-not-called": (f) =>
    `No test plan asks rack ${s(f.rack)} for ${plannedTestName(s(f.test)).toLowerCase()}: there is nothing to leave out.`,
  "open-before-oven": (f) =>
    `Rack ${s(f.number)} waits before the oven: ${(Array.isArray(f.open) ? (f.open as OpenKind[]) : []).map((k) => `${openName[k].toLowerCase()} (${openRemedy[k]})`).join("; ")}.`,
  "not-open": (f) => `Nothing of that is open on rack ${s(f.number)}. Look at the page again.`,
  "nothing-on-record": (f) =>
    `Something was found, and no defect is on record for rack ${s(f.number)}. Record the defect first, with its place.`,
  "not-saved": () => "This could not be saved just now. What you typed is kept; try again in a moment.",
};

/** The voltage typed against the most there may be over an old film. */
const lowerKv = (f: Failure) => `no more than ${s(f.mostKv)} kV by its ${s(f.by)}, and ${s(f.kv)} kV was typed`;
const recoatAskSaid: Record<Exclude<RecoatAsk, "voltage-reduced">, string> = {
  scuff: "the film scuffed (Prepare, or the pre-flight)",
  earth: "the earth read: an old film insulates the hook too",
  voltage: "the voltage it is sprayed with",
  "tape-test": "a tape test on the old film, which is not the shop’s own (Test, cross-cut, on the part)",
  photo: "a photo of the old film",
};

/** The sentence of a failure, its values in this person's units. */
export function failureText(failure: Failure, units: UnitSystem = "metric"): string {
  return sentences[failure.kind]?.(failure, units) ?? `Refused: ${failure.kind.replaceAll("-", " ")}.`;
}

/** A limit of the shop by its own name; what else was typed by the name it was sent under. */
function fieldSaid(field: string): string {
  const last = field.slice(field.lastIndexOf(".") + 1);
  return Object.hasOwn(siteLimits, last) ? siteLimits[last as SiteLimitName].label : field;
}
