import type { RouteCode, RouteStep } from "./route";

/** What a rework is sent back as; a touch-up goes back to nobody but the hand that does it. */
export type ReworkDecision = "wipe-off" | "scuff-and-recoat" | "strip" | "touch-up";

const step = (
  stage: RouteStep["stage"],
  code: RouteCode,
  over: Partial<Pick<RouteStep, "parameters" | "checks" | "hold" | "fulfilledBy">> = {},
): RouteStep => ({ stage, code, parameters: [], checks: [], hold: false, fulfilledBy: null, ...over });

/** Of a card, the steps from the first of a code on; all of it where there is none. */
const from = (card: readonly RouteStep[], codes: readonly RouteCode[]): readonly RouteStep[] => {
  const at = card.findIndex((s) => codes.includes(s.code));
  return at < 0 ? card : card.slice(at);
};

/**
 * The steps that a rework adds to a route card, in order, down to its release. Powder wiped off goes on again as the card has
 * it, dried anew where it was rinsed; a recoat is scuffed, wiped and coated once, with the earth read and less voltage since
 * the old film insulates, its film held to the most in all; a strip does everything again; a touch-up is looked at and let go.
 */
export function reworkRoute(
  decision: ReworkDecision,
  card: readonly RouteStep[],
  { rinsed = false, mostUm = null as number | null } = {},
): readonly RouteStep[] {
  const end = from(card, ["film"]);
  if (decision === "touch-up")
    return [step("release", "touch-up"), step("release", "release", { checks: ["appearance"], hold: true })];
  if (decision === "wipe-off")
    return [
      step("coat", "wipe-off"),
      ...(rinsed ? card.filter((s) => s.code === "dry-off") : []),
      ...from(card, ["primer", "top-coat"]),
    ];
  if (decision === "strip")
    return [
      step("prepare", "strip", { fulfilledBy: { kind: "prep-step", step: "strip" } }),
      ...card.filter((s) => s.code !== "strip" && s.code !== "hold-for-part" && s.code !== "test-old-coating"),
    ];
  const coat = card.findLast((s) => s.code === "top-coat");
  const cure = card.findLast((s) => s.code === "cure");
  return [
    step("prepare", "scuff", { fulfilledBy: { kind: "prep-step", step: "scuff" } }),
    step("prepare", "blow-off", { fulfilledBy: { kind: "prep-step", step: "blow-off" } }),
    step("prepare", "solvent-wipe", { fulfilledBy: { kind: "prep-step", step: "solvent-wipe" } }),
    ...(coat
      ? [
          {
            ...coat,
            parameters: [
              ...coat.parameters,
              ...(mostUm === null ? [] : [{ name: "film in all", lower: null, upper: mostUm, unit: "µm" }]),
            ],
            checks: ["earth", "lot-in-date", "less-voltage"] as const,
          },
        ]
      : []),
    ...(cure ? [cure] : []),
    ...end,
  ];
}
