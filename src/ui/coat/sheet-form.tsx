"use client";
import type { FormEvent } from "react";
import { Choice } from "../fields/choice";
import { RecordRow } from "../forms/recorded";
import { TextField } from "../forms/text-field";
import { useEntryForm } from "../forms/use-entry-form";
import { maybeNumber, maybeRange, numberIn, rangeIn, rangeText } from "./setup-texts";
import { type SaveSetup, useSetupSave } from "./use-setup-save";

type Range = readonly [number, number];
export type SetupSheet = {
  readonly powderCode: string;
  readonly partCode: string | null;
  readonly gun: string | null;
  readonly gunType: string;
  readonly tip: string;
  readonly kv: Range;
  readonly recessKv: number;
  readonly recoatKv: Range | null;
  readonly currentMostUa: number | null;
  readonly distanceMm: Range | null;
  readonly passes: Range | null;
  readonly conveyingAirKPa: Range | null;
  readonly hookPitchMm: Range | null;
  readonly hopperFillPercent: Range | null;
  readonly airReadAt: string;
  readonly gunAirKPa: Range;
  readonly earthLimitMohm: number;
  readonly boothAirMPerS: Range;
  readonly hookCyclesLimit: number;
  readonly reclaimLimitPercent: number;
};
const gunTypes = [
  ["corona-negative", "corona, negative"],
  ["corona-positive", "corona, positive"],
  ["friction", "friction"],
] as const;

/** A set-up sheet: each setting as a window for one gun on one kind of work; what is right for another gun is another sheet. */
export function SheetForm({
  code,
  seen,
  sheet,
  powders,
  parts,
  save,
}: {
  code: string | null;
  seen: string | null;
  sheet: SetupSheet;
  powders: readonly string[];
  parts: readonly { readonly code: string; readonly name: string }[];
  save: SaveSetup;
}) {
  const text = (value: number | null) => (value === null ? "" : String(value));
  const held = useEntryForm(`sheet ${code ?? "new"}`, {
    t: {
      code: code ?? "",
      gun: sheet.gun ?? "",
      tip: sheet.tip,
      kv: rangeText(sheet.kv),
      recessKv: text(sheet.recessKv),
      recoatKv: rangeText(sheet.recoatKv),
      current: text(sheet.currentMostUa),
      distance: rangeText(sheet.distanceMm),
      passes: rangeText(sheet.passes),
      conveying: rangeText(sheet.conveyingAirKPa),
      pitch: rangeText(sheet.hookPitchMm),
      fill: rangeText(sheet.hopperFillPercent),
      gunAir: rangeText(sheet.gunAirKPa),
      earth: text(sheet.earthLimitMohm),
      boothAir: rangeText(sheet.boothAirMPerS),
      hooks: text(sheet.hookCyclesLimit),
      reclaim: text(sheet.reclaimLimitPercent),
      reason: "",
    },
    powder: sheet.powderCode || (powders[0] ?? ""),
    part: sheet.partCode ?? "",
    gunType: sheet.gunType,
    airReadAt: sheet.airReadAt,
  });
  const [t, setT] = held.field("t");
  const [powder, setPowder] = held.field("powder");
  const [part, setPart] = held.field("part");
  const [gunType, setGunType] = held.field("gunType");
  const [airReadAt, setAirReadAt] = held.field("airReadAt");
  const { busy, message, send } = useSetupSave(save, held);
  const put = (key: keyof typeof t) => (value: string) => setT((before) => ({ ...before, [key]: value }));
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const saved = await send(
      () => ({
        code: t.code,
        seen,
        reason: t.reason,
        data: {
          powderCode: powder,
          partCode: part || null,
          gun: t.gun.trim() || null,
          gunType,
          tip: t.tip,
          kv: rangeIn(t.kv, "Voltage"),
          recessKv: numberIn(t.recessKv, "Voltage for recesses"),
          recoatKv: maybeRange(t.recoatKv, "Voltage over an old film"),
          currentMostUa: maybeNumber(t.current, "Current"),
          distanceMm: maybeRange(t.distance, "Distance"),
          passes: maybeRange(t.passes, "Passes"),
          conveyingAirKPa: maybeRange(t.conveying, "Conveying air"),
          hookPitchMm: maybeRange(t.pitch, "Hook pitch"),
          hopperFillPercent: maybeRange(t.fill, "Hopper"),
          airReadAt,
          gunAirKPa: rangeIn(t.gunAir, "Gun air"),
          earthLimitMohm: numberIn(t.earth, "Earth"),
          boothAirMPerS: rangeIn(t.boothAir, "Booth draught"),
          hookCyclesLimit: numberIn(t.hooks, "Hook uses"),
          reclaimLimitPercent: numberIn(t.reclaim, "Reclaim"),
        },
      }),
      "Saved, from now on.",
    );
    if (saved) put("reason")("");
  };
  const key = code ?? "new";
  const field = (name: keyof typeof t, label: string, placeholder?: string) => (
    <TextField
      id={`${key}-${name}`}
      label={label}
      text={t[name]}
      change={put(name)}
      most={300}
      {...(placeholder ? { placeholder } : {})}
    />
  );
  const choose = (
    name: string,
    label: string,
    value: string,
    change: (value: string) => void,
    options: readonly (readonly [string, string])[],
  ) => (
    <div className="field">
      <label htmlFor={`${key}-${name}`}>{label}</label>
      <Choice id={`${key}-${name}`} className="input" value={value} onChange={change}>
        {options.map(([id, word]) => (
          <option key={id} value={id}>
            {word}
          </option>
        ))}
      </Choice>
    </div>
  );
  const four = "grid grid-cols-4 gap-3 max-[900px]:grid-cols-2";
  return (
    <form onSubmit={submit} noValidate className="grid max-w-[860px] gap-3 pb-4">
      {held.said}
      <div className={four}>
        {code === null && field("code", "Name of the sheet", "GR-210 posts, gun 2")}
        {choose(
          "powder",
          "Powder",
          powder,
          setPowder,
          powders.map((p) => [p, p] as const),
        )}
        {choose("part", "For the part", part, setPart, [["", "any"], ...parts.map((p) => [p.code, p.name] as const)])}
        {field("gun", "Gun", "any")}
        {choose("gunType", "Kind of gun", gunType, setGunType, gunTypes)}
        {field("tip", "Tip")}
      </div>
      <div className={four}>
        {field("kv", "Voltage, kV", "60–80")}
        {field("recessKv", "Recesses, kV")}
        {field("recoatKv", "Over an old film, kV", "35–55")}
        {field("current", "Current at most, µA")}
        {field("gunAir", "Gun air, kPa", "40–75")}
        {choose("airReadAt", "Gun air is read", airReadAt, setAirReadAt, [
          ["flowing", "flowing"],
          ["rest", "at rest"],
        ])}
        {field("conveying", "Conveying air, kPa")}
        {field("distance", "Distance, mm", "180–280")}
        {field("passes", "Passes", "2–3")}
        {field("boothAir", "Booth draught, m/s", "0.3–0.6")}
        {field("pitch", "Hook pitch, mm")}
        {field("fill", "Hopper filled, %", "15–40")}
        {field("earth", "Part to earth at most, MΩ")}
        {field("hooks", "Hook uses until stripped")}
        {field("reclaim", "Reclaim at most, %")}
      </div>
      {field("reason", code === null ? "Where it is from" : "Why it changes")}
      <RecordRow busy={busy} message={message} primary={false}>
        {code === null ? "Put it on record" : "Save the change"}
      </RecordRow>
    </form>
  );
}
