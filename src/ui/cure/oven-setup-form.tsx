"use client";
import { ovenSlug, placeLines, placesFromLines, zoneLines, zonesFromLines } from "@/core/cure";
import { fieldsOf, type Options } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
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

type Figure = (typeof figures)[number][0];
const types: Options = [
  ["batch", "batch"],
  ["conveyor", "conveyor"],
  ["lamps", "lamps, section by section"],
];

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
  keep: Save;
}) {
  const held = useEntryForm(`oven ${code ?? "new"}`, {
    code,
    name: data.name,
    habits: data.habits,
    reason: "",
    places: placeLines(data.places),
    zones: zoneLines(data.zones),
    length: data.insideMm ? String(data.insideMm.lengthMm) : "",
    width: data.insideMm ? String(data.insideMm.widthMm) : "",
    height: data.insideMm ? String(data.insideMm.heightMm) : "",
    ...(Object.fromEntries(figures.map(([key]) => [key, String(data[key])])) as Record<Figure, string>),
    type: data.type,
    heat: data.heat,
    dedicated: data.dedicated,
  });
  const saving = useSave(
    async (input: unknown) => {
      const kept = await keep(input);
      return kept.ok ? { ...kept, href: `/cure/ovens/${ovenSlug(held.values.code)}` } : kept;
    },
    held,
    { said: "Kept, from now on." },
  );
  const F = fieldsOf(held);
  const { type } = held.values;
  return (
    <Entry
      held={held}
      id="oven"
      sending={saving}
      button="Keep it"
      primary
      className="ruled mt-3 grid max-w-[860px] gap-4"
      send={({ number, refuse }) => {
        const { values: t } = held;
        const places = placesFromLines(t.places);
        const zones = zonesFromLines(t.zones);
        if (!places.ok) return refuse("places", failureText(places.error));
        if (!zones.ok) return refuse("zones", failureText(zones.error));
        const whole = [t.length, t.width, t.height].some((side) => side.trim() !== "");
        return saving.send({
          code: t.code,
          seen,
          reason: t.reason,
          data: {
            name: t.name,
            type,
            heat: t.heat,
            dedicated: t.dedicated,
            insideMm: whole
              ? { lengthMm: number("length"), widthMm: number("width"), heightMm: number("height") }
              : null,
            places: places.value,
            zones: zones.value,
            habits: t.habits,
            ...Object.fromEntries(figures.map(([key]) => [key, number(key)])),
          },
        });
      }}
    >
      <div className="grid grid-cols-3 gap-3 max-[760px]:grid-cols-1">
        {seen === null && <F.Words name="code" label="Called on the line" most={20} />}
        <F.Words name="name" label="Name" most={80} />
        <F.Pick name="type" label="Kind" of={types} />
        <F.Pick name="heat" label="Heated by" of={Object.entries(heatName)} />
      </div>
      <div className="grid grid-cols-4 gap-3 max-[760px]:grid-cols-2">
        {(type === "lamps" ? [] : (["length", "width", "height"] as const)).map((side) => (
          <F.Num key={side} name={side} label={`Inside ${side}, mm`} />
        ))}
        {figures
          .filter(([, , of]) => type !== "lamps" && (of === "both" || of === type))
          .map(([key, label]) => (
            <F.Num key={key} name={key} label={label} />
          ))}
      </div>
      {type === "batch" && (
        <F.Lines name="places" label="Places, one a line: name, across 0–100, from the back 0–100, note" />
      )}
      {type === "lamps" && (
        <p className="soft m-0">
          A piece that fits no oven is cured by them one section after another. Each load names its sections; the metal
          of each is read by infrared.
        </p>
      )}
      {type === "conveyor" && (
        <F.Lines
          name="zones"
          label="Zones in order of travel, one a line: name, infrared or convection, m, °C, W/(m² K)"
        />
      )}
      <F.Yes name="dedicated">Used for powder and nothing else; never for food</F.Yes>
      <F.Words name="habits" label="Door, preheating and other habits" most={400} />
      <F.Words name="reason" label="Why it is set up so" most={300} />
    </Entry>
  );
}
