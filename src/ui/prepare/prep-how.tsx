"use client";
import { type HowField, type PrepHow, type PrepStep, prepHow } from "@/core/preparation";
import { Choice } from "../fields/choice";
import { Fold } from "../fields/fold";
import { howWords } from "../words/preparation";

type Said = Readonly<Record<string, string>>;

/** How a step was done: media, solvent, wipe; one line when closed, as it was done last time until it is changed. */
export function PrepHowFields({
  step,
  said,
  how,
  change,
}: {
  step: PrepStep;
  said: Said;
  how: PrepHow;
  change: (said: Said) => void;
}) {
  const field = (f: HowField) => {
    const id = `how-${step}-${f.key}`.replaceAll(" ", "-");
    const put = (word: string) => change({ ...said, [f.key]: word });
    return (
      <div key={f.key} className="field">
        <label htmlFor={id}>
          {f.key}
          {f.kind === "number" && f.unit ? `, ${f.unit}` : ""}
        </label>
        {f.kind === "choice" ? (
          <Choice id={id} className="input" value={said[f.key] ?? ""} onChange={put}>
            <option value="">not said</option>
            {f.choices.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </Choice>
        ) : (
          <input
            id={id}
            className={f.kind === "number" ? "input num" : "input"}
            inputMode={f.kind === "number" ? "decimal" : undefined}
            maxLength={80}
            value={said[f.key] ?? ""}
            onChange={(e) => put(e.target.value)}
          />
        )}
      </div>
    );
  };
  return (
    <Fold className="min-w-0" summaryClassName="link min-h-11 max-w-[280px]" summary={howWords(step, how) || "how …"}>
      <span className="grid grid-cols-2 gap-2 pb-2">{(prepHow[step] ?? []).map(field)}</span>
    </Fold>
  );
}
