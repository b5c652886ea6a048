"use client";
import { memo, useState } from "react";
import { type Condition, partFeatures, rustGrades, type ShopHas } from "@/core/plan";
import { Choice } from "../fields/choice";
import { Fold } from "../fields/fold";
import { Tick } from "../fields/tick";
import { plainly, sections, sides, withUnit } from "../format";
import { Grade, Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { featureName, refusalText, substrateName } from "../words/plan";
import type { DescribedPart, More } from "./described-part";
import type { FitInShort } from "./fit-answer";
import { SystemChoice } from "./system-choice";

/** One part of a delivery: how it was read, its condition, its systems side by side, the risks that stay. */
export const PartPlan = memo(function PartPlan({
  described: { part, own, advice, picked, against },
  has,
  fit,
  set: setFor,
}: {
  described: DescribedPart;
  has: ShopHas;
  /** Undefined until the worker has answered. */
  fit: FitInShort | undefined;
  set: (name: string, change: Partial<More>) => void;
}) {
  const [open, setOpen] = useState(false);
  const { units } = usePreferences();
  const set = (change: Partial<More>) => setFor(part.name, change);
  const likely = picked?.risks.filter((r) => r.likelihood === "likely") ?? [];
  return (
    <section className="ruled [contain-intrinsic-size:auto_240px] [content-visibility:auto]" aria-label={part.name}>
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2>
          {part.name}{" "}
          <span className="soft small font-normal">
            {part.pieces} × {substrateName[part.substrate]}, {sides(part.box, units)},{" "}
            {sections(part.thinnestMm, part.thickestMm, units)} thick, {withUnit(part.massKg, "mass", units)},{" "}
            {withUnit(part.areaM2, "area", units, 1)}
            {part.lapM > 0 ? `, laps ${plainly(part.lapM, "length", units)}` : ""}
          </span>
        </h2>
        {part.assumed.length > 0 && (
          <span className="small soft">
            <Grade grade="assumed" />{" "}
            {part.assumed.map((a) => ({ massKg: "mass", areaM2: "area", thinnestMm: "thinnest" })[a]).join(" and ")}{" "}
            from its box
          </span>
        )}
      </div>
      {fit?.fits && (
        <p className="m-0 mt-1">
          <Verdict result={fit.said.result}>{fit.said.words}</Verdict>: {fit.said.why && `${fit.said.why}; `}
          {fit.turned}
          {fit.perRack !== null && (
            <span className="soft">
              ; {fit.perRack} on a rack, {fit.perOven} in an oven load
            </span>
          )}
        </p>
      )}
      {fit?.fits === false && (
        <p className="m-0 mt-1 border-l-4 border-out pl-3">
          <Verdict result="out">Does not fit</Verdict> {fit.keptOutBy.map((k) => `${k.place}: ${k.by}`).join("; ")}, in
          the way that comes nearest. Turn it, split it, or send it elsewhere before it is quoted.
        </p>
      )}
      <Fold className="mt-1" onToggle={setOpen} summary="Condition and what it has">
        {open && (
          <div className="flex flex-wrap items-end gap-x-5 gap-y-2 pb-2">
            <div className="field w-[110px]">
              <label htmlFor={`rust-${part.line}`}>Rust grade</label>
              <Choice
                id={`rust-${part.line}`}
                className="input"
                value={own.condition.rust}
                onChange={(value) => set({ condition: { ...own.condition, rust: value as Condition["rust"] } })}
              >
                {rustGrades.map((g) => (
                  <option key={g}>{g}</option>
                ))}
              </Choice>
            </div>
            <div className="field w-[130px]">
              <label htmlFor={`old-${part.line}`}>Old coating</label>
              <Choice
                id={`old-${part.line}`}
                className="input"
                value={own.condition.oldCoating}
                onChange={(value) => set({ condition: { ...own.condition, oldCoating: value as "none" } })}
              >
                <option>none</option>
                <option value="known">known kind</option>
                <option value="unknown">unknown kind</option>
              </Choice>
            </div>
            {(["scale", "weldSpatter", "oil"] as const).map((key) => (
              <label key={key} className="flex min-h-11 items-center gap-2">
                <Tick
                  checked={own.condition[key]}
                  onChange={(on) => set({ condition: { ...own.condition, [key]: on } })}
                />
                {{ scale: "mill scale", weldSpatter: "weld spatter", oil: "oil" }[key]}
              </label>
            ))}
            {partFeatures.map((f) => (
              <label key={f} className="flex min-h-11 items-center gap-2">
                <Tick
                  checked={part.features.includes(f)}
                  onChange={(on) =>
                    set({ features: on ? [...part.features, f] : part.features.filter((x) => x !== f) })
                  }
                />
                {featureName[f]}
              </label>
            ))}
          </div>
        )}
      </Fold>
      {advice && !advice.ok && <p className="text-out">{failureText(advice.error)}</p>}
      {advice?.ok && (
        <SystemChoice
          advice={advice.value}
          has={has}
          chosen={own.choice}
          choose={(choice) => set({ choice, overrule: {} })}
        />
      )}
      {against.map((r) => (
        <div key={r.kind} className="mt-2 border-l-4 border-out pl-3">
          <Verdict result="out">Cannot work</Verdict> {refusalText[r.kind]}
          <div className="field mt-1 max-w-[520px]">
            <label htmlFor={`why-${part.line}-${r.kind}`}>Done all the same, because</label>
            <input
              id={`why-${part.line}-${r.kind}`}
              className="input"
              maxLength={400}
              value={own.overrule[r.kind] ?? ""}
              onChange={(e) => set({ overrule: { ...own.overrule, [r.kind]: e.target.value } })}
            />
          </div>
        </div>
      ))}
      {likely.length > 0 && (
        <ul className="m-0 mt-2 list-none p-0">
          {likely.slice(0, 5).map((r) => (
            <li key={r.id} className="row grid-cols-[24px_minmax(0,1fr)]">
              <span className="pt-1">
                <Verdict result="watch">{""}</Verdict>
              </span>
              <span>
                <b>{r.name}.</b> <span className="soft">{r.because}</span>
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
});
