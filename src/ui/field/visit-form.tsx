"use client";
import { type FormEvent, useEffect, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { creepFromChip, creepFromScribe } from "@/core/field";
import { parseNumber } from "@/core/units";
import { withUnit } from "../format";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

type Zone = { key: string; zone: string; from: "scribe" | "chip"; scribe: string; widths: string };
const empty = (): Zone => ({ key: uuidv7(), zone: "", from: "chip", scribe: "0.5", widths: "" });

function widthsOf(text: string): { ok: true; widths: number[] } | { ok: false; text: string } {
  const widths: number[] = [];
  for (const word of text
    .trim()
    .split(/[\s;]+/)
    .filter(Boolean)) {
    const n = parseNumber(word);
    if (!n.ok) return { ok: false, text: failureText(n.error) };
    widths.push(n.value);
  }
  return { ok: true, widths };
}

/** A visit: zones with creep widths, mean and rating as they are typed. Kept in the browser until it is recorded. */
export function VisitForm({ structure }: { structure: string }) {
  const { units } = usePreferences();
  const key = `visit-draft-${structure}`;
  const [zones, setZones] = useState<Zone[]>([empty()]);
  const [weather, setWeather] = useState("");
  const [note, setNote] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const { send, message, busy } = useRecorder();
  useEffect(() => {
    const kept = localStorage.getItem(key);
    if (kept) {
      const d = JSON.parse(kept) as { zones: Zone[]; weather: string; note: string };
      setZones(d.zones);
      setWeather(d.weather);
      setNote(d.note);
    }
  }, [key]);
  const keep = (next: { zones?: Zone[]; weather?: string; note?: string }) => {
    const d = { zones, weather, note, ...next };
    setZones(d.zones);
    setWeather(d.weather);
    setNote(d.note);
    localStorage.setItem(key, JSON.stringify(d));
  };
  const set = (k: string, change: Partial<Zone>) =>
    keep({ zones: zones.map((z) => (z.key === k ? { ...z, ...change } : z)) });
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    const creep = [];
    for (const z of zones.filter((x) => x.widths.trim() !== "" || x.zone.trim() !== "")) {
      const w = widthsOf(z.widths);
      if (!w.ok) return setProblem(w.text);
      if (z.zone.trim() === "") return setProblem("Name the zone: bay 4, splash zone.");
      if (w.widths.length === 0) return setProblem(`${z.zone}: type the widths, six or more.`);
      creep.push({
        zone: z.zone,
        from: z.from,
        scribeMm: z.from === "scribe" ? Number(z.scribe) : null,
        widthsMm: w.widths,
      });
    }
    if (await send({ kind: "visit", structure, weather, note, creep })) {
      localStorage.removeItem(key);
      setZones([empty()]);
      setWeather("");
      setNote("");
    }
  };
  return (
    <form onSubmit={submit} className="ruled grid max-w-[640px] gap-3">
      <h2>Record a visit</h2>
      {zones.map((z, i) => {
        const w = widthsOf(z.widths);
        const creep =
          w.ok && w.widths.length > 0
            ? z.from === "scribe"
              ? creepFromScribe(w.widths, Number(z.scribe))
              : creepFromChip(w.widths)
            : null;
        return (
          <fieldset key={z.key} className="m-0 grid gap-2 border-0 border-l-4 border-rule-strong p-0 pl-3">
            <legend className="sr-only">Zone {i + 1}</legend>
            <div className="grid grid-cols-[minmax(0,1fr)_130px_90px] gap-2 max-[560px]:grid-cols-2">
              <div className="field">
                <label htmlFor={`zone-${z.key}`}>Zone</label>
                <input
                  id={`zone-${z.key}`}
                  className="input"
                  maxLength={80}
                  value={z.zone}
                  onChange={(e) => set(z.key, { zone: e.target.value })}
                  placeholder="bay 4, splash zone"
                />
              </div>
              <div className="field">
                <label htmlFor={`from-${z.key}`}>Measured from</label>
                <select
                  id={`from-${z.key}`}
                  className="input"
                  value={z.from}
                  onChange={(e) => set(z.key, { from: e.target.value as "chip" })}
                >
                  <option value="chip">a chip's edge</option>
                  <option value="scribe">a scribe</option>
                </select>
              </div>
              {z.from === "scribe" && (
                <div className="field">
                  <label htmlFor={`scribe-${z.key}`}>Scribe, mm</label>
                  <input
                    id={`scribe-${z.key}`}
                    className="input num"
                    inputMode="decimal"
                    value={z.scribe}
                    onChange={(e) => set(z.key, { scribe: e.target.value })}
                  />
                </div>
              )}
            </div>
            <div className="field">
              <label htmlFor={`widths-${z.key}`}>Widths in mm, evenly spaced, six or more</label>
              <input
                id={`widths-${z.key}`}
                className="input fig"
                inputMode="decimal"
                value={z.widths}
                onChange={(e) => set(z.key, { widths: e.target.value })}
                placeholder="3.1 3.4 3.6 3.2 3.5 3.3"
              />
            </div>
            {!w.ok && <p className="small text-out">{w.text}</p>}
            {creep &&
              (creep.ok ? (
                <Verdict
                  result={
                    creep.value.rating === null
                      ? "unknown"
                      : creep.value.rating >= 9
                        ? "in"
                        : creep.value.rating >= 6
                          ? "watch"
                          : "out"
                  }
                >
                  {withUnit(creep.value.creepMm, "creep", units)},{" "}
                  {creep.value.few ? `${6 - creep.value.n} more for a rating` : `rating ${creep.value.rating}`}
                </Verdict>
              ) : (
                <p className="small text-out">{failureText(creep.error)}</p>
              ))}
          </fieldset>
        );
      })}
      <p>
        <button type="button" className="btn" onClick={() => keep({ zones: [...zones, empty()] })}>
          Another zone
        </button>
      </p>
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <div className="field">
          <label htmlFor="weather">Weather</label>
          <input
            id="weather"
            className="input"
            maxLength={80}
            value={weather}
            onChange={(e) => keep({ weather: e.target.value })}
          />
        </div>
        <div className="field">
          <label htmlFor="visit-note">What you saw</label>
          <input
            id="visit-note"
            className="input"
            maxLength={800}
            value={note}
            onChange={(e) => keep({ note: e.target.value })}
          />
        </div>
      </div>
      {problem && (
        <p role="alert" className="text-out">
          {problem}
        </p>
      )}
      <p className="flex items-center gap-3">
        <button type="submit" className="btn pri" disabled={busy}>
          {busy ? "Recording …" : "Record visit"}
        </button>
        {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
      </p>
    </form>
  );
}
