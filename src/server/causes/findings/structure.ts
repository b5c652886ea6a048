import type { FindingState } from "@/core/diagnosis";
import type { EvidenceGrade } from "@/core/verdict";
import type { StructureFact } from "../../field/structure-facts";
import type { EstablishedFinding } from "./established";

/** As near to salt water as this spray reaches, and as near to a road splash does, m (trade practice). */
const SALT_WATER_M = 50;
const SALTED_ROAD_M = 10;

/**
 * What is on record of a structure that no rack of this shop stands behind: what it stands in, and what it was told to carry.
 * What was told is worth what the telling is worth; distance to a road alone does not say that it is salted, so it speaks for
 * salt but is assumed. Pure; O(1).
 */
export function structureFindings(
  exposure: readonly string[],
  fact: (StructureFact & { readonly recordId: string }) | null,
): EstablishedFinding[] {
  const out: EstablishedFinding[] = [];
  const sources = fact ? [fact.recordId] : [];
  const add = (
    finding: string,
    present: boolean,
    grade: EvidenceGrade,
    what: EstablishedFinding["what"],
    from: readonly string[] = sources,
  ) =>
    out.push({ finding, state: (present ? "present" : "absent") satisfies FindingState, grade, what, sources: from });
  const seen = (what: string) => ({ kind: "seen" as const, what });
  if (exposure.includes("salt")) add("salt-exposure", true, "by-procedure", { kind: "exposure", exposure }, []);
  else if (fact?.salt_m != null && fact.salt_m <= SALT_WATER_M)
    add("salt-exposure", true, "by-procedure", seen(`${fact.salt_m} m from salt water`));
  else if (fact?.road_m != null && fact.road_m <= SALTED_ROAD_M)
    add("salt-exposure", true, "assumed", seen(`${fact.road_m} m from a road; whether it is salted is not on record`));
  else if (exposure.length > 0) add("salt-exposure", false, "by-procedure", { kind: "exposure", exposure }, []);
  if (exposure.length > 0)
    for (const [finding, word] of [
      ["standing-water", "standing-water"],
      ["impact-service", "knocks"],
    ] as const)
      add(finding, exposure.includes(word), "by-procedure", { kind: "exposure", exposure }, []);
  const told = fact?.told_protection;
  if (told) {
    const grade = gradeOf(fact.told_system_grade);
    const words = seen(`told to be ${fact.told_system ?? wordOf[told] ?? told}`);
    add("no-primer", told !== "primed", grade, words);
    if (told === "bare" || told === "light") add("no-blast", true, grade, words);
    else if (told === "blasted") add("no-blast", false, grade, words);
  }
  return out;
}

const wordOf: Readonly<Record<string, string>> = {
  bare: "coated with nothing under the film",
  light: "washed only",
  blasted: "blasted",
  primed: "primed",
};
const gradeOf = (told: string | null): EvidenceGrade =>
  told === "measured" || told === "by-procedure" ? told : "assumed";
