import type { VerdictResult } from "../verdict";

export const filmDecisions = ["accept", "respray-before-cure", "scuff-and-recoat", "strip", "hold"] as const;
export type FilmDecision = (typeof filmDecisions)[number];
export type FilmDecisionWhy =
  | "in"
  | "thin-uncured"
  | "thin-at-melt"
  | "thin-cured"
  | "thin-no-room"
  | "thick-uncured"
  | "thick-cured"
  | "thick-and-thin"
  | "few-readings"
  | "unknown-cure";

/**
 * What is usually done with a film, by how it is off and how far it is baked: loose powder is added to or blown off; at the
 * melt light places still take powder; a cured thin film is scuffed and coated again where the sheet leaves room; a cured
 * thick one is held, since nothing takes film off but stripping. Advice only: a lead decides.
 */
export function adviseFilm(film: {
  readonly result: VerdictResult;
  readonly thin: boolean;
  readonly thick: boolean;
  readonly cured: "loose" | "melted" | "cured" | "unknown";
  /** Mean of what is there, and the most the powder's sheet bears in all; null: not set. */
  readonly meanUm: number;
  readonly mostUm: number | null;
  /** Least a further coat comes to, µm. */
  readonly leastCoatUm: number;
}): { readonly decision: FilmDecision; readonly why: FilmDecisionWhy } {
  const { result, thin, thick, cured, meanUm, mostUm, leastCoatUm } = film;
  if (result === "unknown") return { decision: "hold", why: "few-readings" };
  if (!thin && !thick) return { decision: "accept", why: "in" };
  if (cured === "unknown") return { decision: "hold", why: "unknown-cure" };
  if (thin && thick) return { decision: cured === "loose" ? "respray-before-cure" : "hold", why: "thick-and-thin" };
  if (thick)
    return cured === "loose"
      ? { decision: "respray-before-cure", why: "thick-uncured" }
      : { decision: "hold", why: "thick-cured" };
  if (cured === "loose") return { decision: "respray-before-cure", why: "thin-uncured" };
  if (cured === "melted") return { decision: "respray-before-cure", why: "thin-at-melt" };
  return mostUm !== null && meanUm + leastCoatUm > mostUm
    ? { decision: "strip", why: "thin-no-room" }
    : { decision: "scuff-and-recoat", why: "thin-cured" };
}
/** A further coat lays down about this much at the least, µm. */
export const LEAST_COAT_UM = 40;
