import type { OpenItem, OpenKind, OrderFault } from "@/core/line";
import { localMoment } from "../format";

export const openName: Record<OpenKind, string> = {
  bump: "Bumped",
  "light-left": "Light place left",
  "plug-short": "Plug missing",
  "fit-not-wiped": "Fit not wiped",
  "seal-in": "Seals not out",
  "pre-flight-off": "Pre-flight failed",
  "gauge-doubted": "Gauge in question",
};
/** What to do about it. */
export const openRemedy: Record<OpenKind, string> = {
  bump: "look at the place, spray it again or say that it is whole",
  "light-left": "spray it and look again, or say why it stays",
  "plug-short": "find the plug, count again",
  "fit-not-wiped": "wipe the fit and look",
  "seal-in": "take rubber and seals out before any oven",
  "pre-flight-off": "put right what was off, or say why it does not matter here",
  "gauge-doubted": "read again with a gauge that holds on its shims",
};
/** One that is open, with its count: “Plug missing, 3 of 4 in”. */
export const openSaid = (item: OpenItem): string =>
  `${openName[item.what]}${item.count ? `, ${item.count[0]} of ${item.count[1]} in` : ""}${
    item.places.length > 0 ? `, face ${[...new Set(item.places.map((p) => p.face))].join(", ")}` : ""
  }`;

/** What stands against the order of work, in a sentence with its remedy. */
export function orderSaid(fault: OrderFault): string {
  switch (fault.kind) {
    case "not-washed":
      return `Its route has a wash that is not on record: ${fault.missing.join(", ").replaceAll("-", " ")}. Record it first.`;
    case "not-coated":
      return fault.coatedLaterMs === null
        ? "No coat is on record since it was last stripped or sent back. Record the coat first."
        : `Its coat is on record at ${localMoment(new Date(fault.coatedLaterMs))}, after this bake began. Correct the time of the one that is wrong.`;
    case "still-in-washer":
      return `By its speed it is still in the washer, in ${fault.stage.replaceAll("-", " ")}. Wait until it is out, or correct its run.`;
    case "still-in-oven":
      return "It is on record as in an oven. Pull the load first.";
    case "washed-after-coat":
      return "There is loose powder on it: washing takes it off. Record what was done, or strip it first.";
    case "washed-after-oven":
      return "It has been in the oven since: a wash comes before the coat. Strip or send it back first.";
  }
}
