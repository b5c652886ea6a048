"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import {
  asNew,
  type Equipment,
  type Exposure,
  exposures,
  type Family,
  parseIntakeList,
  type Schools,
  type Service,
  type ShopHas,
} from "@/core/plan";
import { fahrenheitToC } from "@/core/units";
import { Choice } from "../fields/choice";
import { FromFile } from "../fields/from-file";
import { Tick } from "../fields/tick";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { NoneSetUp } from "../shop/none-set-up";
import { failureText } from "../words/failures";
import { exposureName, refusalText } from "../words/plan";
import { describer, type More } from "./described-part";
import { PartPlan } from "./part-plan";
import { RequirementFields, readRequirement, useRequirement } from "./requirement-fields";
import { useFit } from "./use-fit";

type Outcome =
  | { readonly ok: true; readonly href: string; readonly jobs: readonly string[] }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
const usual: More = { condition: asNew, features: null, choice: "recommended", overrule: {} };

/** Work comes in: one part a line, read as it is typed; its risks and its system beside it; then a job for each. */
export function ReceiveForm({
  customers,
  powders,
  schools,
  has,
  places,
  rooms,
  known,
  asked,
  receive,
}: {
  customers: readonly { readonly id: string; readonly label: string }[];
  powders: readonly {
    readonly id: string;
    readonly label: string;
    readonly family: Family;
    readonly um: readonly [number, number];
    /** How its sheet says it flows; null for the usual. */
    readonly flow: "high" | "low" | null;
  }[];
  schools: Schools;
  /** What the shop can do itself. */
  has: ShopHas;
  /** What every part is held against before it is taken in. */
  places: readonly Equipment[];
  rooms: { readonly marginMm: number; readonly gapMm: number };
  known: readonly { readonly name: string; readonly line: string }[];
  /** What the shop asks for where a customer says nothing. */
  asked: { readonly worstIso: number; readonly cure: "index" | "hold" };
  receive: (input: unknown) => Promise<Outcome>;
}) {
  const { units } = usePreferences();
  const router = useRouter();
  const id = useRef<{ content: string; id: string } | null>(null);
  const held = useEntryForm("receive work", {
    text: "",
    exposure: ["weather"] as readonly Exposure[],
    life: "",
    hottest: "",
    finish: "standard" as Service["finish"],
    handSteps: 0,
    powder: (powders.find((p) => p.family === "polyester") ?? powders[0])?.id ?? "",
    more: {} as Readonly<Record<string, More>>,
    customer: customers[0]?.id ?? "",
    due: "",
    order: "",
    note: "",
    fabrication: true,
  });
  const [text, setText] = held.field("text");
  const [exposure, setExposure] = held.field("exposure");
  const [life, setLife] = held.field("life");
  const [hottest, setHottest] = held.field("hottest");
  const [finish, setFinish] = held.field("finish");
  const [handSteps, setHandSteps] = held.field("handSteps");
  const [powder, setPowder] = held.field("powder");
  const [more, setMore] = held.field("more");
  const [state, setState] = useState<{ busy: boolean; text: string }>({ busy: false, text: "" });
  const linesInput = useRef<HTMLTextAreaElement>(null);
  // Whoever opens this page came to type parts.
  useEffect(() => linesInput.current?.focus(), []);
  const read = useMemo(() => parseIntakeList(text), [text]);
  const lifeYears = parseTyped(life);
  const heat = exposure.includes("heat") ? parseTyped(hottest) : null;
  const service: Service = {
    exposure,
    lifeYears: lifeYears.ok ? lifeYears.value : null,
    finish,
    serviceC: heat?.ok ? (units === "us" ? fahrenheitToC(heat.value) : heat.value) : null,
  };
  const chosen = powders.find((p) => p.id === powder) ?? null;
  const requirement = useRequirement(chosen?.um ?? null, asked);
  const required = readRequirement(requirement, units);
  // What is typed and is no number is said, never dropped.
  const notNumbers = [
    ...(life.trim() !== "" && !lifeYears.ok ? [lifeYears.error] : []),
    ...(heat && hottest.trim() !== "" && !heat.ok ? [heat.error] : []),
    ...required.wrong.flatMap((typed) => {
      const number = parseTyped(typed);
      return number.ok ? [] : [number.error];
    }),
  ];
  const serviceText = JSON.stringify(service);
  const describePart = useMemo(
    () => describer(JSON.parse(serviceText), schools, chosen),
    [serviceText, schools, chosen],
  );
  const set = useCallback(
    (name: string, change: Partial<More>) =>
      setMore((before) => ({ ...before, [name]: { ...(before[name] ?? usual), ...change } })),
    [setMore],
  );
  const list = read.ok ? read.value : { parts: [], problems: [] };
  const fits = useFit({ parts: list.parts.map(({ box, massKg }) => ({ box, massKg })), places, rooms, units });
  const described = list.parts.map((part) => describePart(part, more[part.name] ?? usual));
  const open = described.flatMap((d) => d.against.filter((r) => (d.own.overrule[r.kind] ?? "").trim().length < 3));
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const { customer, due, order, note, fabrication } = held.values;
    const body = {
      customer,
      powder,
      dueOn: due || null,
      customerOrder: order,
      deliveryNote: note,
      requirement: required.value,
      exposure: [...exposure],
      lifeYears: service.lifeYears,
      finish,
      handSteps,
      fabricationComplete: fabrication,
      serviceC: service.serviceC,
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
    if (!outcome.ok) return;
    held.done();
    requirement.done();
    router.push(outcome.href);
  };
  return (
    <form onSubmit={submit} className="mt-4 grid gap-5">
      {held.said}
      {customers.length === 0 && <NoneSetUp what="customer" href="/shop/customers" />}
      {powders.length === 0 && <NoneSetUp what="powder" href="/coat/powders" />}
      <div className="grid grid-cols-[190px_minmax(0,1fr)_150px_120px] gap-3 max-[820px]:grid-cols-2">
        <div className="field">
          <label htmlFor="customer">Customer</label>
          <Choice id="customer" {...held.choice("customer")} className="input">
            {customers.map((c) => (
              <option key={c.id} value={c.id}>
                {c.label}
              </option>
            ))}
          </Choice>
        </div>
        <div className="field">
          <label htmlFor="powder">Powder asked for</label>
          <Choice id="powder" className="input" value={powder} onChange={setPowder}>
            {powders.map((p) => (
              <option key={p.id} value={p.id}>
                {p.label}
              </option>
            ))}
          </Choice>
          {chosen?.flow && (
            <span className="small soft" role="status">
              {chosen.flow === "high"
                ? "Flows far: smooth faces, but it draws thin from sharp edges and runs where it is thick. For edges that must hold, break them, prime them, or ask for a usual flow."
                : "Flows little: edges keep their film, but the face stays textured. For a smooth face ask for a usual flow."}
            </span>
          )}
        </div>
        <div className="field">
          <label htmlFor="due">Due</label>
          <input id="due" {...held.register("due")} type="date" className="input" />
        </div>
        <TypedNumber id="life" label="Life asked, years" text={life} change={setLife} />
        <div className="field">
          <label htmlFor="order">Customer’s order number</label>
          <input id="order" {...held.register("order")} className="input" maxLength={60} />
        </div>
        <div className="field">
          <label htmlFor="note">Delivery note</label>
          <input id="note" {...held.register("note")} className="input" maxLength={60} />
        </div>
      </div>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
        <fieldset className="m-0 flex flex-wrap gap-x-5 border-0 p-0">
          <legend className="small soft">Where it will live</legend>
          {exposures.map((e) => (
            <label key={e} className="flex min-h-11 items-center gap-2">
              <Tick
                checked={exposure.includes(e)}
                onChange={(on) => setExposure(on ? [...exposure, e] : exposure.filter((y) => y !== e))}
              />
              {exposureName[e]}
            </label>
          ))}
        </fieldset>
        {exposure.includes("heat") && (
          <TypedNumber
            id="hottest"
            label={`Hottest in service, ${units === "us" ? "°F" : "°C"}`}
            text={hottest}
            change={setHottest}
            required
          />
        )}
        <div className="field w-[130px]">
          <label htmlFor="finish">Finish</label>
          <Choice
            id="finish"
            className="input"
            value={finish}
            onChange={(value) => setFinish(value as Service["finish"])}
          >
            {["standard", "smooth", "texture", "clear"].map((f) => (
              <option key={f}>{f}</option>
            ))}
          </Choice>
        </div>
        <div className="field w-[190px]">
          <label htmlFor="hand-steps">Hand finishing after cure</label>
          <Choice id="hand-steps" className="input" value={handSteps} onChange={(value) => setHandSteps(Number(value))}>
            <option value={0}>none</option>
            {[1, 2, 3, 4, 5].map((n) => (
              <option key={n} value={n}>
                {n} step{n > 1 ? "s" : ""} and lacquer
              </option>
            ))}
          </Choice>
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
          <FromFile className="btn cursor-pointer" take={setText}>
            From a CSV file
          </FromFile>
          {known.length > 0 && (
            <Choice
              aria-label="A part already in the library"
              className="input max-w-[260px]"
              value=""
              onChange={(value) => setText(`${text}${text && !text.endsWith("\n") ? "\n" : ""}${value}`)}
            >
              <option value="">A known part …</option>
              {known.map((k) => (
                <option key={k.name} value={k.line}>
                  {k.name}
                </option>
              ))}
            </Choice>
          )}
        </div>
      </div>
      <RequirementFields state={requirement} units={units} />
      {notNumbers.map((failure) => (
        <p key={String(failure.text)} className="m-0 border-l-4 border-out pl-3 text-out">
          {failureText(failure)}
        </p>
      ))}
      {!read.ok && <p className="text-out">{failureText(read.error)}</p>}
      {list.problems.map((p) => (
        <p key={p.line} className="m-0 border-l-4 border-out pl-3">
          <b>Line {p.line}</b> “{p.text}”: {failureText(p.failure)}
        </p>
      ))}
      {described.map((d, i) => (
        <PartPlan key={`${d.part.line}${d.part.name}`} has={has} described={d} fit={fits[i]} set={set} />
      ))}
      <label className="flex min-h-11 items-center gap-2">
        <Tick {...held.tick("fabrication")} /> welding, plates and grinding are done
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
          disabled={
            state.busy || described.length === 0 || list.problems.length > 0 || open.length > 0 || notNumbers.length > 0
          }
        >
          {state.busy ? "Recording …" : described.length > 1 ? `Receive ${described.length} parts` : "Receive it"}
        </button>
        <span className="small soft">
          {described.length === 0
            ? "Type a part, or choose a known one."
            : list.problems.length > 0
              ? "Mend the lines above first; nothing is dropped."
              : notNumbers.length > 0
                ? "Mend the number above first; nothing is dropped."
                : open.length > 0
                  ? "What cannot work wants a reason, or another choice."
                  : `${described.length} job${described.length > 1 ? "s" : ""}, each with its own plan. Ctrl + Enter receives.`}
        </span>
      </p>
    </form>
  );
}
