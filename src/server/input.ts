import type * as v from "valibot";
import type { Failure } from "@/core/result";

export { filled, number, said, text, whole } from "@/core/kinds/fields";

type Issues = readonly [v.BaseIssue<unknown>, ...v.BaseIssue<unknown>[]];

const SHOWN_CHARACTERS = 60;
const shown = (value: unknown): string => {
  if (value === undefined || value === null) return "";
  // What is made of parts is no value a person typed: its field says enough.
  if (Array.isArray(value)) return `${value.length}`;
  return typeof value === "object" ? "" : String(value).slice(0, SHOWN_CHARACTERS);
};

/** The library's own words name types and repeat the whole value; a person is told what is asked for. */
function why(issue: v.BaseIssue<unknown>): string {
  if (!issue.message.startsWith("Invalid ")) return issue.message;
  if (issue.input === undefined) return "is missing";
  const options = [...(issue.expected ?? "").matchAll(/"([^"]+)"/g)].map((m) => m[1]);
  return options.length > 1 && options.length <= 20 ? `is none of ${options.join(", ")}` : "is not what is asked for";
}

/** A refusal at the first field that is wrong, with its value and why. The path is joined by dots unless `field` names it. */
export function badEntry([issue]: Issues, field?: string): Failure {
  return {
    kind: "bad-entry",
    field: field ?? issue.path?.map((p) => String(p.key)).join(".") ?? "",
    why: why(issue),
    // A rule over several fields is forwarded to one: its value is meant, not the whole entry.
    value: shown(issue.path ? issue.path.at(-1)?.value : issue.input),
  };
}
