"use client";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { type Save, useSave } from "../forms/use-save";
import { maybeRange, rangeIn, rangeText } from "./setup-texts";

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
  save: Save;
}) {
  const text = (value: number | null) => (value === null ? "" : String(value));
  const held = useEntryForm(`sheet ${code ?? "new"}`, {
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
    powder: sheet.powderCode || (powders[0] ?? ""),
    part: sheet.partCode ?? "",
    gunType: sheet.gunType,
    airReadAt: sheet.airReadAt,
  });
  const saving = useSave(save, held);
  const F = fieldsOf(held);
  const four = "grid grid-cols-4 gap-3 max-[900px]:grid-cols-2";
  return (
    <Entry
      held={held}
      id={code ?? "new"}
      sending={saving}
      button={code === null ? "Put it on record" : "Save the change"}
      className="grid max-w-[860px] gap-3 pb-4"
      begin={["reason"]}
      send={({ number, maybe, as }) => {
        const { values: t } = held;
        return saving.send({
          code: t.code,
          seen,
          reason: t.reason,
          data: {
            powderCode: t.powder,
            partCode: t.part || null,
            gun: t.gun.trim() || null,
            gunType: t.gunType,
            tip: t.tip,
            kv: as("kv", rangeIn),
            recessKv: number("recessKv"),
            recoatKv: as("recoatKv", maybeRange),
            currentMostUa: maybe("current"),
            distanceMm: as("distance", maybeRange),
            passes: as("passes", maybeRange),
            conveyingAirKPa: as("conveying", maybeRange),
            hookPitchMm: as("pitch", maybeRange),
            hopperFillPercent: as("fill", maybeRange),
            airReadAt: t.airReadAt,
            gunAirKPa: as("gunAir", rangeIn),
            earthLimitMohm: number("earth"),
            boothAirMPerS: as("boothAir", rangeIn),
            hookCyclesLimit: number("hooks"),
            reclaimLimitPercent: number("reclaim"),
          },
        });
      }}
    >
      <div className={four}>
        {code === null && (
          <F.Words name="code" label="Name of the sheet" placeholder="GR-210 posts, gun 2" most={300} />
        )}
        <F.Pick name="powder" label="Powder" of={powders} />
        <F.Pick name="part" label="For the part" of={[["", "any"], ...parts.map((p) => [p.code, p.name] as const)]} />
        <F.Words name="gun" label="Gun" placeholder="any" most={300} />
        <F.Pick name="gunType" label="Kind of gun" of={gunTypes} />
        <F.Words name="tip" label="Tip" most={300} />
      </div>
      <div className={four}>
        <F.Words name="kv" label="Voltage, kV" placeholder="60–80" most={40} />
        <F.Num name="recessKv" label="Recesses, kV" />
        <F.Words name="recoatKv" label="Over an old film, kV" placeholder="35–55" most={40} />
        <F.Num name="current" label="Current at most, µA" />
        <F.Words name="gunAir" label="Gun air, kPa" placeholder="40–75" most={40} />
        <F.Pick
          name="airReadAt"
          label="Gun air is read"
          of={[
            ["flowing", "flowing"],
            ["rest", "at rest"],
          ]}
        />
        <F.Words name="conveying" label="Conveying air, kPa" most={40} />
        <F.Words name="distance" label="Distance, mm" placeholder="180–280" most={40} />
        <F.Words name="passes" label="Passes" placeholder="2–3" most={40} />
        <F.Words name="boothAir" label="Booth draught, m/s" placeholder="0.3–0.6" most={40} />
        <F.Words name="pitch" label="Hook pitch, mm" most={40} />
        <F.Words name="fill" label="Hopper filled, %" placeholder="15–40" most={40} />
        <F.Num name="earth" label="Part to earth at most, MΩ" />
        <F.Num name="hooks" label="Hook uses until stripped" />
        <F.Num name="reclaim" label="Reclaim at most, %" />
      </div>
      <F.Words name="reason" label={code === null ? "Where it is from" : "Why it changes"} most={300} />
    </Entry>
  );
}
