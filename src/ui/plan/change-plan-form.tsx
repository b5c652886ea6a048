"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import type { AdvisedSystem, CoatingSystem, Condition, ShopHas } from "@/core/plan";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";
import { curingName, refusalText } from "../words/plan";
import { SystemChoice } from "./system-choice";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
type Change = (input: unknown) => Promise<Outcome>;

/** Sends a change of a plan once, whatever is pressed; what was typed stays when it is refused. */
export function usePlanChange(job: string, seen: number, change: Change, held?: { readonly done: () => void }) {
  const router = useRouter();
  const id = useRef<{ content: string; id: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const send = async (body: object): Promise<boolean> => {
    const content = JSON.stringify(body);
    if (id.current?.content !== content) id.current = { content, id: uuidv7() };
    setBusy(true);
    const outcome = await change({ id: id.current.id, job, seen, reason: "", release: false, ...body }).catch(
      (): Outcome => ({ ok: false, failure: { kind: "not-saved" } }),
    );
    setBusy(false);
    setRefused(!outcome.ok && outcome.failure.kind === "refused-system" ? String(outcome.failure.refusal) : null);
    setMessage(
      outcome.ok
        ? { good: true, text: "Recorded as a new version." }
        : {
            good: false,
            text:
              outcome.failure.kind === "refused-system"
                ? (refusalText[String(outcome.failure.refusal)] ?? "")
                : failureText(outcome.failure),
          },
    );
    if (outcome.ok) {
      id.current = null;
      held?.done();
      router.refresh();
    }
    return outcome.ok;
  };
  return { send, busy, message, refused };
}

/** What of a system is chosen by itself, whatever the advised ones hold. */
const options = [
  ["sealSeams", "seams sealed"],
  ["breakEdges", "edges broken"],
  ["outgas", "outgassed before powder"],
] as const;

/** Racks that hang stay under the plan they were hung by, unless it is said that they go over. */
export function GoesOver({
  racks,
  move,
  setMove,
}: {
  racks: readonly string[];
  move: boolean;
  setMove: (move: boolean) => void;
}) {
  if (racks.length === 0) return null;
  return (
    <label className="flex min-h-11 items-center gap-2 border-watch border-l-4 pl-3">
      <Tick checked={move} onChange={setMove} />
      <span>
        {racks.length === 1 ? "Rack" : "Racks"} {racks.slice(0, 12).join(", ")}
        {racks.length > 12 && ` and ${racks.length - 12} more`} {racks.length === 1 ? "hangs" : "hang"} under the plan
        as it is: over to the new one
      </span>
    </label>
  );
}

/** Racks that were hung under an older plan, moved over to the one that stands, with the reason. */
export function MoveRacks({
  job,
  seen,
  racks,
  change,
}: {
  job: string;
  seen: number;
  racks: readonly { readonly number: string; readonly version: number }[];
  change: Change;
}) {
  const held = useEntryForm(`move racks ${job}`, { reason: "" });
  const [reason, setReason] = held.field("reason");
  const { send, busy, message } = usePlanChange(job, seen, change, held);
  if (racks.length === 0) return message && <output className="text-in">{message.text}</output>;
  return (
    <form
      className="grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void send({ move: true, reason });
      }}
    >
      {held.said}
      <p className="m-0">
        {racks.length === 1 ? "This rack hangs" : "These racks hang"} under an older plan:{" "}
        <b className="fig">
          {racks.map((r) => `${r.number} (${r.version === 0 ? "as taken in" : `version ${r.version}`})`).join(", ")}
        </b>
        .
      </p>
      <TextField
        id="move-reason"
        className="max-w-[560px]"
        label="Why they go over to this one"
        text={reason}
        change={setReason}
        least={3}
        most={400}
        required
      />
      <RecordRow busy={busy} message={message} primary={false}>
        Move them
      </RecordRow>
    </form>
  );
}

/** Choosing another system for a job: cheaper or better beside the one advised; after release with its reason. */
export function ChangeSystem({
  job,
  seen,
  released,
  advice,
  current,
  condition,
  hanging,
  has,
  change,
}: {
  job: string;
  seen: number;
  released: boolean;
  /** What the shop can do itself. */
  has: ShopHas;
  advice: {
    readonly recommended: AdvisedSystem;
    readonly cheaper: AdvisedSystem | null;
    readonly better: AdvisedSystem | null;
  };
  current: CoatingSystem | null;
  condition: Condition;
  /** Racks that are not gone and hang under the plan as it is. */
  hanging: readonly string[];
  change: Change;
}) {
  const same = (a: CoatingSystem | undefined) =>
    JSON.stringify(withoutPowder(a)) === JSON.stringify(withoutPowder(current));
  const standing = (["recommended", "cheaper", "better"] as const).find((key) => same(advice[key]?.system)) ?? null;
  const held = useEntryForm(`system ${job}`, {
    choice: standing,
    reason: "",
    why: "",
    move: false,
    schools: {} as Partial<Pick<CoatingSystem, "pretreatment" | "curing" | "sealSeams" | "breakEdges" | "outgas">>,
  });
  const [choice, setChoice] = held.field("choice");
  const [reason, setReason] = held.field("reason");
  const [why, setWhy] = held.field("why");
  const [move, setMove] = held.field("move");
  const [schools, setSchools] = held.field("schools");
  const { send, busy, message, refused } = usePlanChange(job, seen, change, held);
  const picked = choice ? advice[choice] : null;
  const base = picked?.system ?? current;
  const conversion = schools.pretreatment ?? base?.pretreatment;
  const curing = schools.curing ?? base?.curing;
  const otherSchool =
    base !== null &&
    base !== undefined &&
    (conversion !== current?.pretreatment ||
      curing !== current?.curing ||
      options.some(([key]) => (schools[key] ?? base[key]) !== current?.[key])) &&
    Object.keys(schools).length > 0;
  const changed = (choice !== null && choice !== standing) || otherSchool;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (!base) return;
    const system = { ...base, ...schools, ...(current ? { family: current.family, topUm: current.topUm } : {}) };
    await send({ system, condition, reason, move, ...(refused && why ? { overrule: { [refused]: why } } : {}) });
  };
  return (
    <form onSubmit={submit} className="grid gap-3">
      {held.said}
      <SystemChoice advice={advice} has={has} chosen={choice} choose={setChoice} />
      {base && (
        <div className="flex flex-wrap gap-3">
          {(base.pretreatment === "iron-phosphate" || base.pretreatment === "zirconium") && (
            <div className="field w-[190px]">
              <label htmlFor="school-conversion">Conversion, for this job</label>
              <Choice
                id="school-conversion"
                className="input"
                value={conversion}
                onChange={(value) => setSchools({ ...schools, pretreatment: value as CoatingSystem["pretreatment"] })}
              >
                <option value="iron-phosphate">iron phosphate</option>
                <option value="zirconium">zirconium</option>
              </Choice>
            </div>
          )}
          {base.primer !== "none" && (
            <div className="field w-[330px]">
              <label htmlFor="school-curing">How the coats are cured, for this job</label>
              <Choice
                id="school-curing"
                className="input"
                value={curing}
                onChange={(value) => setSchools({ ...schools, curing: value as CoatingSystem["curing"] })}
              >
                {(["primer-gelled", "dry-on-dry", "two-full-cures"] as const).map((c) => (
                  <option key={c} value={c}>
                    {curingName[c]}
                  </option>
                ))}
              </Choice>
            </div>
          )}
          {options.map(([key, label]) => (
            <label key={key} className="flex min-h-11 items-center gap-2 self-end">
              <Tick checked={schools[key] ?? base[key]} onChange={(on) => setSchools({ ...schools, [key]: on })} />
              {label}
            </label>
          ))}
        </div>
      )}
      {changed && (
        <>
          <GoesOver racks={hanging} move={move} setMove={setMove} />
          {(released || move) && (
            <TextField
              id="change-reason"
              className="max-w-[560px]"
              label={`Why it changes ${move ? "for racks that hang" : "after release to the shop"}`}
              text={reason}
              change={setReason}
              least={3}
              most={400}
              required
            />
          )}
          {refused && (
            <div className="border-l-4 border-out pl-3">
              <Verdict result="out">Cannot work</Verdict>
              <TextField
                id="overrule"
                className="mt-1 max-w-[560px]"
                label="Done all the same, because"
                text={why}
                change={setWhy}
                least={3}
                most={400}
                required
              />
            </div>
          )}
          <RecordRow busy={busy} message={message}>
            Take this system
          </RecordRow>
        </>
      )}
      {!changed && message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </form>
  );
}
const withoutPowder = (s: CoatingSystem | null | undefined) => (s ? { ...s, family: "", topUm: [] } : null);

/** The card goes to the shop: from then on it is the thread of every rack hung, and a change wants a reason. */
export function ReleasePlan({ job, seen, change }: { job: string; seen: number; change: Change }) {
  const { send, busy, message } = usePlanChange(job, seen, change);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void send({ release: true, reason: "Released to the shop" });
      }}
    >
      <RecordRow busy={busy} message={message}>
        Release to the shop
      </RecordRow>
    </form>
  );
}
