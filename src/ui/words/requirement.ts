import { cureTestUnit, pencils } from "@/core/bench";
import type { Requirement } from "@/server/requirement";
import { cureTestName } from "./bench";

/** What is asked beside film, adhesion and cure, a line each: the rub, the look, the tests. */
export function askedBeside({ rub, appearance, tests, fits }: Requirement): [string, string][] {
  return [
    ...(rub ? [["Solvent rub", `grade ${rub.leastGrade} or better`] as [string, string]] : []),
    ...(appearance
      ? [
          [
            "Look",
            [
              appearance.note,
              appearance.distanceM === null ? "" : `from ${appearance.distanceM} m`,
              appearance.lightLux === null ? "" : `in ${appearance.lightLux} lux`,
            ]
              .filter(Boolean)
              .join(", "),
          ] as [string, string],
        ]
      : []),
    ...(fits ? [["Threads and fits", "tried after the cure"] as [string, string]] : []),
    ...tests.map(({ test, lower, upper }): [string, string] => {
      const unit = cureTestUnit[test] ? ` ${cureTestUnit[test]}` : "";
      const said = (value: number) => (test === "pencil-hardness" ? (pencils[value] ?? "–") : `${value}`);
      const range =
        lower !== null && upper !== null
          ? `${said(lower)} to ${said(upper)}${unit}`
          : lower !== null
            ? `at least ${said(lower)}${unit}`
            : `at most ${said(upper ?? 0)}${unit}`;
      return [cureTestName[test], range];
    }),
  ];
}
