import type { EvidenceGrade } from "@/core/verdict";

/** How something is known, as one says it. */
export const gradeWords: Record<EvidenceGrade, string> = {
  measured: "measured",
  "by-procedure": "by procedure",
  assumed: "assumed",
  unknown: "not known",
};
/** As it stands on paper, also for a grade of a record from before there were these. */
export const gradeOnPaper = (grade: string): string => gradeWords[grade as EvidenceGrade] ?? grade;
