"use client";
import { type FormEvent, useState } from "react";
import { type BathParameter, judgeBathValue, sameProduct } from "@/core/bath";
import { Choice } from "../fields/choice";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry, type Reader, readerOf } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { bathValue, parameterLabel, parameterName, parameterUnit } from "../words/baths";
import { failureText } from "../words/failures";
import { AskedAgain } from "./asked-again";
import { readBathValue } from "./read-value";

type Windows = Record<
  string,
  { lower: number | null; upper: number | null; watchLower: number | null; watchUpper: number | null }
>;

/** One bath round: what the meter and burette say, judged as it is typed. The blank is the one that is set, until another is typed. */
export function BathCheckForm({
  bath,
  parameters,
  titrations,
  windows,
  drums,
  last,
}: {
  bath: string;
  parameters: readonly BathParameter[];
  /** Value per mL of titrant, for what is titrated. */
  titrations: Readonly<Partial<Record<BathParameter, { readonly factor: number; readonly blankMl: number }>>>;
  windows: Windows;
  /** Drums on hand, the one to use first leading. */
  drums: readonly { readonly code: string; readonly product: string; readonly lot: string; readonly leftL: number }[];
  /** The newest round, which can be corrected. */
  last: { recordId: string; label: string; typed: Record<string, string>; blank: string | null } | null;
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`check ${bath}`, {
    typed: {} as Record<string, string>,
    blank: String(titrations.concentration?.blankMl ?? 0),
    correcting: false,
    reason: "",
  });
  const heldChange = useEntryForm(`change ${bath}`, {
    what: "addition" as "addition" | "dump" | "recharge",
    product: "",
    amount: "",
    note: "",
    lot: null as string | null,
  });
  const [typed, setTyped] = held.field("typed");
  const [blank, setBlank] = held.field("blank");
  const F = fieldsOf(heldChange);
  const { what, product, note } = heldChange.values;
  const [problem, setProblem] = useState<string | null>(null);
  const [correcting, setCorrecting] = held.field("correcting");
  const [reason, setReason] = held.field("reason");
  const round = useRecorder(held);
  const change = useRecorder(heldChange);
  const [lot, setLot] = heldChange.field("lot");
  const fitting = what === "addition" ? drums.filter((d) => sameProduct(d.product, product)) : [];
  // The one to use first, until another is chosen.
  const drum = lot === "" ? null : (fitting.find((d) => d.code === lot) ?? fitting[0] ?? null);
  const titrates = (p: BathParameter) => titrations[p] !== undefined;

  const read = (p: BathParameter) =>
    readBathValue(p, typed[p] ?? "", p === "concentration" ? blank : String(titrations[p]?.blankMl ?? 0), {
      units,
      titrationFactor: titrations[p]?.factor ?? null,
    });

  const submit = async (e: FormEvent) => {
    e.preventDefault();
    await record(false);
  };
  const record = async (sure: boolean) => {
    setProblem(null);
    const values = [];
    for (const p of parameters) {
      const found = read(p);
      if (!found) continue;
      if ("failure" in found) return setProblem(failureText(found.failure));
      values.push({
        parameter: p,
        value: found.value,
        typed: typed[p]?.trim() ?? "",
        typedUnit: titrates(p) ? "mL" : parameterUnit(p, units),
        titrantMl: found.titrantMl,
        blankMl: found.blankMl,
      });
    }
    if (values.length === 0) return setProblem("Type at least one value.");
    if (correcting && reason.trim() === "")
      return setProblem("Say why it is corrected; the old round stays on record with it.");
    const supersedes = correcting && last ? { recordId: last.recordId, reason } : null;
    if (await round.send({ kind: "bath-check", bath, values, supersedes, sure })) {
      setTyped({});
      setCorrecting(false);
      setReason("");
    }
  };
  const recordChange = ({ maybe }: Reader<typeof heldChange.values>, sure: boolean) => {
    const amountL = maybe("amount", "volume");
    return change.send({
      kind: "bath-event",
      bath,
      event: what,
      product,
      amountL,
      note,
      lot: drum?.code ?? null,
      sure,
    });
  };
  return (
    <>
      <form onSubmit={submit} className="grid gap-2" noValidate>
        {held.said}
        {parameters.map((p) => {
          const found = read(p);
          return (
            <div key={p} className="grid grid-cols-[108px_92px_minmax(0,1fr)] items-center gap-2">
              <label htmlFor={`check-${p}`}>
                {titrates(p)
                  ? p === "concentration"
                    ? "titrant, mL"
                    : `${parameterName[p]}, mL`
                  : parameterLabel(p, units)}
              </label>
              <input
                id={`check-${p}`}
                className="input num"
                inputMode="decimal"
                autoComplete="off"
                value={typed[p] ?? ""}
                onChange={(e) => setTyped({ ...typed, [p]: e.target.value })}
              />
              {found &&
                ("failure" in found ? (
                  <span className="small text-out">{failureText(found.failure)}</span>
                ) : (
                  <Verdict result={judgeBathValue(found.value, windows[p] ?? null)}>
                    {titrates(p)
                      ? bathValue(p, found.value, units)
                      : { in: "in", watch: "near limit", out: "out", unknown: "no window" }[
                          judgeBathValue(found.value, windows[p] ?? null)
                        ]}
                  </Verdict>
                ))}
            </div>
          );
        })}
        {titrations.concentration && (
          <div className="grid grid-cols-[108px_92px] items-center gap-2">
            <label htmlFor="check-blank">blank, mL</label>
            <input
              id="check-blank"
              className="input num"
              inputMode="decimal"
              value={blank}
              onChange={(e) => setBlank(e.target.value)}
            />
          </div>
        )}
        {correcting && (
          <div className="field">
            <label htmlFor="check-reason">Why the round of {last?.label} is corrected</label>
            <input
              id="check-reason"
              className="input"
              maxLength={400}
              value={reason}
              onChange={(e) => setReason(e.target.value)}
            />
          </div>
        )}
        {problem && (
          <p role="alert" className="text-out">
            {problem}
          </p>
        )}
        <p className="flex items-center gap-3">
          <button type="submit" className="btn pri" disabled={round.busy}>
            {round.busy ? "Recording …" : correcting ? "Record the correction" : "Record round"}
          </button>
          {round.message && (
            <output className={round.message.good ? "text-in" : "text-out"}>{round.message.text}</output>
          )}
        </p>
        <AskedAgain
          refused={round.refused}
          units={units}
          busy={round.busy}
          use={(parameter, text) => setTyped({ ...typed, [parameter]: text })}
          sure={() => void record(true)}
        />
      </form>
      {last && (
        <button
          type="button"
          className="link mt-1 min-h-11 text-left"
          onClick={() => {
            setCorrecting(!correcting);
            setTyped(correcting ? {} : last.typed);
            if (last.blank !== null) setBlank(last.blank);
          }}
        >
          {correcting ? "Leave it as it was" : `Correct the round of ${last.label}`}
        </button>
      )}
      <Fold className="mt-2" summaryClassName="min-h-11" summary="Log an addition, dump or recharge">
        <Entry
          held={heldChange}
          id="change"
          sending={change}
          button="Record it"
          className="mt-1 grid gap-2"
          begin={["what", "product", "amount", "note"]}
          send={(read) => recordChange(read, false)}
        >
          <div className="grid grid-cols-[1fr_104px] gap-2">
            <F.Pick name="what" label="What was done" of={["addition", "dump", "recharge"]} />
            <F.Num name="amount" label="How much" quantity="volume" />
          </div>
          <F.Words name="product" label="Product, as on the drum" most={80} />
          {fitting.length > 0 && (
            <div className="field">
              <label htmlFor="addition-drum">From the drum</label>
              <Choice id="addition-drum" className="input" value={drum?.code ?? ""} onChange={setLot}>
                {fitting.map((d) => (
                  <option key={d.code} value={d.code}>
                    {d.lot}, {withUnit(d.leftL, "volume", units)} left
                  </option>
                ))}
                <option value="">not one of these</option>
              </Choice>
            </div>
          )}
          {(change.refused?.kind === "addition-in-question" || change.refused?.kind === "reason-needed-here") && (
            <div className="border-l-4 border-watch pl-3">
              <F.Words name="note" id="addition-reason" label="It goes in all the same, because" most={400} />
              <button
                type="button"
                className="btn mt-2"
                disabled={change.busy || note.trim().length < 3}
                onClick={async () => {
                  if (await recordChange(readerOf(heldChange.values, units), true))
                    heldChange.again(["what", "product", "amount", "note"]);
                }}
              >
                Record it with this reason
              </button>
            </div>
          )}
        </Entry>
      </Fold>
    </>
  );
}
