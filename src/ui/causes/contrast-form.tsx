"use client";
import { useRouter } from "next/navigation";
import { useState, useTransition } from "react";
import { Choice } from "../fields/choice";

type Pairs = readonly (readonly [string, string])[];

/** What is compared, by its address: so that it can be linked and gone back from. */
export function ContrastForm({
  now,
  defects,
  parts,
  variables,
}: {
  now: Readonly<Record<string, string>>;
  defects: Pairs;
  parts: Pairs;
  variables: Pairs;
}) {
  const router = useRouter();
  const [asked, setAsked] = useState(now);
  const [busy, begin] = useTransition();
  const set = (name: string) => (value: string) => setAsked({ ...asked, [name]: value });
  const go = () =>
    begin(() =>
      router.push(`/causes/contrast?${new URLSearchParams(Object.entries(asked).filter(([, value]) => value !== ""))}`),
    );
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        go();
      }}
    >
      <label className="grid gap-1">
        <span className="soft small">Defect</span>
        <Choice className="input min-w-[180px]" value={asked.defect ?? ""} onChange={set("defect")}>
          {defects.map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </label>
      <label className="grid gap-1">
        <span className="soft small">Part</span>
        <Choice className="input min-w-[170px]" value={asked.part ?? ""} onChange={set("part")}>
          <option value="">all parts</option>
          {parts.map(([code, name]) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
        </Choice>
      </label>
      <label className="grid gap-1">
        <span className="soft small">Hung from</span>
        <input
          type="date"
          className="input"
          value={asked.from ?? ""}
          onChange={(e) => set("from")(e.target.value)}
          max={asked.to}
        />
      </label>
      <label className="grid gap-1">
        <span className="soft small">to</span>
        <input
          type="date"
          className="input"
          value={asked.to ?? ""}
          onChange={(e) => set("to")(e.target.value)}
          min={asked.from}
        />
      </label>
      <label className="grid gap-1">
        <span className="soft small">Hold still</span>
        <Choice className="input min-w-[170px]" value={asked.by ?? ""} onChange={set("by")}>
          <option value="">nothing</option>
          {variables.map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </label>
      <button type="submit" className="btn pri" disabled={busy}>
        {busy ? "Comparing …" : "Compare"}
      </button>
    </form>
  );
}
