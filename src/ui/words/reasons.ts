import type { BakeReason, BakeVerdict } from "@/core/cure";
import { type BaseCorrection, type FilmReason, type FilmRequirement, filmAsked } from "@/core/thickness";
import { quantities, type UnitSystem } from "@/core/units";
import type { VerdictResult } from "@/core/verdict";
import type { FoundWhat } from "@/server/causes/findings-from-record";
import { figure, minutesSeconds, withUnit } from "../format";

/** What was taken off for the metal under the film, named on the verdict. */
export function baseTaken(base: BaseCorrection, units: UnitSystem): string {
  if (base.kind === "none") return "";
  const um = withUnit(base.um, "thickness", units);
  return base.kind === "base-readings"
    ? `; ${um} of bare metal taken off (${base.n} bare readings)`
    : `; ${um} taken off for ${base.profile === "unknown" ? "an unknown" : `a ${base.profile}`} blast profile, by rule`;
}

type Said = { readonly result: VerdictResult; readonly word: string; readonly text: string; readonly figure: string };

/** A film with two digits more than it is usually shown with. */
const figureFine = (um: number, units: UnitSystem): string =>
  units === "us" ? quantities.thickness.toUs(um).toFixed(4) : um.toFixed(3);

/** What is asked of a film in a line: the limits and the rule that judges them. */
export function filmRequired(film: FilmRequirement, units: UnitSystem): string {
  const { minUm, maxUm } = filmAsked(film);
  const um = (x: number) => withUnit(x, "thickness", units);
  const most = maxUm === null ? "" : ` to ${um(maxUm)}`;
  if (film.rule === "nominal") return `nominal ${um(minUm)}${maxUm === null ? "" : `, at most ${um(maxUm)}`}`;
  const least = maxUm === null ? `at least ${um(minUm)}` : `${um(minUm)}${most}`;
  return film.rule === "spot-area"
    ? `${least}, spot and area rule, level ${film.level}`
    : `${least}, by measuring areas`;
}

export function filmReason(reason: FilmReason, units: UnitSystem): Said {
  const um = (value: number) => figure(value, "thickness", units).text;
  /** Value against limit; with the digits it takes to tell them apart. */
  const against = (value: number, sign: "<" | ">", limit: number) =>
    um(value) === um(limit)
      ? `${figureFine(value, units)} ${sign} ${figureFine(limit, units)} ${quantities.thickness[units]}`
      : `${um(value)} ${sign} ${withUnit(limit, "thickness", units)}`;
  switch (reason.kind) {
    case "area-mean-low":
      return {
        result: "out",
        word: "Thin",
        text: "The mean of the piece is under the minimum",
        figure: against(reason.meanUm, "<", reason.limitUm),
      };
    case "area-mean-high":
      return {
        result: "out",
        word: "Thick",
        text: "The mean of the piece is over the maximum",
        figure: against(reason.meanUm, ">", reason.limitUm),
      };
    case "spot-too-thin":
      return {
        result: "out",
        word: "Too thin",
        text: `${reason.spot} is under the lowest spot allowed`,
        figure: against(reason.meanUm, "<", reason.limitUm),
      };
    case "spot-too-thick":
      return {
        result: "out",
        word: "Too thick",
        text: `${reason.spot} is over the highest spot allowed`,
        figure: against(reason.meanUm, ">", reason.limitUm),
      };
    case "spot-thin":
      return {
        result: "watch",
        word: "Thin",
        text: `${reason.spot} is under the minimum, inside what a single spot may be`,
        figure: against(reason.meanUm, "<", reason.limitUm),
      };
    case "spot-thick":
      return {
        result: "watch",
        word: "Thick",
        text: `${reason.spot} is over the maximum, inside what a single spot may be`,
        figure: against(reason.meanUm, ">", reason.limitUm),
      };
    case "spot-unread":
      return { result: "unknown", word: "Open", text: `${reason.spot} not read: three readings to go`, figure: "–" };
    case "few-readings":
      return {
        result: "watch",
        word: "Few",
        text: `${reason.spot} has fewer than three readings`,
        figure: `${reason.got} of ${reason.need}`,
      };
    case "mean-below-nominal":
      return {
        result: "out",
        word: "Thin",
        text: "The mean is under the nominal",
        figure: against(reason.meanUm, "<", reason.nominalUm),
      };
    case "reading-below-80-percent":
      return {
        result: "out",
        word: "Too thin",
        text: `A reading at ${reason.spot} is under 80 % of the nominal`,
        figure: against(reason.valueUm, "<", reason.limitUm),
      };
    case "reading-above-max":
      return {
        result: "out",
        word: "Too thick",
        text: `A reading at ${reason.spot} is over the maximum`,
        figure: against(reason.valueUm, ">", reason.limitUm),
      };
    case "too-many-between-80-and-100-percent":
      return {
        result: "out",
        word: "Thin",
        text: "A fifth or more of the readings lie between 80 and 100 % of the nominal",
        figure: `${reason.count} of ${reason.of}`,
      };
    case "some-between-80-and-100-percent":
      return {
        result: "watch",
        word: "Thin",
        text: "Readings between 80 and 100 % of the nominal, fewer than a fifth",
        figure: `${reason.count} of ${reason.of}`,
      };
    case "areas-mean-low":
      return {
        result: "out",
        word: "Thin",
        text: "The mean of the areas is under the minimum",
        figure: against(reason.meanUm, "<", reason.limitUm),
      };
    case "areas-mean-high":
      return {
        result: "out",
        word: "Thick",
        text: "The mean of the areas is over the maximum",
        figure: against(reason.meanUm, ">", reason.limitUm),
      };
    case "area-below-80-percent":
      return {
        result: "out",
        word: "Too thin",
        text: `Area ${reason.spot} is under 80 % of the minimum`,
        figure: against(reason.meanUm, "<", reason.limitUm),
      };
    case "area-thin":
      return {
        result: "watch",
        word: "Thin",
        text: `Area ${reason.spot} is under the minimum, inside what a single area may be`,
        figure: against(reason.meanUm, "<", reason.limitUm),
      };
    case "too-few-read":
      return {
        result: "unknown",
        word: "Too few",
        text: `The rule asks for ${reason.asked} ${reason.what}`,
        figure: `${reason.read} of ${reason.asked}`,
      };
  }
}

/** What a sheet asks is mostly whole minutes. */
const wholeMinutes = (s: number): string => (s % 60 === 0 ? `${s / 60} min` : minutesSeconds(s));

export function bakeReason(reason: BakeReason, units: UnitSystem): Said {
  const index = (x: number) => x.toFixed(0);
  switch (reason.kind) {
    case "index-met":
      return {
        result: "in",
        word: "Cured",
        text: `Lowest index, on ${reason.channel}; 100 is just cured`,
        figure: index(reason.index),
      };
    case "index-short":
      return {
        result: "out",
        word: "Short",
        text: `${reason.channel} has not earned its cure; 100 is just cured`,
        figure: index(reason.index),
      };
    case "hold-met":
      return {
        result: "in",
        word: "Held",
        text: `${reason.channel} at ${withUnit(reason.atC, "temperature", units)} or above for ${minutesSeconds(reason.longestS)}`,
        figure: `of ${wholeMinutes(reason.neededS)}`,
      };
    case "hold-short":
      return {
        result: "watch",
        word: "Hold short",
        text: `${reason.channel} at ${withUnit(reason.atC, "temperature", units)} or above for ${minutesSeconds(reason.longestS)}`,
        figure: `of ${wholeMinutes(reason.neededS)}`,
      };
    case "only-index-met":
      return {
        result: "watch",
        word: "Index only",
        text: `On ${reason.channel} the index is met, no sheet hold is: the heat was spread over lower temperatures`,
        figure: index(reason.index),
      };
    case "only-hold-met":
      return {
        result: "watch",
        word: "Hold only",
        text: `On ${reason.channel} a sheet hold is met, the index is not`,
        figure: index(reason.index),
      };
    case "overbaked":
      return {
        result: "out",
        word: "Over-baked",
        text: `${reason.channel} is past the over-bake limit`,
        figure: index(reason.index),
      };
    case "overbake-unknown-in-gap":
      return {
        result: "unknown",
        word: "Over-bake?",
        text: `If ${reason.channel} stayed hot through the gap it is past the over-bake limit`,
        figure: index(reason.index),
      };
    case "channel-dead":
      return {
        result: "unknown",
        word: "Dead",
        text: `${reason.channel} gives no number from ${minutesSeconds(reason.fromS)} on; its place is not known`,
        figure: "–",
      };
    case "gap":
      return {
        result: "unknown",
        word: "Gap",
        text: `${reason.channel} has no samples from ${minutesSeconds(reason.fromS)} to ${minutesSeconds(reason.toS)}; the gap adds nothing`,
        figure: "–",
      };
    case "extrapolated":
      return {
        result: "watch",
        word: "Beyond sheet",
        text: `${(100 * reason.share).toFixed(0)} % of the index was earned more than 15 °C outside the sheet's points`,
        figure: "",
      };
    case "overbake-unknown-dark":
      return {
        result: "watch",
        word: "Over-bake?",
        text: `Where ${reason.channel} hung nobody knows how hot it got: over-bake is not ruled out there`,
        figure: "–",
      };
    case "recorded-until":
      return {
        result: "unknown",
        word: "Recorded until",
        text: `${reason.channel} is on record until ${minutesSeconds(reason.untilS)}, the pull was at ${minutesSeconds(reason.pullS)}: what followed is not known`,
        figure: "–",
      };
    case "section-unread":
      return {
        result: "unknown",
        word: "Not read",
        text: `${reason.channel} was never read twice within five minutes: its cure is not known`,
        figure: "–",
      };
    case "assumed-activation-energy":
      return {
        result: "watch",
        word: "Assumed",
        text: "The sheet gives one point only; 80 kJ/mol is assumed",
        figure: "",
      };
  }
}

/** What makes a bake's verdict: the first of its reasons that says the same result. */
export function bakeInShort(verdict: BakeVerdict, units: UnitSystem): Said {
  const said = verdict.reasons.map((reason) => bakeReason(reason, units));
  const first = said.find((s) => s.result === verdict.result) ?? (said[0] as Said);
  return verdict.result === "in" ? { ...first, word: "Cured" } : first;
}

/** What the record holds about a finding. */
export function foundText(what: FoundWhat): string {
  switch (what.kind) {
    case "never-recorded":
      return "never recorded";
    case "not-called-for":
      return "not called for on this metal";
    case "job-says":
      return what.feature
        ? `${what.feature.replaceAll("-", " ")}: by the part's description`
        : what.substrate.replaceAll("-", " ");
    case "seen":
      return what.what;
    case "done":
      return `${what.step.replaceAll("-", " ")} done`;
    case "not-done":
      return `${what.step.replaceAll("-", " ")}: none`;
    case "option-declined":
      return `${what.what} declined by ${what.by} on ${what.on}`;
    case "exposure":
      return what.exposure.length ? what.exposure.join(", ").replaceAll("-", " ") : "none named";
    case "value": {
      const digits = Math.abs(what.value) < 10 ? 2 : Math.abs(what.value) < 100 ? 1 : 0;
      const limits =
        what.lower !== null && what.upper !== null
          ? ` on ${what.lower}–${what.upper}`
          : what.upper !== null
            ? ` (limit ${what.upper})`
            : what.lower !== null
              ? ` (at least ${what.lower})`
              : "";
      return `${what.quantity} ${what.value.toFixed(digits)}${what.unit ? ` ${what.unit}` : ""}${limits}${what.where ? `, ${what.where}` : ""}`;
    }
  }
}

export const runRuleWords: Record<string, string> = {
  1: "one beyond 3σ",
  2: "nine in a row on one side",
  3: "six in a row rising or falling",
  4: "fourteen alternating",
  5: "two of three beyond 2σ",
  6: "four of five beyond 1σ",
  7: "fifteen in a row within 1σ",
  8: "eight in a row beyond 1σ",
};
export const stageNames: Record<string, string> = {
  plan: "Plan",
  prepare: "Prepare",
  pretreat: "Pretreat",
  coat: "Coat",
  cure: "Cure",
  test: "Test",
  release: "Release",
  field: "Field",
};
