"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useEffect, useMemo, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import {
  type AdvisedSystem,
  advise,
  asNew,
  type Condition,
  type Exposure,
  exposures,
  type Family,
  type IntakeLine,
  type PartFeature,
  parseIntakeList,
  partFeatures,
  refusals,
  rustGrades,
  type Schools,
  type Service,
} from "@/core/plan";
import { parseNumber } from "@/core/units";
import { Grade, Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";
import { changeName, exposureName, featureName, lifeText, refusalText, substrateName, systemText } from "../words/plan";

type Outcome =
  | { readonly ok: true; readonly href: string; readonly jobs: readonly string[] }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
type Choice = "recommended" | "cheaper" | "better";
type More = {
  readonly condition: Condition;
  readonly features: readonly PartFeature[] | null;
  readonly choice: Choice;
  readonly overrule: Readonly<Record<string, string>>;
};
const usual: More = { condition: asNew, features: null, choice: "recommended", overrule: {} };

/** Work comes in: one part a line, read as it is typed; its risks and its system beside it; then a job for each. */
export function ReceiveForm({
  customers,
  powders,
  schools,
  known,
  receive,
}: {
  customers: readonly { readonly id: string; readonly label: string }[];
  powders: readonly {
    readonly id: string;
    readonly label: string;
    readonly family: Family;
    readonly um: readonly [number, number];
  }[];
  schools: Schools;
  known: readonly { readonly name: string; readonly line: string }[];
  receive: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const id = useRef<{ content: string; id: string } | null>(null);
  const [text, setText] = useState("");
  const [exposure, setExposure] = useState<readonly Exposure[]>(["weather"]);
  const [life, setLife] = useState("");
  const [finish, setFinish] = useState<Service["finish"]>("standard");
  const [powder, setPowder] = useState((powders.find((p) => p.family === "polyester") ?? powders[0])?.id ?? "");
  const [more, setMore] = useState<Readonly<Record<string, More>>>({});
  const [state, setState] = useState<{ busy: boolean; text: string }>({ busy: false, text: "" });
  const linesInput = useRef<HTMLTextAreaElement>(null);
  // Whoever opens this page came to type parts.
  useEffect(() => linesInput.current?.focus(), []);
  const read = useMemo(() => parseIntakeList(text), [text]);
  const lifeYears = parseNumber(life);
  const service: Service = { exposure, lifeYears: lifeYears.ok ? lifeYears.value : null, finish, serviceC: null };
  const chosen = powders.find((p) => p.id === powder);
  const list = read.ok ? read.value : { parts: [], problems: [] };
  const of = (part: IntakeLine): More => more[part.name] ?? usual;
  const set = (part: IntakeLine, change: Partial<More>) =>
    setMore({ ...more, [part.name]: { ...of(part), ...change } });
  const described = list.parts.map((part) => {
    const own = of(part);
    const whole = { ...part, features: own.features ?? part.features };
    const advice = exposure.length ? advise(whole, own.condition, service, schools) : null;
    const picked: AdvisedSystem | null = advice?.ok ? (advice.value[own.choice] ?? advice.value.recommended) : null;
    const system = picked && chosen ? { ...picked.system, family: chosen.family, topUm: chosen.um } : null;
    return { part: whole, own, advice, picked, system, against: system ? refusals(whole, service, system) : [] };
  });
  const open = described.flatMap((d) => d.against.filter((r) => (d.own.overrule[r.kind] ?? "").trim().length < 3));
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const body = {
      customer: String(form.get("customer")),
      powder,
      dueOn: String(form.get("due") ?? "") || null,
      exposure: [...exposure],
      lifeYears: service.lifeYears,
      finish,
      fabricationComplete: form.get("fabrication") === "on",
      serviceC: null,
      lines: described.map(({ part, own, system }) => ({
        ...part,
        features: [...part.features],
        assumed: [...part.assumed],
        condition: own.condition,
        system,
        overrule: own.overrule,
      })),
    };
    const content = JSON.stringify(body);
    if (id.current?.content !== content) id.current = { content, id: uuidv7() };
    setState({ busy: true, text: "" });
    const outcome = await receive({ id: id.current.id, ...body }).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setState({
      busy: false,
      text: outcome.ok
        ? ""
        : `${outcome.failure.line ? `Part ${String(outcome.failure.line)}: ` : ""}${outcome.failure.kind === "refused-system" ? (refusalText[String(outcome.failure.refusal)] ?? "") : failureText(outcome.failure)}`,
    });
    if (outcome.ok) router.push(outcome.href);
  };
  return (
    <form onSubmit={submit} className="mt-4 grid gap-5">
      <div className="grid grid-cols-[190px_minmax(0,1fr)_150px_120px] gap-3 max-[820px]:grid-cols-2">
        <div className="field">
          <label htmlFor="customer">Customer</label>
          <select id="customer" name="customer" className="input">
            {customers.map((c) => (
              <option key={c.id} value={c.id}>
                {c.label}
              </option>
            ))}
          </select>
        </div>
        <div className="field">
          <label htmlFor="powder">Powder asked for</label>
          <select id="powder" className="input" value={powder} onChange={(e) => setPowder(e.target.value)}>
            {powders.map((p) => (
              <option key={p.id} value={p.id}>
                {p.label}
              </option>
            ))}
          </select>
        </div>
        <div className="field">
          <label htmlFor="due">Due</label>
          <input id="due" name="due" type="date" className="input" />
        </div>
        <div className="field">
          <label htmlFor="life">Life asked, years</label>
          <input
            id="life"
            className="input num"
            inputMode="decimal"
            value={life}
            onChange={(e) => setLife(e.target.value)}
          />
        </div>
      </div>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <fieldset className="m-0 flex flex-wrap gap-x-5 border-0 p-0">
          <legend className="small soft">Where it will live</legend>
          {exposures.map((e) => (
            <label key={e} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={exposure.includes(e)}
                onChange={(x) => setExposure(x.target.checked ? [...exposure, e] : exposure.filter((y) => y !== e))}
              />
              {exposureName[e]}
            </label>
          ))}
        </fieldset>
        <div className="field w-[130px]">
          <label htmlFor="finish">Finish</label>
          <select
            id="finish"
            className="input"
            value={finish}
            onChange={(e) => setFinish(e.target.value as Service["finish"])}
          >
            {["standard", "smooth", "texture", "clear"].map((f) => (
              <option key={f}>{f}</option>
            ))}
          </select>
        </div>
      </div>
      <div className="field">
        <label htmlFor="parts">
          Parts, one a line: name, metal, length x width x height mm, thickest mm, kg, m², pieces; then words like
          laser, threads, laps 2.4
        </label>
        <textarea
          id="parts"
          ref={linesInput}
          onKeyDown={(e) => {
            if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) {
              e.preventDefault();
              e.currentTarget.form?.requestSubmit();
            }
          }}
          className="input fig"
          rows={6}
          spellCheck={false}
          placeholder={
            "Lamp head,cast alu,420x320x260,8,6.8,0.62,20\nBench,steel,1800x450x450,5,22,1.6,6,laser,laps 2.4"
          }
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <div className="flex flex-wrap gap-3">
          <label className="btn cursor-pointer">
            From a CSV file
            <input
              type="file"
              accept=".csv,.txt,.tsv,text/csv,text/plain"
              className="sr-only"
              onChange={async (e) => {
                const file = e.target.files?.[0];
                if (!file) return;
                if (file.size > 200_000) return setState({ busy: false, text: "The list is over 200 kB. Split it." });
                setText(await file.text());
              }}
            />
          </label>
          {known.length > 0 && (
            <select
              aria-label="A part already in the library"
              className="input max-w-[260px]"
              value=""
              onChange={(e) => setText(`${text}${text && !text.endsWith("\n") ? "\n" : ""}${e.target.value}`)}
            >
              <option value="">A known part …</option>
              {known.map((k) => (
                <option key={k.name} value={k.line}>
                  {k.name}
                </option>
              ))}
            </select>
          )}
        </div>
      </div>
      {!read.ok && <p className="text-out">{failureText(read.error)}</p>}
      {list.problems.map((p) => (
        <p key={p.line} className="m-0 border-l-4 border-out pl-3">
          <b>Line {p.line}</b> “{p.text}”: {failureText(p.failure)}
        </p>
      ))}
      {described.map((d) => (
        <PartPlan key={`${d.part.line}${d.part.name}`} {...d} set={(change) => set(d.part, change)} />
      ))}
      <label className="flex min-h-11 items-center gap-2">
        <input name="fabrication" type="checkbox" className="size-5" defaultChecked /> welding, plates and grinding are
        done
      </label>
      {state.text && (
        <p role="alert" className="m-0 border-l-4 border-out pl-3 text-out">
          {state.text}
        </p>
      )}
      <p className="m-0 flex flex-wrap items-center gap-3">
        <button
          type="submit"
          className="btn pri"
          disabled={state.busy || described.length === 0 || list.problems.length > 0 || open.length > 0}
        >
          {state.busy ? "Recording …" : described.length > 1 ? `Receive ${described.length} parts` : "Receive it"}
        </button>
        <span className="small soft">
          {described.length === 0
            ? "Type a part, or choose a known one."
            : list.problems.length > 0
              ? "Mend the lines above first; nothing is dropped."
              : open.length > 0
                ? "What cannot work wants a reason, or another choice."
                : `${described.length} job${described.length > 1 ? "s" : ""}, each with its own plan. Ctrl + Enter receives.`}
        </span>
      </p>
    </form>
  );
}

function PartPlan({
  part,
  own,
  advice,
  picked,
  against,
  set,
}: {
  part: IntakeLine & { readonly line: number };
  own: More;
  advice: ReturnType<typeof advise> | null;
  picked: AdvisedSystem | null;
  against: ReturnType<typeof refusals>;
  set: (change: Partial<More>) => void;
}) {
  const likely = picked?.risks.filter((r) => r.likelihood === "likely") ?? [];
  return (
    <section className="ruled" aria-label={part.name}>
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2>
          {part.name}{" "}
          <span className="soft small font-normal">
            {part.pieces} × {substrateName[part.substrate]}, {part.box.lengthMm} × {part.box.widthMm} ×{" "}
            {part.box.heightMm} mm,{" "}
            {part.thinnestMm === part.thickestMm ? part.thickestMm : `${part.thinnestMm}–${part.thickestMm}`} mm thick,{" "}
            {part.massKg.toFixed(1)} kg, {part.areaM2.toFixed(2)} m²
            {part.lapM > 0 ? `, laps ${part.lapM} m` : ""}
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
      <details className="mt-1">
        <summary className="link min-h-11 cursor-pointer content-center">Condition and what it has</summary>
        <div className="flex flex-wrap items-end gap-x-5 gap-y-2 pb-2">
          <div className="field w-[110px]">
            <label htmlFor={`rust-${part.line}`}>Rust grade</label>
            <select
              id={`rust-${part.line}`}
              className="input"
              value={own.condition.rust}
              onChange={(e) => set({ condition: { ...own.condition, rust: e.target.value as Condition["rust"] } })}
            >
              {rustGrades.map((g) => (
                <option key={g}>{g}</option>
              ))}
            </select>
          </div>
          <div className="field w-[130px]">
            <label htmlFor={`old-${part.line}`}>Old coating</label>
            <select
              id={`old-${part.line}`}
              className="input"
              value={own.condition.oldCoating}
              onChange={(e) => set({ condition: { ...own.condition, oldCoating: e.target.value as "none" } })}
            >
              <option>none</option>
              <option value="known">known kind</option>
              <option value="unknown">unknown kind</option>
            </select>
          </div>
          {(["scale", "weldSpatter", "oil"] as const).map((key) => (
            <label key={key} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={own.condition[key]}
                onChange={(e) => set({ condition: { ...own.condition, [key]: e.target.checked } })}
              />
              {{ scale: "mill scale", weldSpatter: "weld spatter", oil: "oil" }[key]}
            </label>
          ))}
          {partFeatures.map((f) => (
            <label key={f} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={part.features.includes(f)}
                onChange={(e) =>
                  set({ features: e.target.checked ? [...part.features, f] : part.features.filter((x) => x !== f) })
                }
              />
              {featureName[f]}
            </label>
          ))}
        </div>
      </details>
      {advice && !advice.ok && <p className="text-out">{failureText(advice.error)}</p>}
      {advice?.ok && (
        <SystemChoice
          name={`choice-${part.line}`}
          advice={advice.value}
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
}

/** The recommended system between a cheaper and a better one: what each gives up or adds, how long it lasts, what it costs. */
export function SystemChoice({
  name,
  advice,
  chosen,
  choose,
}: {
  name: string;
  advice: {
    readonly recommended: AdvisedSystem;
    readonly cheaper: AdvisedSystem | null;
    readonly better: AdvisedSystem | null;
  };
  chosen: Choice | null;
  choose: (choice: Choice) => void;
}) {
  const all = (["cheaper", "recommended", "better"] as const).flatMap((key) => {
    const system = advice[key];
    return system ? [{ key, system }] : [];
  });
  return (
    <div className="mt-1 grid gap-2" style={{ gridTemplateColumns: `repeat(auto-fit, minmax(230px, 1fr))` }}>
      {all.map(({ key, system: s }) => (
        <label
          key={key}
          className={`block cursor-pointer border-[1.5px] p-3 ${chosen === key ? "border-sorrel bg-sorrel-tint" : "border-rule-strong bg-raised"}`}
        >
          <span className="flex items-center justify-between gap-2">
            <span className="flex items-center gap-2">
              <input
                type="radio"
                name={name}
                className="size-5"
                checked={chosen === key}
                onChange={() => choose(key)}
              />
              <b>{{ cheaper: "Cheaper", recommended: "Recommended", better: "Better" }[key]}</b>
            </span>
            <span className="fig small">
              cost {Math.round((s.relativeCost / advice.recommended.relativeCost) * 100)} %
            </span>
          </span>
          <span className="mt-1 block leading-snug">{systemText(s.system)}</span>
          <span className="mt-1 block">
            <b className="fig text-[18px]">{lifeText(s.life)}</b>{" "}
            <span className="small soft">
              {s.life.limitedBy === "rust" ? "until rust" : "until colour goes"} <Grade grade={s.life.grade} />
            </span>
          </span>
          {s.changes.map((c) => (
            <span key={c} className="small soft block">
              {changeName[c] ?? c}
            </span>
          ))}
          <span className="small soft block">
            {s.risks.length === 0
              ? "no known risk left"
              : `${s.risks.length} risk${s.risks.length > 1 ? "s" : ""} left`}
          </span>
        </label>
      ))}
    </div>
  );
}
