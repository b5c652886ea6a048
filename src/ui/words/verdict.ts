import { type FaultsOfFace, subKindOf } from "@/core/bench";
import type { OverSheet } from "@/core/thickness";
import type { UnitSystem } from "@/core/units";
import type { NotAsked, VerdictItem } from "@/server/rack/judge-rack";
import { countOf, minutesSeconds, withUnit } from "../format";
import { bathValue, bathWindow, parameterName } from "./baths";
import { cureTestName, cureTestValue } from "./bench";
import { failureText } from "./failures";
import { openSaid } from "./open";
import { dryOffReason, prepStepName } from "./preparation";
import { bakeInShort, baseTaken, filmReason } from "./reasons";
import { callSaid } from "./test-plan";

const itemNames: Record<Exclude<VerdictItem["item"], "test" | "contact">, string> = {
  film: "Film",
  cure: "Cure",
  adhesion: "Adhesion",
  rub: "Solvent rub",
  steps: "Preparation",
  outgassing: "Outgassing bake",
  pretreatment: "Pretreatment",
  "dry-off": "Dry-off",
  appearance: "Look",
  fits: "Threads and fits",
  open: "Open",
};
export const itemName = (item: VerdictItem): string =>
  item.item === "test"
    ? cureTestName[item.test]
    : item.item === "contact"
      ? `Time in ${item.stage.replaceAll("-", " ")}`
      : itemNames[item.item];
/** An item by the key it is kept under: “test:impact”, “contact:conversion”, “film”. */
export const keyName = (key: string): string => {
  const [item = "", of = ""] = key.split(":");
  if (item === "test") return cureTestName[of as keyof typeof cureTestName] ?? of;
  return item === "contact"
    ? `Time in ${of.replaceAll("-", " ")}`
    : (itemNames[item as keyof typeof itemNames] ?? item);
};
export const resultName: Record<string, string> = { in: "In", out: "Out", watch: "Watch", unknown: "Not known" };
export const notAskedName = (what: NotAsked): string =>
  what === "rub" ? "Solvent rub" : what === "appearance" ? "Look" : cureTestName[what];
/** What keeps a rack from being released, in words. */
export const itemOut = (item: VerdictItem | null): string =>
  item === null ? "Evidence missing" : item.item === "appearance" ? "Defect on record" : `${itemName(item)} is out`;

/** Names in a row: “Film, Adhesion and Look”. */
export const namesOf = (items: readonly VerdictItem[]): string => {
  const names = items.map(itemName);
  return names.length > 1 ? `${names.slice(0, -1).join(", ")} and ${names.at(-1)}` : (names[0] ?? "");
};

const range = (lower: string | null, upper: string | null): string =>
  lower !== null && upper !== null
    ? `${lower} to ${upper} asked for`
    : lower !== null
      ? `${lower} or more asked for`
      : upper !== null
        ? `${upper} or less asked for`
        : "nothing asked for";

/** A fault by its name and kind: “orange peel, coarse, wavy”. */
export const faultName = (defect: string, sub: string | null | undefined): string => {
  const kind = subKindOf(defect, sub);
  return `${defect.replaceAll("-", " ")}${kind ? `, ${kind.label}` : ""}`;
};
type Looked = Extract<VerdictItem, { item: "appearance" }>;
const pieces = ({ affected, seen }: Looked): string =>
  affected !== null ? ` on ${affected} of ${seen ?? "?"} pieces` : "";
const faultSaid = (f: FaultsOfFace): string =>
  `${f.face === null ? "not placed" : `face ${f.face}`}, zone ${f.zone}: ${countOf(f.count, "fault")}${f.largestMm === null ? ", not measured" : ` to ${f.largestMm} mm`}, ${f.most === 0 ? "none passes" : `${f.most} to ${f.largestAllowedMm} mm pass`}`;
const beyond = (faults: Looked["faults"] = []): string => {
  const out = faults.filter((f) => f.result === "out");
  return out.length > 0 ? `; ${out.map(faultSaid).join("; ")}` : "";
};
const classes = ({ faults = [], touchedUp = 0 }: Looked): string =>
  [...faults.map(faultSaid), ...(touchedUp > 0 ? [`${touchedUp} touched up`] : [])].join("; ");

const overSaid = (over: OverSheet | null, units: UnitSystem): string =>
  over === null
    ? ""
    : `; ${withUnit(over.um, "thickness", units)} at ${over.spot} is over the ${withUnit(over.limitUm, "thickness", units)} its sheet bears ${over.kind === "one-coat" ? "in one coat" : "in all"}`;

/** Racks by number; those of other customers are told by how many. */
const racksSaid = (racks: readonly (string | null)[]): string => {
  const named = racks.filter((r) => r !== null);
  const others = racks.length - named.length;
  return [
    ...(named.length > 0 ? [`${named.length === 1 ? "rack" : "racks"} ${named.join(", ")}`] : []),
    ...(others > 0 ? [countOf(others, "other rack")] : []),
  ].join(" and ");
};

/** One item of a rack's verdict in a line a coater would say, with its word, and how a test plan had it. */
export function itemSentence(item: VerdictItem, units: UnitSystem): { word: string; text: string } {
  const own = itemOwn(item, units);
  const { plan } = item;
  if (!plan) return own;
  switch (plan.by) {
    case "itself":
      return plan.level === "tightened" ? { ...own, text: `${own.text}; ${callSaid(plan)}` } : own;
    case "sample":
      return {
        word: `${own.word}, by sample`,
        text: `${own.text}; read on ${racksSaid(plan.racks)}: ${callSaid(plan)}`,
      };
    case "skipped":
      return { word: "Left out", text: `Left out by ${plan.skipped?.by ?? ""}: ${plan.skipped?.reason ?? ""}` };
    case "sample-out":
      return { word: "Test it", text: `The sample, ${racksSaid(plan.racks)}, was out: this one is tested itself` };
    case "open":
      return plan.asked
        ? { ...own, text: `${own.text}; ${callSaid(plan)}` }
        : {
            word: "Waits for its sample",
            text: `Waits for ${racksSaid(plan.racks) || "its sample"}: ${callSaid(plan)}`,
          };
  }
}

function itemOwn(item: VerdictItem, units: UnitSystem): { word: string; text: string } {
  switch (item.item) {
    case "film": {
      if (item.failure) return { word: "Open", text: failureText(item.failure) };
      if (!item.film) return { word: "Not measured", text: "No film reading is on record since the newest coat" };
      const first = item.film.reasons[0];
      const said = first ? filmReason(first, units) : null;
      const read = item.film.read < item.film.asked ? `; ${item.film.read} of ${item.film.asked} read` : "";
      return {
        word:
          item.doubted && item.result !== "out"
            ? "Gauge in question"
            : item.result === "in"
              ? "In"
              : (said?.word ?? (item.over ? "Heavy" : "In")),
        text: `Mean ${withUnit(item.film.meanUm, "thickness", units)}${said ? `; ${said.text}${said.figure === "–" ? "" : ` (${said.figure})`}` : ", every spot in"}${read}${overSaid(item.over, units)}${baseTaken(item.base, units)}${item.doubted ? "; its gauge failed its shims since: read it again" : ""}`,
      };
    }
    case "cure": {
      if (item.failure) return { word: "Not known", text: failureText(item.failure) };
      if (!item.bake) return { word: "Not recorded", text: "No oven trace is on record" };
      const said = bakeInShort(item.bake, units);
      return {
        word: said.word,
        text: `Index ${item.bake.decidingIndex.toFixed(0)} on ${item.bake.decidingChannel}, the lowest live metal channel${item.result === "in" ? "" : `; ${said.text} (${said.figure})`}`,
      };
    }
    case "adhesion":
      return item.iso === null
        ? { word: "Not tested", text: `Cross-cut with tape asked for, grade ${item.worstIso} or better` }
        : {
            word: item.result === "out" ? "Lifts" : "Holds",
            text: `${item.astm?.endsWith("A") ? `X-cut ${item.astm}, worth grade ${item.iso}` : `Cross-cut grade ${item.iso} (${item.astm})`}${item.sources.length > 1 ? `, the worst of ${item.sources.length}` : ""}; ${item.worstIso} or better asked for`,
          };
    case "rub": {
      const asked = item.leastGrade === null ? "" : `; grade ${item.leastGrade} or better asked for`;
      if (item.rubGrade === null) return { word: "Not tested", text: `Solvent rub${asked.replace(";", ",")}` };
      return {
        word: item.result === "in" ? "Stands" : item.result === "out" ? "Softens" : "Look",
        text: `Grade ${item.rubGrade} of 5 after ${item.doubleRubs} double rubs${asked}`,
      };
    }
    case "test": {
      const said = (value: number | null) => (value === null ? null : cureTestValue(item.test, value));
      const asked = range(said(item.lower), said(item.upper));
      if (item.value === null) return { word: "Not tested", text: asked };
      if (item.noResult)
        return { word: "No result", text: `${said(item.value)}, but the glue gave way; ${asked}. Test again` };
      return {
        word: { in: "In", out: "Out", watch: "Watch", unknown: "Not known" }[item.result],
        text: `${said(item.value)}${item.sources.length > 1 ? `, the worst of ${item.sources.length}` : ""}; ${asked}`,
      };
    }
    case "appearance": {
      const { look } = item;
      const named = item.defect && faultName(item.defect, item.subKind);
      if (named && item.result === "out")
        return { word: "Defect seen", text: `${named}${pieces(item)}${beyond(item.faults)}` };
      if (named && item.result === "watch")
        return {
          word: (item.faults ?? []).length > 0 ? "Within its class" : "Touched up",
          text: `${named}${pieces(item)}; ${classes(item)}`,
        };
      if (!look) return { word: "Not looked at", text: "Nobody has said that they looked since the bake" };
      const how = `${look.by}${look.distanceM === null ? "" : `, from ${look.distanceM} m`}${look.lightLux === null ? "" : `, in ${look.lightLux} lux`}`;
      if (look.faces === look.of && item.result === "unknown")
        return { word: "Touched up", text: `To be looked at once more since it was touched up; before that ${how}` };
      return look.faces < look.of
        ? { word: "Not all seen", text: `${look.faces} of ${look.of} faces looked at as asked; ${how}` }
        : { word: "Nothing found", text: `Looked at by ${how}` };
    }
    case "fits":
      if (item.tried === 0) return { word: "Not tried", text: "Threads and fits are to be tried after the cure" };
      return item.stuck.length > 0
        ? { word: "Does not go", text: item.stuck.join(", ") }
        : { word: "Goes", text: item.tried === 1 ? "The one that was tried" : `All ${item.tried} that were tried` };
    case "steps": {
      const steps = (list: readonly (typeof item.missing)[number][]) =>
        list.map((s) => prepStepName[s].toLowerCase()).join(", ");
      const said = [
        ...(item.off.length > 0 ? [`${item.result === "out" ? "out" : "to look at"}: ${steps(item.off)}`] : []),
        ...(item.missing.length > 0 ? [`not on record: ${steps(item.missing)}`] : []),
        ...item.leftOut.map(
          (l) => `${prepStepName[l.step].toLowerCase()} left out${l.why ? `: ${l.why}` : ", no reason on record"}`,
        ),
      ];
      return {
        word: { in: "Done", out: "Out", watch: "With notes", unknown: "Not all done" }[item.result],
        text: said.length > 0 ? said.join("; ") : `${item.asked} steps asked for, each on record`,
      };
    }
    case "outgassing":
      return {
        word: { in: "Hot enough", watch: "Just as hot", out: "Too cool", unknown: "Not known" }[item.result],
        text: `${item.heldC === null ? "Not held 30 min at any heat" : `Held at ${withUnit(item.heldC, "temperature", units)} for 30 min`}; the cure that follows is at ${withUnit(item.cureMetalC, "temperature", units)}`,
      };
    case "pretreatment": {
      if (item.notPassed.length > 0)
        return {
          word: "Not passed",
          text: `On its route and not on record: ${item.notPassed.join(", ").replaceAll("-", " ")}`,
        };
      if (!item.worst || item.worst.value === null)
        return { word: "Not known", text: "No bath check lies near the minute it passed" };
      const { bath, parameter, value } = item.worst;
      return {
        word: item.bathOut ? "Bath out" : item.result === "in" ? "In window" : "Near its limit",
        text: `${bath} ${parameterName[parameter]} ${bathValue(parameter, value, units)} on ${bathWindow(parameter, item.worst, units)} when it passed`,
      };
    }
    case "contact": {
      const window = `${minutesSeconds(item.window[0])} to ${minutesSeconds(item.window[1])} asked for`;
      return item.seconds === null
        ? { word: "Not known", text: `Nobody saw it leave; ${window}` }
        : {
            word: item.result === "in" ? "In" : item.seconds < item.window[0] ? "Too short" : "Too long",
            text: `${minutesSeconds(item.seconds)}; ${window}`,
          };
    }
    case "dry-off": {
      const minutes = item.minutes === null ? "time not on record" : `${item.minutes.toFixed(0)} min in it`;
      return {
        // By its time alone nobody saw that it is dry.
        word: {
          in: item.grade === "by-procedure" ? "Long enough" : "Dry",
          watch: "With notes",
          out: "Damp",
          unknown: "Not looked at",
        }[item.result],
        text:
          item.reasons.length > 0
            ? `${item.reasons.map((r) => dryOffReason(r as Parameters<typeof dryOffReason>[0], item.leastMinutes)).join("; ")}; ${minutes}`
            : `${minutes}${item.result === "unknown" ? "; nobody looked whether the parts are dry" : ""}`,
      };
    }
    case "open":
      return { word: "Open", text: item.open.map(openSaid).join("; ") };
  }
}
