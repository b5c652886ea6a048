import { newest, type RackFile } from "../../rack/load-rack";
import type { SetupData } from "../../setup/setup-data";
import type { Add } from "./established";

/** What gun, earth, hooks, lot and air of the newest coat establish, against the set-up sheet of its day. */
export function coat(
  rack: RackFile,
  context: {
    setupSheet: SetupData<"setup-sheet"> | null;
    lot: SetupData<"lot"> | null;
    compressedAirDewPointC: { value: number; recordId: string } | null;
    boothAirMPerS: { value: number; recordId: string } | null;
    site: SetupData<"site">;
  },
  add: Add,
): void {
  const record = newest(rack, "coat");
  const row = record?.details.coat?.[0];
  const sheet = context.setupSheet;
  const against = (
    finding: string,
    quantity: string,
    value: number | null | undefined,
    unit: string,
    upper: number | null | undefined,
  ) => {
    if (!record || value === null || value === undefined || upper === null || upper === undefined)
      return add(finding, "unknown", "unknown", { kind: "never-recorded" });
    add(
      finding,
      value > upper ? "present" : "absent",
      "measured",
      { kind: "value", quantity, value, unit, lower: null, upper, where: row?.booth ?? "" },
      [record.base.id],
    );
  };
  against("kv-high", "gun voltage", row?.kv, "kV", sheet?.kv[1]);
  against("output-high", "gun air", row?.gun_air_kpa, "kPa", sheet?.gunAirKPa[1]);
  against("ground-poor", "part to earth", row?.earth_mohm, "MΩ", sheet?.earthLimitMohm);
  against("hooks-coated", "cycles since stripped", row?.hook_cycles, "", sheet?.hookCyclesLimit);
  against("reclaim-high", "reclaim", row?.reclaim_percent, "%", sheet?.reclaimLimitPercent);
  if (record && row?.sprayed_hot !== null && row?.sprayed_hot !== undefined)
    add(
      "sprayed-hot",
      row.sprayed_hot ? "present" : "absent",
      "measured",
      { kind: row.sprayed_hot ? "done" : "not-done", step: "hot spraying" },
      [record.base.id],
    );
  if (record && row?.colour_change_before !== null && row?.colour_change_before !== undefined)
    add(
      "colour-change-before",
      row.colour_change_before ? "present" : "absent",
      "measured",
      { kind: row.colour_change_before ? "done" : "not-done", step: "colour change" },
      [record.base.id],
    );
  if (record)
    add(
      "existing-coating-under",
      (row?.coat_no ?? 1) > 1 ? "present" : "absent",
      "measured",
      { kind: (row?.coat_no ?? 1) > 1 ? "done" : "not-done", step: "recoat" },
      [record.base.id],
    );
  if (record && context.lot) {
    const days = (record.base.happened_at.getTime() - new Date(context.lot.madeOn).getTime()) / 86_400_000;
    add(
      "powder-expired",
      days > rack.powder.data.shelfLifeDays ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "lot age",
        value: days,
        unit: "days",
        lower: null,
        upper: rack.powder.data.shelfLifeDays,
        where: "",
      },
      [record.base.id],
    );
  } else add("powder-expired", "unknown", "unknown", { kind: "never-recorded" });
  const air = context.compressedAirDewPointC;
  if (air)
    add(
      "air-wet",
      air.value > context.site.compressedAirDewPointC ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "compressed air dew point",
        value: air.value,
        unit: "°C",
        lower: null,
        upper: context.site.compressedAirDewPointC,
        where: "",
      },
      [air.recordId],
    );
  else add("air-wet", "unknown", "unknown", { kind: "never-recorded" });
  const booth = context.boothAirMPerS;
  if (booth && sheet)
    add(
      "booth-air-high",
      booth.value > sheet.boothAirMPerS[1] ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "booth air",
        value: booth.value,
        unit: "m/s",
        lower: sheet.boothAirMPerS[0],
        upper: sheet.boothAirMPerS[1],
        where: row?.booth ?? "",
      },
      [booth.recordId],
    );
  else add("booth-air-high", "unknown", "unknown", { kind: "never-recorded" });
}
