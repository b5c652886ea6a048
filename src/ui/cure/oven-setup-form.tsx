"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { ovenSlug, placeLines, placesFromLines, zoneLines, zonesFromLines } from "@/core/cure";
import { parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { TextField } from "../forms/text-field";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { heatName } from "../words/cure";
import { failureText } from "../words/failures";

export type OvenData = {
  readonly name: string;
  readonly type: "batch" | "conveyor" | "lamps";
  readonly dedicated: boolean;
  readonly heat: keyof typeof heatName;
  readonly insideMm: { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number } | null;
  readonly places: readonly { readonly id: string; readonly at: readonly [number, number]; readonly note: string }[];
  readonly zones: readonly {
    readonly name: string;
    readonly heat: "infrared" | "convection";
    readonly lengthM: number;
    readonly airC: number;
    readonly hWPerM2K: number;
  }[];
  readonly habits: string;
} & Readonly<Record<(typeof figures)[number][0], number>>;
type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** Set up in the units of the oven's own plate and its burner's papers. */
const figures = [
  ["usualSetPointC", "Usual set point, °C", "batch"],
  ["mostSetPointC", "Most it may be set to, °C", "both"],
  ["airAtDoorC", "Air as the door closes, °C", "batch"],
  ["emptyTauS", "Air’s time constant empty, s", "batch"],
  ["fullTauS", "the same full, s", "batch"],
  ["fullKgSteel", "Full is, kg of steel", "batch"],
  ["idleKw", "Loses while shut, kW", "both"],
  ["efficiency", "Share of supply that heats", "both"],
  ["spreadMostC", "Places may differ by, °C", "batch"],
  ["recoveryMostS", "Back after the door in, s", "batch"],
  ["usualSpeedMPerMin", "Usual speed, m/min", "conveyor"],
  ["pitchM", "Pitch of the hangers, m", "conveyor"],
] as const;

/** An oven as it is set up: a change is a new version with its reason. */
export function OvenSetupForm({
  code,
  seen,
  data,
  keep,
}: {
  code: string;
  seen: string | null;
  data: OvenData;
  keep: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const held = useEntryForm(`oven ${code ?? "new"}`, {
    t: {
      code,
      name: data.name,
      habits: data.habits,
      reason: "",
      places: placeLines(data.places),
      zones: zoneLines(data.zones),
      length: data.insideMm ? String(data.insideMm.lengthMm) : "",
      width: data.insideMm ? String(data.insideMm.widthMm) : "",
      height: data.insideMm ? String(data.insideMm.heightMm) : "",
      ...(Object.fromEntries(figures.map(([key]) => [key, String(data[key])])) as Record<
        (typeof figures)[number][0],
        string
      >),
    },
    type: data.type,
    heat: data.heat,
    dedicated: data.dedicated,
  });
  const [t, setT] = held.field("t");
  const [type, setType] = held.field("type");
  const [heat, setHeat] = held.field("heat");
  const [dedicated, setDedicated] = held.field("dedicated");
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const put = (key: keyof typeof t) => (text: string) => setT((b) => ({ ...b, [key]: text }));
  const number = (text: string) => {
    const read = parseNumber(text);
    return read.ok ? read.value : Number.NaN;
  };
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setMessage(null);
    const [places, zones] = [placesFromLines(t.places), zonesFromLines(t.zones)];
    if (!places.ok) return setMessage({ good: false, text: failureText(places.error) });
    if (!zones.ok) return setMessage({ good: false, text: failureText(zones.error) });
    const wrong = figures.find(([key]) => !Number.isFinite(number(t[key])));
    if (wrong) return setMessage({ good: false, text: `${wrong[1]}: “${t[wrong[0]]}” is not a number.` });
    const sides = [t.length, t.width, t.height];
    setBusy(true);
    const outcome = await keep({
      code: t.code,
      seen,
      reason: t.reason,
      data: {
        name: t.name,
        type,
        heat,
        dedicated,
        insideMm: sides.every((s) => s.trim() === "")
          ? null
          : { lengthMm: number(t.length), widthMm: number(t.width), heightMm: number(t.height) },
        places: places.value,
        zones: zones.value,
        habits: t.habits,
        ...Object.fromEntries(figures.map(([key]) => [key, number(t[key])])),
      },
    }).catch((): Outcome => ({ ok: false, failure: { kind: "not-saved" } }));
    setBusy(false);
    setMessage(
      outcome.ok ? { good: true, text: "Kept, from now on." } : { good: false, text: failureText(outcome.failure) },
    );
    if (!outcome.ok) return;
    held.done();
    router.push(`/cure/ovens/${ovenSlug(t.code)}`);
  };
  return (
    <form onSubmit={submit} noValidate className="ruled mt-3 grid max-w-[860px] gap-4">
      {held.said}
      <div className="grid grid-cols-3 gap-3 max-[760px]:grid-cols-1">
        {seen === null && (
          <TextField id="oven-code" label="Called on the line" text={t.code} change={put("code")} most={20} />
        )}
        <TextField id="oven-name" label="Name" text={t.name} change={put("name")} most={80} />
        <div className="field">
          <label htmlFor="oven-type">Kind</label>
          <Choice id="oven-type" className="input" value={type} onChange={(value) => setType(value as "batch")}>
            <option value="batch">batch</option>
            <option value="conveyor">conveyor</option>
            <option value="lamps">lamps, section by section</option>
          </Choice>
        </div>
        <div className="field">
          <label htmlFor="oven-heat">Heated by</label>
          <Choice
            id="oven-heat"
            className="input"
            value={heat}
            onChange={(value) => setHeat(value as keyof typeof heatName)}
          >
            {Object.entries(heatName).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
        </div>
      </div>
      <div className="grid grid-cols-4 gap-3 max-[760px]:grid-cols-2">
        {(type === "lamps" ? [] : (["length", "width", "height"] as const)).map((side) => (
          <TypedNumber key={side} id={`oven-${side}`} label={`Inside ${side}, mm`} text={t[side]} change={put(side)} />
        ))}
        {figures
          .filter(([, , of]) => type !== "lamps" && (of === "both" || of === type))
          .map(([key, label]) => (
            <TypedNumber key={key} id={`oven-${key}`} label={label} text={t[key]} change={put(key)} />
          ))}
      </div>
      {type === "batch" ? (
        <div className="field">
          <label htmlFor="oven-places">Places, one a line: name, across 0–100, from the back 0–100, note</label>
          <textarea
            id="oven-places"
            className="input fig min-h-[150px]"
            value={t.places}
            onChange={(e) => put("places")(e.target.value)}
          />
        </div>
      ) : type === "lamps" ? (
        <p className="soft m-0">
          A piece that fits no oven is cured by them one section after another. Each load names its sections; the metal
          of each is read by infrared.
        </p>
      ) : (
        <div className="field">
          <label htmlFor="oven-zones">
            Zones in order of travel, one a line: name, infrared or convection, m, °C, W/(m² K)
          </label>
          <textarea
            id="oven-zones"
            className="input fig min-h-[110px]"
            value={t.zones}
            onChange={(e) => put("zones")(e.target.value)}
          />
        </div>
      )}
      <label className="flex min-h-11 items-center gap-2">
        <Tick checked={dedicated} onChange={setDedicated} />
        Used for powder and nothing else; never for food
      </label>
      <TextField
        id="oven-habits"
        label="Door, preheating and other habits"
        text={t.habits}
        change={put("habits")}
        most={400}
      />
      <TextField id="oven-reason" label="Why it is set up so" text={t.reason} change={put("reason")} most={300} />
      <p className="m-0 flex flex-wrap items-center gap-3">
        <button type="submit" className="btn pri" disabled={busy}>
          {busy ? "Keeping …" : "Keep it"}
        </button>
        {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
      </p>
    </form>
  );
}
