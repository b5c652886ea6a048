import type { Service } from "./part";
import type { CoatingSystem } from "./system";

/** What of a plan a customer's answer changes. */
export type Answerable = { readonly system: CoatingSystem; readonly finish: Service["finish"] };
type Effect = (
  system: CoatingSystem,
  taken: boolean,
  primerCuring: CoatingSystem["curing"],
) => Partial<CoatingSystem> | null;

const PRIMER_UM: readonly [number, number] = [50, 80];
const oneCure = (system: CoatingSystem): CoatingSystem["curing"] =>
  system.coats > 1 && system.curing === "two-full-cures" ? "two-full-cures" : "one-cure";
const primer =
  (kind: "zinc" | "epoxy"): Effect =>
  (system, taken, curing) =>
    taken
      ? system.primer === kind
        ? null
        : { primer: kind, primerUm: PRIMER_UM, curing }
      : system.primer === kind
        ? { primer: "none", primerUm: null, curing: oneCure(system) }
        : null;

/** By option: what of the system it is, taken or declined. An option not here is none of the system. */
const effects: Readonly<Record<string, Effect>> = {
  "zinc-primer": primer("zinc"),
  "epoxy-primer": primer("epoxy"),
  "seam-seal": (_, taken) => ({ sealSeams: taken }),
  "edge-breaking": (_, taken) => ({ breakEdges: taken }),
  "outgas-bake": (_, taken) => ({ outgas: taken }),
  "two-coats": (system, taken) => ({ coats: taken ? Math.max(2, system.coats) : 1 }),
  blast: (system, taken) =>
    taken ? { preparation: "blast" } : system.preparation === "blast" ? { preparation: "wipe" } : null,
  "conversion-coat": (system, taken) => {
    const has = system.pretreatment === "iron-phosphate" || system.pretreatment === "zirconium";
    return taken === has ? null : { pretreatment: taken ? "iron-phosphate" : "wash" };
  },
  zirconium: (system, taken) =>
    taken
      ? { pretreatment: "zirconium" }
      : system.pretreatment === "zirconium"
        ? { pretreatment: "iron-phosphate" }
        : null,
};

/**
 * A plan with a customer's answer to an option in it; null where the answer changes nothing of it (the option is none of
 * the system, or it stands so already). A primer taken is cured as the shop does it.
 */
export function planByAnswer(
  plan: Answerable,
  option: string,
  taken: boolean,
  primerCuring: CoatingSystem["curing"] = "primer-gelled",
): Answerable | null {
  const { system, finish } = plan;
  if (option === "texture-finish") {
    const wanted = taken ? "texture" : finish === "texture" ? "standard" : finish;
    return wanted === finish ? null : { system, finish: wanted };
  }
  const change = effects[option]?.(system, taken, primerCuring);
  if (!change) return null;
  const next = { ...system, ...change };
  return JSON.stringify(next) === JSON.stringify(system) ? null : { system: next, finish };
}
