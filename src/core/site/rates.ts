/** A rate a price is made of: what it is, its unit, what a shop without figures of its own may begin with, and why. */
export type SiteRate = {
  readonly label: string;
  /** "¤" stands for the shop's currency. */
  readonly unit: string;
  readonly usual: number;
  readonly least: number;
  readonly most: number;
  readonly source: string;
};
const rate = (
  label: string,
  unit: string,
  usual: number,
  [least, most]: readonly [number, number],
  source: string,
): SiteRate => ({ label, unit, usual, least, most, source });

const OWN = "from your own books";
const PACE = "timed on your own line";
export const siteRates = {
  labourPerHour: rate("Labour", "¤/h", 30, [0, 10_000], OWN),
  handlingMinPerPiece: rate("Hanging and taking off", "min a piece", 3, [0, 600], PACE),
  handFinishMinPerStep: rate("Finishing by hand", "min a step and piece", 12, [0, 600], PACE),
  blastM2PerHour: rate("Blasting goes", "m²/h", 9, [0.1, 1000], PACE),
  blastPerHour: rate("Blast room, beside labour", "¤/h", 24, [0, 10_000], OWN),
  sandM2PerHour: rate("Sanding goes", "m²/h", 8, [0.1, 1000], PACE),
  stripM2PerHour: rate("Stripping goes", "m²/h", 3, [0.1, 1000], PACE),
  stripPerM2: rate("Stripper", "¤/m²", 9, [0, 10_000], OWN),
  edgeMPerHour: rate("Breaking edges goes", "m/h", 18, [0.1, 1000], PACE),
  washM2PerHour: rate("Washing goes", "m²/h", 45, [0.1, 10_000], PACE),
  washPerHour: rate("Washer, with chemicals", "¤/h", 60, [0, 10_000], OWN),
  sealMPerHour: rate("Sealing laps goes", "m/h", 12, [0.1, 1000], PACE),
  sealerPerM: rate("Sealer", "¤/m", 2.5, [0, 1000], OWN),
  sprayM2PerHour: rate("Spraying goes", "m²/h", 28, [0.1, 10_000], PACE),
  transferEfficiency: rate(
    "Powder that stays on the part",
    "share",
    0.6,
    [0.05, 1],
    "0.4 to 0.7 is common; weigh yours",
  ),
  powderLoss: rate("Powder lost at each change", "share", 0.05, [0, 0.9], "0.03 to 0.1 is common; weigh yours"),
  ovenPerHour: rate("Batch oven", "¤/h", 45, [0, 10_000], OWN),
  conveyorPerHour: rate("Conveyor oven", "¤/h", 75, [0, 10_000], OWN),
  marginPercent: rate("Margin", "%", 25, [0, 500], OWN),
} as const;
export type SiteRateName = keyof typeof siteRates;
export const siteRateNames = Object.keys(siteRates) as readonly SiteRateName[];
/** Currencies by ISO 4217 that a price can be in. */
export const currencies = [
  "EUR",
  "GBP",
  "USD",
  "CAD",
  "AUD",
  "NZD",
  "CHF",
  "SEK",
  "NOK",
  "DKK",
  "PLN",
  "CZK",
  "HUF",
  "RON",
  "TRY",
  "INR",
  "ZAR",
  "BRL",
  "MXN",
  "JPY",
] as const;
