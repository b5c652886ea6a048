"use client";
import { useEffect, useState } from "react";
import { Choice } from "../fields/choice";
import { failureText } from "../words/failures";
import { ShiftRows, type ShiftText } from "./shift-rows";
import { markNames, orderNames, unitNames } from "./written-names";

const usual: readonly ShiftText[] = [{ key: 0, name: "Day shift", from: "07:00" }];

/** A shop's beginning: what it is called, when it works, and who looks after it. A password stands in it, so it is no draft. */
export function FirstRunForm({
  zones,
  least,
  begin,
}: {
  zones: readonly string[];
  least: number;
  begin: (
    input: unknown,
  ) => Promise<{ readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } }>;
}) {
  const [texts, setTexts] = useState({ shop: "", name: "", username: "", password: "", again: "" });
  const [zone, setZone] = useState("UTC");
  const [shifts, setShifts] = useState(usual);
  const [workDays, setWorkDays] = useState<readonly number[]>([1, 2, 3, 4, 5]);
  const [written, setWritten] = useState({ units: "metric", mark: "", order: "" });
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  // The zone of whoever begins is mostly the shop's.
  useEffect(() => {
    const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
    if (zones.includes(own)) setZone(own);
  }, [zones]);
  const field = (name: keyof typeof texts, label: string, more: object = {}) => (
    <div className="field">
      <label htmlFor={`begin-${name}`}>{label}</label>
      <input
        id={`begin-${name}`}
        className="input"
        required
        maxLength={80}
        value={texts[name]}
        onChange={(e) => setTexts((t) => ({ ...t, [name]: e.target.value }))}
        {...more}
      />
    </div>
  );
  const secret = { type: "password", minLength: least, maxLength: 200, autoComplete: "new-password" };
  return (
    <form
      className="mt-6 grid gap-6"
      onSubmit={async (e) => {
        e.preventDefault();
        if (texts.password !== texts.again) return setProblem(failureText({ kind: "passwords-differ" }));
        setBusy(true);
        setProblem(null);
        const { again: _, ...told } = texts;
        const outcome = await begin({
          ...told,
          timeZone: zone,
          shifts: shifts.map(({ name, from }) => ({ name, from })),
          workDays,
          units: written.units,
          decimalMark: written.mark === "" ? null : written.mark,
          dateOrder: written.order === "" ? null : written.order,
        }).catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
        // Where it is begun the page is left.
        if (outcome) setProblem(failureText(outcome.failure));
        setBusy(false);
      }}
    >
      <section className="ruled grid gap-3">
        <h2>The shop</h2>
        <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
          {field("shop", "What it is called, as on its certificates")}
          <div className="field">
            <label htmlFor="begin-zone">Time zone</label>
            <Choice id="begin-zone" className="input" value={zone} onChange={setZone}>
              {zones.map((z) => (
                <option key={z} value={z}>
                  {z.replaceAll("_", " ")}
                </option>
              ))}
            </Choice>
          </div>
        </div>
        <div className="grid grid-cols-3 gap-3 max-[560px]:grid-cols-1">
          {(
            [
              ["units", "Units", unitNames],
              ["mark", "Decimals are written", markNames],
              ["order", "Dates in files, where none tells", orderNames],
            ] as const
          ).map(([name, label, of]) => (
            <div key={name} className="field">
              <label htmlFor={`begin-${name}`}>{label}</label>
              <Choice
                id={`begin-${name}`}
                className="input"
                value={written[name]}
                onChange={(value) => setWritten((w) => ({ ...w, [name]: value }))}
              >
                {of.map(([value, words]) => (
                  <option key={value} value={value}>
                    {words}
                  </option>
                ))}
              </Choice>
            </div>
          ))}
        </div>
        <ShiftRows id="begin" shifts={shifts} setShifts={setShifts} workDays={workDays} setWorkDays={setWorkDays} />
      </section>
      <section className="ruled grid gap-3">
        <h2>Who looks after it</h2>
        <p className="small soft m-0">
          The administrator: makes the others, and does all a lead does. More can be made later.
        </p>
        <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
          {field("name", "Your name", { maxLength: 60, autoComplete: "name" })}
          {field("username", "User name, stands under all you record", {
            maxLength: 40,
            autoComplete: "username",
            autoCapitalize: "none",
          })}
          {field("password", `Password, ${least} characters or more`, secret)}
          {field("again", "The password once more", secret)}
        </div>
      </section>
      {problem && (
        <p role="alert" className="m-0 border-l-4 border-out pl-3 text-out">
          {problem}
        </p>
      )}
      <p className="m-0">
        <button type="submit" className="btn pri" disabled={busy}>
          {busy ? "Beginning …" : "Begin"}
        </button>
      </p>
    </form>
  );
}
