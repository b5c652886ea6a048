import type { Condition, PlannedPart, Service } from "./part";
import type { CoatingSystem } from "./system";

/** From this section on a piece heats slowly, mm. */
export const HEAVY_SECTION_MM = 10;
/** Thickest over thinnest: beyond this one part holds two pieces to the oven. */
export const MIXED_SECTION_RATIO = 4;

/**
 * What is so about a piece of work, as plain words the knowledge files speak in: `metal:cast-aluminium`, `edge:thermal`,
 * `exposure:salt`, `outdoors`, `system:no-primer`. A fact that is not listed is not so.
 */
export function factsOf(
  part: PlannedPart,
  condition: Condition,
  service: Service,
  system: CoatingSystem | null,
): ReadonlySet<string> {
  const facts = new Set<string>([`metal:${part.substrate}`]);
  const is = (fact: string, so: boolean) => {
    if (so) facts.add(fact);
  };
  const has = (feature: PlannedPart["features"][number]) => part.features.includes(feature);
  const steel = part.substrate === "hot-rolled-steel" || part.substrate === "cold-rolled-steel";
  is("metal:mild-steel", steel);
  is("metal:rusts", steel || part.substrate === "cast-iron");
  is("metal:cast", part.substrate === "cast-aluminium" || part.substrate === "cast-iron");
  is("metal:light", part.substrate === "aluminium" || part.substrate === "cast-aluminium");
  is("edge:thermal", has("thermal-cut-edges"));
  is("edge:sharp", has("sharp-edges"));
  for (const feature of part.features) facts.add(`feature:${feature}`);
  is("feature:open-lap-seam", part.lapM > 0);
  is("section:heavy", part.thickestMm >= HEAVY_SECTION_MM);
  is("section:mixed", part.thickestMm / part.thinnestMm >= MIXED_SECTION_RATIO);
  is("condition:rust", condition.rust === "B" || condition.rust === "C" || condition.rust === "D");
  is("condition:pitted", condition.rust === "C" || condition.rust === "D");
  is("condition:scale", condition.scale || condition.rust === "A");
  is("condition:old-coating", condition.oldCoating !== "none");
  is("condition:old-coating-unknown", condition.oldCoating === "unknown");
  is("condition:spatter", condition.weldSpatter);
  is("condition:oil", condition.oil);
  for (const exposure of service.exposure) facts.add(`exposure:${exposure}`);
  is(
    "outdoors",
    service.exposure.some((e) => e !== "indoor" && e !== "heat" && e !== "chemicals" && e !== "knocks"),
  );
  is(
    "wet-salt",
    service.exposure.some((e) => e === "coast" || e === "salt"),
  );
  is("life:long", (service.lifeYears ?? 0) >= 8);
  is("finish:texture", service.finish === "texture");
  is("finish:clear", service.finish === "clear");
  is("hot-service", service.serviceC !== null && service.serviceC > 80);
  if (!system) return facts;
  facts.add(`prep:${system.preparation}`);
  facts.add(`pretreatment:${system.pretreatment}`);
  facts.add(`family:${system.family}`);
  facts.add(`primer:${system.primer}`);
  facts.add(`cure:${system.curing}`);
  is("system:no-primer", system.primer === "none");
  is("system:no-blast", system.preparation !== "blast");
  is("system:no-seam-seal", !system.sealSeams);
  is("system:edges-as-cut", !system.breakEdges);
  is("system:no-outgas", !system.outgas);
  is("system:one-coat", system.coats === 1 && system.primer === "none");
  is("system:thick", system.topUm[1] > 110);
  is("weathering:standard", system.family === "polyester" || system.family === "polyester-tgic-free");
  return facts;
}

/** Facts that must all be so, of which one at least must be, and of which none may be. */
export type When = {
  readonly all?: readonly string[];
  readonly any?: readonly string[];
  readonly none?: readonly string[];
};
export const holds = (when: When, facts: ReadonlySet<string>): boolean =>
  (when.all ?? []).every((f) => facts.has(f)) &&
  ((when.any ?? []).length === 0 || (when.any ?? []).some((f) => facts.has(f))) &&
  !(when.none ?? []).some((f) => facts.has(f));
