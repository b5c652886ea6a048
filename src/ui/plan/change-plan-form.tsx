"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import type { AdvisedSystem, CoatingSystem, Condition } from "@/core/plan";
import { RecordRow } from "../forms/recorded";
import { Verdict } from "../marks/verdict";
import { failureText } from "../words/failures";
import { curingName, refusalText } from "../words/plan";
import { SystemChoice } from "./system-choice";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };
type Change = (input: unknown) => Promise<Outcome>;

/** Sends a change of a plan once, whatever is pressed; what was typed stays when it is refused. */
export function usePlanChange(job: string, seen: number, change: Change) {
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
      router.refresh();
    }
    return outcome.ok;
  };
  return { send, busy, message, refused };
}

/** Choosing another system for a job: cheaper or better beside the one advised; after release with its reason. */
export function ChangeSystem({
  job,
  seen,
  released,
  advice,
  current,
  condition,
  change,
}: {
  job: string;
  seen: number;
  released: boolean;
  advice: {
    readonly recommended: AdvisedSystem;
    readonly cheaper: AdvisedSystem | null;
    readonly better: AdvisedSystem | null;
  };
  current: CoatingSystem | null;
  condition: Condition;
  change: Change;
}) {
  const same = (a: CoatingSystem | undefined) =>
    JSON.stringify(withoutPowder(a)) === JSON.stringify(withoutPowder(current));
  const standing = (["recommended", "cheaper", "better"] as const).find((key) => same(advice[key]?.system)) ?? null;
  const [choice, setChoice] = useState(standing);
  const [reason, setReason] = useState("");
  const [why, setWhy] = useState("");
  const { send, busy, message, refused } = usePlanChange(job, seen, change);
  const [schools, setSchools] = useState<Partial<Pick<CoatingSystem, "pretreatment" | "curing">>>({});
  const picked = choice ? advice[choice] : null;
  const base = picked?.system ?? current;
  const conversion = schools.pretreatment ?? base?.pretreatment;
  const curing = schools.curing ?? base?.curing;
  const otherSchool =
    base !== null &&
    base !== undefined &&
    (conversion !== current?.pretreatment || curing !== current?.curing) &&
    Object.keys(schools).length > 0;
  const changed = (choice !== null && choice !== standing) || otherSchool;
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (!base) return;
    const system = { ...base, ...schools, ...(current ? { family: current.family, topUm: current.topUm } : {}) };
    await send({ system, condition, reason, ...(refused && why ? { overrule: { [refused]: why } } : {}) });
  };
  return (
    <form onSubmit={submit} className="grid gap-3">
      <SystemChoice name="system" advice={advice} chosen={choice} choose={setChoice} />
      {base && (
        <div className="flex flex-wrap gap-3">
          {(base.pretreatment === "iron-phosphate" || base.pretreatment === "zirconium") && (
            <div className="field w-[190px]">
              <label htmlFor="school-conversion">Conversion, for this job</label>
              <select
                id="school-conversion"
                className="input"
                value={conversion}
                onChange={(e) =>
                  setSchools({ ...schools, pretreatment: e.target.value as CoatingSystem["pretreatment"] })
                }
              >
                <option value="iron-phosphate">iron phosphate</option>
                <option value="zirconium">zirconium</option>
              </select>
            </div>
          )}
          {base.primer !== "none" && (
            <div className="field w-[330px]">
              <label htmlFor="school-curing">How the coats are cured, for this job</label>
              <select
                id="school-curing"
                className="input"
                value={curing}
                onChange={(e) => setSchools({ ...schools, curing: e.target.value as CoatingSystem["curing"] })}
              >
                {(["primer-gelled", "dry-on-dry", "two-full-cures"] as const).map((c) => (
                  <option key={c} value={c}>
                    {curingName[c]}
                  </option>
                ))}
              </select>
            </div>
          )}
        </div>
      )}
      {changed && (
        <>
          {released && (
            <div className="field max-w-[560px]">
              <label htmlFor="change-reason">Why it changes after release to the shop</label>
              <input
                id="change-reason"
                className="input"
                required
                minLength={3}
                maxLength={400}
                value={reason}
                onChange={(e) => setReason(e.target.value)}
              />
            </div>
          )}
          {refused && (
            <div className="border-l-4 border-out pl-3">
              <Verdict result="out">Cannot work</Verdict>
              <div className="field mt-1 max-w-[560px]">
                <label htmlFor="overrule">Done all the same, because</label>
                <input
                  id="overrule"
                  className="input"
                  required
                  minLength={3}
                  maxLength={400}
                  value={why}
                  onChange={(e) => setWhy(e.target.value)}
                />
              </div>
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
