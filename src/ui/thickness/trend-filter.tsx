"use client";
import { useRouter } from "next/navigation";
import { Choice } from "../fields/choice";

/** What film is looked at over time: each choice is an address of its own. */
export function TrendFilter({
  days,
  powder,
  part,
  spans,
  powders,
  parts,
}: {
  days: number;
  powder: string | null;
  part: string | null;
  spans: readonly number[];
  powders: readonly { readonly code: string; readonly name: string }[];
  parts: readonly { readonly code: string; readonly name: string }[];
}) {
  const router = useRouter();
  const go = (over: { days?: number; powder?: string; part?: string }) => {
    const query = new URLSearchParams();
    const chosen = { days: String(days), powder: powder ?? "", part: part ?? "", ...over };
    for (const [key, value] of Object.entries(chosen)) if (String(value) !== "") query.set(key, String(value));
    router.push(`/test/film?${query}`);
  };
  const choice = (
    id: string,
    label: string,
    value: string,
    options: readonly (readonly [string, string])[],
    change: (value: string) => void,
    width: string,
  ) => (
    <div className={`field ${width}`}>
      <label htmlFor={id}>{label}</label>
      <Choice id={id} className="input" value={value} onChange={change}>
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </Choice>
    </div>
  );
  return (
    <div className="no-print mt-3 flex flex-wrap gap-3">
      {choice(
        "trend-days",
        "Span",
        String(days),
        spans.map((s) => [String(s), `${s} days`]),
        (value) => go({ days: Number(value) }),
        "w-[120px]",
      )}
      {choice(
        "trend-powder",
        "Powder",
        powder ?? "",
        [["", "all powders"], ...powders.map((p) => [p.code, `${p.code} ${p.name}`] as const)],
        (value) => go({ powder: value }),
        "w-[230px]",
      )}
      {choice(
        "trend-part",
        "Part",
        part ?? "",
        [["", "all parts"], ...parts.map((p) => [p.code, p.name] as const)],
        (value) => go({ part: value }),
        "w-[230px]",
      )}
    </div>
  );
}
