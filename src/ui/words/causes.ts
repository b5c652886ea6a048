import type { Part } from "@/core/diagnosis";
import type { TiedTo } from "@/core/kinds";

/** What a cause is in a chain, in words. */
export const partName: Readonly<Record<Part, string>> = {
  root: "stood behind it",
  mechanism: "did it to the film",
  condition: "let it happen",
  trigger: "set it off",
};
export const tiedToName: Readonly<Record<TiedTo, string>> = {
  "setup-sheet": "A set-up sheet",
  "bath-window": "A bath’s window",
  interval: "The interval of a task",
  training: "Training of people",
  part: "The part itself",
  other: "Something else",
};

/** A name inside a sentence: its first letter small, unless it is a short form. */
export const causeShort = (label: string): string =>
  /^[A-Z]{2}/.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1);

/** How likely it is to act: “83 in 100”. */
export const strengthSaid = (strength: number): string =>
  strength < 0.01 ? "under 1 in 100" : strength > 0.99 ? "over 99 in 100" : `${Math.round(strength * 100)} in 100`;
