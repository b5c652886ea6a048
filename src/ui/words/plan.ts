import {
  type CoatingSystem,
  type Equipment,
  type ExpectedLife,
  type Exposure,
  type Family,
  type FitAt,
  type MarkKind,
  notSized,
  type OutsideWork,
  type PartFeature,
  type Protection,
  type RouteCheck,
  type RouteCode,
  type RouteParameter,
  type Substrate,
} from "@/core/plan";
import type { UnitSystem } from "@/core/units";
import type { VerdictResult } from "@/core/verdict";
import { figure, plainly } from "../format";

export const substrateName: Record<Substrate, string> = {
  "hot-rolled-steel": "hot-rolled steel",
  "cold-rolled-steel": "cold-rolled steel",
  "cast-aluminium": "cast aluminium",
  "cast-iron": "cast iron",
  aluminium: "aluminium",
  galvanised: "galvanised steel",
  stainless: "stainless steel",
};
export const exposureName: Record<Exposure, string> = {
  indoor: "indoors",
  weather: "weather",
  sun: "full sun",
  coast: "coast",
  salt: "road salt",
  "standing-water": "standing water or snow",
  knocks: "knocks",
  heat: "heat",
  chemicals: "chemicals, cleaning",
};
export const featureName: Record<PartFeature, string> = {
  "thermal-cut-edges": "laser or plasma cut",
  "sharp-edges": "sharp edges",
  "open-lap-seam": "open laps",
  "hollow-section": "hollow",
  "no-drain-holes": "no drain holes",
  "deep-recess": "deep recess",
  "fit-surface": "fits",
  threads: "threads",
  "rubber-or-seals": "rubber, seals, bearings, grease or plastic in it",
  hinges: "hinges",
  "heat-treated": "heat-treated or tempered",
  tumbled: "tumbled to deburr",
  "open-frame": "open frame",
};
export const familyName: Record<Family, string> = {
  polyester: "polyester",
  "polyester-tgic-free": "polyester, TGIC-free",
  "polyester-high-weathering": "polyester, high weathering",
  polyurethane: "polyurethane",
  fluoropolymer: "fluoropolymer",
  epoxy: "epoxy",
  hybrid: "indoor hybrid",
  acrylic: "acrylic",
  silicone: "silicone",
};
/**
 * A fit as a verdict: "fits" only where every room's size is set up; else why it is not known. `spareMm` is the least room
 * left in those that are, null where the part passes no way.
 */
export function fitSaid(spareMm: number | null, unsized: ReturnType<typeof notSized>, units: UnitSystem): FitSaid {
  if (spareMm === null) return { result: "out", words: "Does not fit", why: null };
  if (unsized.nothing) return { result: "unknown", words: "Fit not known", why: "no room’s size is set up" };
  const spare = `${plainly(spareMm, "distance", units)} to spare`;
  if (unsized.names.length === 0) return { result: "in", words: `Fits, ${spare}`, why: null };
  return {
    result: "unknown",
    words: "Fit not known",
    why: `${spare} where a size is set up; it is not for ${unsized.names.join(", ")}`,
  };
}
export type FitSaid = { readonly result: VerdictResult; readonly words: string; readonly why: string | null };
/** A place's room for a part turned one way, and what that comes to. */
export function fitAtSaid(
  at: FitAt,
  place: Equipment,
  units: UnitSystem,
): { readonly result: VerdictResult; readonly words: string } {
  if (at.overKg !== null) return { result: "out", words: `${massSaid(at.overKg, units)} over` };
  if (at.clearanceMm !== null)
    return { result: at.fits ? "in" : "out", words: plainly(at.clearanceMm, "distance", units) };
  if (notSized([place]).names.length > 0) return { result: "unknown", words: "size not set up" };
  return place.mostKg === null
    ? { result: "unknown", words: "load not set up" }
    : { result: "in", words: "carries it" };
}
const massSaid = (kg: number, units: UnitSystem): string => plainly(kg, "mass", units);
/** What keeps a part out of a place, with by how much. */
export const keptOut = ({ overKg, clearanceMm, tight }: FitAt, units: UnitSystem): string =>
  overKg !== null
    ? `${massSaid(overKg, units)} too heavy`
    : `${plainly(Math.abs(clearanceMm ?? 0), "distance", units)} too ${{ along: "long", across: "deep", up: "tall", mass: "heavy" }[tight ?? "up"]}`;
export const markName: Record<MarkKind, string> = {
  hang: "hang",
  mask: "mask",
  plug: "plug",
  rest: "rest",
  drain: "drain",
  earth: "earth",
  pitting: "pitting",
  "centre-of-mass": "centre of mass",
};
/** Options by the code that risks and routes know them by: what is offered, in the words of an offer. */
export const optionName: Record<string, string> = {
  blast: "Blast to a profile",
  "zinc-primer": "Zinc barrier primer",
  "seam-seal": "Seam sealer on laps",
  "edge-breaking": "Edges broken and dressed",
  "higher-grade": "High-weathering powder",
  "outgas-bake": "Outgassing bake",
  "two-coats": "Second coat",
  "test-panels": "Test panels with the job",
  "sample-approval": "Colour and finish sample approved",
  "hand-finish": "Hand finishing after cure",
  "texture-finish": "Texture finish",
  strip: "Old coating stripped",
  "drain-holes": "Drain holes drilled",
  masking: "Masks and plugs",
  grind: "Spatter ground off",
  "longer-dry-off": "Longer dry-off, blown out",
  "conversion-coat": "Conversion coat",
  zirconium: "Zirconium conversion",
  "load-plan": "Load planned by mass",
  "recess-set-up": "Recess set-up at the gun",
  "seals-out": "Seals and rubber taken out",
  degrease: "Degreased before anything",
  scuff: "Scuff between coats",
  "gel-primer": "Primer gelled, not full-cured",
  "heat-resin": "Heat-resisting resin",
  "polyester-top": "Polyester as the outer coat",
  "sweep-blast": "Sweep blast",
  "other-clear": "Polyester clear in place of acrylic",
  "makers-word": "The maker’s word on heat",
  "weld-repair": "Weld repaired, found after blasting",
};
/** What a cheaper or better system does differently. */
export const outsideName: Record<OutsideWork, string> = {
  blast: "blasting",
  "iron-phosphate": "iron phosphate",
  zirconium: "zirconium",
  wash: "a wash",
};
export const changeName: Record<string, string> = {
  "no-primer": "Leaves out the primer",
  "standard-grade": "Standard weathering grade",
  "no-seam-seal": "Leaves the laps open",
  "sanded-not-blasted": "Sanded, not blasted",
  "edges-as-cut": "Edges as cut",
  "high-weathering-for-fluoropolymer": "High-weathering polyester for fluoropolymer",
  "zinc-primer": "Adds a zinc primer on blasted metal",
  "higher-grade": "High-weathering grade",
  fluoropolymer: "Fluoropolymer",
  blast: "Blasts first",
  "second-coat": "Adds a second coat",
};
export const preparationName = { blast: "blasted", sand: "sanded", wipe: "wiped" } as const;
export const pretreatmentName = {
  none: "no wash",
  wash: "washed",
  "iron-phosphate": "iron phosphate",
  zirconium: "zirconium",
} as const;
export const curingName = {
  "one-cure": "one cure",
  "primer-gelled": "primer gelled, then cured with the top",
  "dry-on-dry": "dry on dry, one cure",
  "two-full-cures": "two full cures, scuffed between",
} as const;

/** A system in one line a coater would say. */
export const systemText = (s: CoatingSystem): string =>
  [
    `${preparationName[s.preparation]}${s.breakEdges ? ", edges broken" : ""}`,
    pretreatmentName[s.pretreatment],
    ...(s.outgas ? ["outgassed"] : []),
    ...(s.sealSeams ? ["seams sealed"] : []),
    ...(s.primer === "none" ? [] : [`${s.primer} primer`]),
    `${s.coats > 1 ? `${s.coats} coats of ` : ""}${familyName[s.family]}`,
  ].join(" · ");

export const protectionName: Record<Protection, string> = {
  primed: "a primer",
  blasted: "blasted metal, no primer",
  light: "washed or sanded metal, no primer",
  bare: "metal that was only wiped, or old scale",
};

const year = (n: number) => (n < 1 ? `${Math.round(n * 12)} months` : `${Math.round(n * 10) / 10}`);
export const lifeText = (life: ExpectedLife): string =>
  life.years.to < 1
    ? `${year(life.years.from)} to ${year(life.years.to)}`
    : `${life.years.from < 1 ? year(life.years.from) : Math.round(life.years.from * 10) / 10} to ${year(life.years.to)} years`;

export const refusalText: Record<string, string> = {
  "epoxy-outer-in-daylight": "Epoxy as the outer coat chalks within months in daylight. Use polyester on top.",
  "hybrid-outdoors": "An indoor hybrid chalks outdoors within a year or two, whatever is said of it. Use polyester.",
  "too-thick-for-family": "This film is thicker than the resin takes in one coat: it pops or cracks. Use two coats.",
  "heat-above-resin": "The service is hotter than this resin stands. Use silicone.",
  "heat-above-primer":
    "The service is hotter than a primer stands: it lets go under the top coat. Leave the primer out.",
  "bake-takes-strength":
    "Heat-treated aluminium can lose its strength in a bake hotter than its cure. Leave the outgassing bake out, or have its maker's word first.",
  "rubber-in-oven": "Rubber or seals are still in it: they burn or harden. They come out first.",
  "primer-cured-unscuffed": "A full-cured primer holds no top coat unless it is scuffed. Gel the primer, or scuff it.",
  "undrained-hollow":
    "A hollow section without drain holes keeps wash water that boils out in the oven. Drill it first.",
};

export const routeName: Record<RouteCode, string> = {
  "hold-for-part": "Hold",
  "seals-out": "Seals and rubber out",
  "test-old-coating": "Test the old coating",
  strip: "Strip old coating",
  degrease: "Degrease",
  grind: "Grind spatter",
  "extra-wash": "Wash the tumbling compound off",
  "break-edges": "Break edges",
  blast: "Blast",
  sand: "Sand to an even scratch",
  "look-over": "Look it over, bare",
  "blow-off": "Blow off",
  wash: "Wash",
  conversion: "Conversion coat",
  rinse: "Rinse",
  "dry-off": "Dry off",
  "seam-seal": "Seal laps",
  "outgas-bake": "Outgassing bake",
  "solvent-wipe": "Solvent wipe, gloves from here",
  "masks-in": "Masks and plugs in",
  primer: "Primer",
  "gel-primer": "Gel the primer",
  "cure-primer": "Cure the primer",
  scuff: "Scuff",
  "top-coat": "Top coat",
  cure: "Cure",
  "plugs-out": "Masks and plugs out",
  film: "Film thickness",
  adhesion: "Cross-cut with tape",
  rub: "Solvent rub",
  "hand-finish": "Hand finishing",
  lacquer: "Lacquer",
  release: "Release",
  "wipe-off": "Wipe the powder off",
  "touch-up": "Touch up the places on the list",
};
export const checkName: Record<RouteCheck, string> = {
  profile: "profile by tape or probe",
  dust: "dust on tape",
  "water-film": "water film holds",
  "contact-time": "contact time",
  "dry-inside": "dry inside: tubes and laps blown",
  "metal-temperature": "metal temperature, by probe",
  earth: "part to earth",
  "lot-in-date": "lot right and in date",
  film: "by rule, every planned spot",
  "cross-cut": "on the panel",
  rub: "against the known-cured panel",
  "count-in": "counted in",
  "count-out": "counted out",
  appearance: "verdict of the whole, signed",
  "against-sample": "looked at in slanting light, against the agreed sample",
  "layer-bond": "cross-cut through lacquer and powder, on a panel",
  "pitting-told": "customer told of pits before going on",
  "lead-and-chromate": "for lead and chromate, or held and treated as such, before it is blasted or burnt",
  "non-ferrous-media": "non-ferrous media, or a sweep: never steel grit or shot",
  "less-voltage": "less voltage: the old film insulates",
  "makers-word-on-heat": "its maker’s word on heat first: heat-treated metal loses strength",
};
export const money = (amount: number, currency: string): string =>
  currency
    ? new Intl.NumberFormat("en-GB", {
        style: "currency",
        currency,
        maximumFractionDigits: amount < 100 ? 2 : 0,
      }).format(amount)
    : amount.toFixed(2);

/** A parameter of the card with its limits, in this person's units. */
export function parameterText(p: RouteParameter, units: UnitSystem): string {
  const value = (n: number): string =>
    p.unit === "µm"
      ? figure(n, "thickness", units).text
      : p.unit === "°C"
        ? figure(n, "temperature", units).text
        : String(Math.round(n * 10) / 10);
  const unit =
    p.unit === "µm"
      ? figure(0, "thickness", units).unit
      : p.unit === "°C"
        ? figure(0, "temperature", units).unit
        : p.unit;
  const said =
    p.lower !== null && p.upper !== null
      ? p.lower === p.upper
        ? value(p.lower)
        : `${value(p.lower)}–${value(p.upper)}`
      : p.lower !== null
        ? `at least ${value(p.lower)}`
        : `up to ${value(p.upper ?? 0)}`;
  return `${p.name} ${said} ${unit}`.trim();
}

/** What customers ask again and again, answered shortly; data sheets, local codes and licensed practice come first. */
export const questions: readonly (readonly [string, string])[] = [
  [
    "Must it be blasted?",
    "Outdoors, and wherever there is scale, rust or an old coat: yes, or its edges go within a year or so. Bright sheet indoors does with a wash.",
  ],
  [
    "Can you coat over what is on it?",
    "Over a known sound coat, scuffed, at lower voltage, and the thinner the better. Over a coat nobody knows: no, it comes off first.",
  ],
  [
    "Can it be baked in a kitchen oven?",
    "Never in one that will cook food again. Fumes and hot parts want an oven for this alone, never left by itself.",
  ],
  [
    "Does longer in the oven do harm?",
    "Yes: clears and metallics yellow first, then colours dull and the film goes brittle. The sheet has an upper limit too.",
  ],
  [
    "Will a heat lamp or a torch do instead of an oven?",
    "A lamp that holds the metal at the sheet's temperature for its time, measured, can; a flame cannot: it burns the film in one place and leaves the next uncured.",
  ],
  [
    "How long will it last?",
    "A range, by metal, system and place, never a promise. A standard grade is promised for about a year of colour; edges and seams go first.",
  ],
  [
    "Why pay for a wash that nobody sees?",
    "It costs the least of all steps, and without it rust creeps under the film from the first break.",
  ],
];
