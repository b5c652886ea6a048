import { bakeEventSentence } from "./cure";
import { decisionWords } from "./decisions";

type Line = { readonly kind: string; readonly number: number | null; readonly text: string | null };

/** One record in a few words. */
export function recordSentence(r: Line): string {
  const text = (r.text ?? "").replaceAll("-", " ");
  switch (r.kind) {
    case "passage":
      return `into ${text}`;
    case "bath-check":
      return "checked";
    case "bath-event":
      return text || "addition or change";
    case "line-stop":
      return text ? `the line stood ${text}` : "stop of the line taken back";
    case "round-skip":
      return `round left out: ${text}`;
    case "wash-panel":
      return `panel ${text}`;
    case "sludge":
      return `sludge ${text}`;
    case "dry-off":
      return `dry-off: ${text}`;
    case "outgas":
      return `outgassing bake, ${text}`;
    case "metal-mark":
      return `${text} marked`;
    case "panel-test":
      return `panel tested: ${text}`;
    case "pre-flight":
      return `pre-flight, ${text}`;
    case "lamp-check":
      return text === "bumped" ? "bumped before the bake" : `under the lamp, ${text}`;
    case "powder-height":
      return "height of the powder";
    case "first-panel":
      return `first panel ${text}`;
    case "gauge-check":
      return `gauge ${text} on its shims`;
    case "bake-event": {
      const [event = "", section] = (r.text ?? "").split(" · ");
      const said = bakeEventSentence[event] ?? event.replaceAll("-", " ");
      return section ? `${said}, ${section}` : said;
    }
    case "oven-survey":
      return "oven surveyed";
    case "cure-test":
      return `tested: ${text}`;
    case "cure-trial":
      return `trial: ${text}`;
    case "film-plan":
      return "what to read, planned";
    case "base-metal":
      return "bare metal read";
    case "upkeep":
      return text;
    case "thickness":
      return `film, ${r.number ?? 0} readings`;
    case "bake":
      return `in oven, load ${text}`;
    case "coat":
      return "coated";
    case "prep-step":
      return text + (r.number !== null ? ` ${r.number}` : "");
    case "condition":
      return `${text} ${r.number ?? ""}`;
    case "cross-cut":
      return `cross-cut grade ${r.number ?? "–"}`;
    case "solvent-rub":
      return "solvent rub";
    case "defect":
      return text;
    case "disposition":
      return (decisionWords[r.text ?? ""] ?? text).toLowerCase();
    case "certificate":
      return "certificate";
    case "visit":
      return "visited";
    case "finding":
      return text;
    case "confirmation":
      return "cause confirmed";
    case "photo":
      return "photo";
    default:
      return r.kind.replaceAll("-", " ");
  }
}
