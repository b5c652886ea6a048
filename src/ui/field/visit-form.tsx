"use client";
import { v7 as uuidv7 } from "uuid";
import {
  CREEP_LEAST_POINTS,
  creepFromArea,
  creepFromChip,
  creepFromScribe,
  creepRating,
  creepResult,
  rustGrade,
  rustResult,
} from "@/core/field";
import { ok, type Result } from "@/core/result";
import { quantities, type UnitSystem } from "@/core/units";
import { Choice } from "../fields/choice";
import { fieldsOf } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

type Zone = {
  key: string;
  zone: string;
  from: "scribe" | "chip" | "area";
  scribe: string;
  widths: string;
  area: string;
  length: string;
  rust: string;
};
const empty = (units: UnitSystem, key = uuidv7()): Zone => ({
  key,
  zone: "",
  from: "chip",
  scribe: units === "us" ? "0.02" : "0.5",
  widths: "",
  area: "",
  length: "",
  rust: "",
});
const numberIn = (text: string): number | null => {
  const read = parseTyped(text);
  return text.trim() !== "" && read.ok ? read.value : null;
};
/** A length in mm, typed in the person's unit. */
const mmIn = (text: string, units: UnitSystem): number | null => {
  const value = numberIn(text);
  return value === null || units !== "us" ? value : quantities.creep.fromUs(value);
};
/** Creep of a zone as far as it is typed; null while it is not. */
function creepOf(z: Zone, units: UnitSystem): Result<{ creepMm: number; rating: number | null; more: number }> | null {
  const scribeMm = mmIn(z.scribe, units) ?? 0;
  if (z.from === "area") {
    const [areaMm2, lengthMm] = [numberIn(z.area), mmIn(z.length, units)];
    if (areaMm2 === null || lengthMm === null) return null;
    const creep = creepFromArea({ areaMm2, lengthMm, scribeMm });
    const rating = creep.ok ? creepRating(creep.value) : creep;
    return creep.ok && rating.ok
      ? ok({ creepMm: creep.value, rating: rating.value, more: 0 })
      : rating.ok
        ? null
        : rating;
  }
  const w = widthsOf(z.widths, units);
  if (!w.ok || w.widths.length === 0) return null;
  const creep = z.from === "scribe" ? creepFromScribe(w.widths, scribeMm) : creepFromChip(w.widths);
  return creep.ok ? ok({ ...creep.value, more: Math.max(0, CREEP_LEAST_POINTS - creep.value.n) }) : creep;
}

function widthsOf(text: string, units: UnitSystem): { ok: true; widths: number[] } | { ok: false; text: string } {
  const widths: number[] = [];
  for (const word of text
    .trim()
    .split(/[\s;]+/)
    .filter(Boolean)) {
    const n = parseTyped(word);
    if (!n.ok) return { ok: false, text: failureText(n.error) };
    widths.push(units === "us" ? quantities.creep.fromUs(n.value) : n.value);
  }
  return { ok: true, widths };
}

/** A visit: zones with creep widths, mean and rating as they are typed. Kept in the browser until it is recorded. */
export function VisitForm({ structure }: { structure: string }) {
  const { units } = usePreferences();
  const unit = quantities.creep[units];
  const held = useEntryForm(`visit ${structure}`, { zones: [empty(units, "first")], weather: "", note: "" });
  const [zones, setZones] = held.field("zones");
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const set = (k: string, change: Partial<Zone>) => setZones(zones.map((z) => (z.key === k ? { ...z, ...change } : z)));
  return (
    <Entry
      held={held}
      id="visit"
      sending={recorder}
      button="Record visit"
      primary
      className="ruled grid max-w-[640px] gap-3"
      begin={["zones", "weather", "note"]}
      send={({ refuse }) => {
        const creep = [];
        const rust = [];
        const begun = (z: Zone) => [z.zone, z.widths, z.area, z.length, z.rust].some((text) => text.trim() !== "");
        for (const z of zones.filter(begun)) {
          if (z.zone.trim() === "") return refuse(null, "Name the zone: bay 4, splash zone.");
          const w = widthsOf(z.widths, units);
          if (!w.ok) return refuse(null, w.text);
          const share = numberIn(z.rust);
          if (z.rust.trim() !== "" && share === null)
            return refuse(null, `${z.zone}: “${z.rust}” is no share. Type the rusted share in %.`);
          if (share !== null) rust.push({ zone: z.zone, sharePercent: share });
          const measured = z.from === "area" ? z.area.trim() !== "" || z.length.trim() !== "" : w.widths.length > 0;
          if (!measured && share === null)
            return refuse(null, `${z.zone}: type the widths, six or more, or the rusted share.`);
          if (!measured) continue;
          const [areaMm2, lengthMm, scribeMm] = [numberIn(z.area), mmIn(z.length, units), mmIn(z.scribe, units)];
          if (z.from === "area" && (areaMm2 === null || lengthMm === null))
            return refuse(null, `${z.zone}: type the corroded area in mm² and the scribe’s length in mm.`);
          if (z.from !== "chip" && scribeMm === null)
            return refuse(null, `${z.zone}: type the scribe’s own width in mm.`);
          creep.push({
            zone: z.zone,
            from: z.from,
            scribeMm: z.from === "chip" ? null : scribeMm,
            widthsMm: z.from === "area" ? [] : w.widths,
            areaMm2: z.from === "area" ? areaMm2 : null,
            lengthMm: z.from === "area" ? lengthMm : null,
          });
        }
        const { weather, note } = held.values;
        return recorder.send({ kind: "visit", structure, weather, note, creep, rust });
      }}
    >
      <h2>A visit noted all at once</h2>
      {zones.map((z, i) => {
        const w = widthsOf(z.widths, units);
        const creep = creepOf(z, units);
        const share = numberIn(z.rust);
        const rusted = share === null ? null : rustGrade(share);
        const field = (name: "widths" | "area" | "length" | "rust" | "scribe", label: string, hint = "") => (
          <div className="field">
            <label htmlFor={`${name}-${z.key}`}>{label}</label>
            <input
              id={`${name}-${z.key}`}
              className={name === "widths" ? "input fig" : "input num"}
              inputMode="decimal"
              value={z[name]}
              onChange={(e) => set(z.key, { [name]: e.target.value })}
              placeholder={hint}
            />
          </div>
        );
        return (
          <fieldset key={z.key} className="m-0 grid gap-2 border-0 border-l-4 border-rule-strong p-0 pl-3">
            <legend className="sr-only">Zone {i + 1}</legend>
            <div className="grid grid-cols-[minmax(0,1fr)_190px_90px] gap-2 max-[560px]:grid-cols-2">
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
                <Choice
                  id={`from-${z.key}`}
                  className="input"
                  value={z.from}
                  onChange={(value) => set(z.key, { from: value as Zone["from"] })}
                >
                  <option value="chip">a chip's edge</option>
                  <option value="scribe">a scribe, by widths</option>
                  <option value="area">a scribe, by area</option>
                </Choice>
              </div>
              {z.from !== "chip" && field("scribe", `Scribe, ${unit}`)}
            </div>
            <div className="grid grid-cols-[minmax(0,1fr)_130px] gap-2 max-[560px]:grid-cols-1">
              {z.from === "area" ? (
                <div className="grid grid-cols-2 gap-2">
                  {field("area", "Corroded area, mm²")}
                  {field("length", `Scribe’s length, ${unit}`)}
                </div>
              ) : (
                field(
                  "widths",
                  `Widths in ${unit}, evenly spaced, six or more`,
                  units === "us" ? "0.12 0.13 0.14 0.13 0.14 0.13" : "3.1 3.4 3.6 3.2 3.5 3.3",
                )
              )}
              {field("rust", "Rusted, % of zone")}
            </div>
            {!w.ok && <p className="small text-out">{w.text}</p>}
            {creep &&
              (creep.ok ? (
                <Verdict result={creepResult(creep.value.rating)}>
                  {withUnit(creep.value.creepMm, "creep", units)},{" "}
                  {creep.value.rating === null
                    ? `${creep.value.more} more for a rating`
                    : `rating ${creep.value.rating}`}
                </Verdict>
              ) : (
                <p className="small text-out">{failureText(creep.error)}</p>
              ))}
            {rusted &&
              (rusted.ok ? (
                <p className="m-0">
                  <Verdict result={rustResult(rusted.value)}>Ri {rusted.value}</Verdict>{" "}
                  <span className="small soft">degree of rusting after ISO 4628-3</span>
                </p>
              ) : (
                <p className="small text-out">{failureText(rusted.error)}</p>
              ))}
          </fieldset>
        );
      })}
      <p>
        <button type="button" className="btn" onClick={() => setZones([...zones, empty(units)])}>
          Another zone
        </button>
      </p>
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <F.Words name="weather" label="Weather" most={80} />
        <F.Words name="note" label="What you saw" most={800} />
      </div>
    </Entry>
  );
}
