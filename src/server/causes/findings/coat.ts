import { usualPreFlightLimits } from "@/core/coating";
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
  // Over an old film the voltage is held against its own window.
  const overOld = row?.situation === "recoat" || (row?.coat_no ?? 1) > 1;
  const kvMost = overOld ? (sheet?.recoatKv?.[1] ?? sheet?.kv[1]) : sheet?.kv[1];
  against("kv-high", "gun voltage", row?.kv, "kV", kvMost);
  against("output-high", "gun air", row?.gun_air_kpa, "kPa", sheet?.gunAirKPa[1]);
  const leastAir = sheet?.gunAirKPa[0];
  if (
    record &&
    row?.gun_air_kpa !== null &&
    row?.gun_air_kpa !== undefined &&
    leastAir !== undefined &&
    leastAir !== null
  )
    add(
      "output-low",
      row.gun_air_kpa < leastAir ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "gun air",
        value: row.gun_air_kpa,
        unit: "kPa",
        lower: leastAir,
        upper: null,
        where: row.booth,
      },
      [record.base.id],
    );
  const flight = newest(rack, "pre-flight");
  const items = flight?.details.pre_flight_item ?? [];
  const looked = (item: string) => items.find((i) => i.item === item && i.how !== "skipped");
  const links = ["lead-rack", "rack-hook", "hook-part"].flatMap((link) => looked(link)?.value ?? []);
  // The links add up; read with the coat itself it stands before them.
  const earth = row?.earth_mohm ?? (links.length > 0 ? links.reduce((a, b) => a + b, 0) : null);
  against("ground-poor", "part to earth", earth, "MΩ", sheet?.earthLimitMohm);
  if (flight) {
    const seen = (finding: string, item: string, what: string) => {
      const good = looked(item)?.good;
      if (good === true || good === false)
        add(
          finding,
          good ? "absent" : "present",
          "by-procedure",
          { kind: "seen", what: `${what}: ${good ? "in order" : "not in order"}` },
          [flight.base.id],
        );
    };
    seen("bare-hands", "gloves", "gloves at the pre-flight");
    seen("scuff-missed", "scuffed", "old film scuffed");
    const fill = looked("hopper-mark")?.value;
    const most = sheet?.hopperFillPercent?.[1] ?? usualPreFlightLimits.hopperFillPercent[1];
    if (fill !== null && fill !== undefined && most !== null)
      add(
        "hopper-overfull",
        fill > most ? "present" : "absent",
        "measured",
        { kind: "value", quantity: "hopper filled", value: fill, unit: "%", lower: null, upper: most, where: "" },
        [flight.base.id],
      );
  }
  const lamp = newest(rack, "lamp-check");
  const bumped = lamp?.details.lamp_check?.[0]?.bumped;
  if (lamp && bumped !== undefined)
    add(
      "knocked-before-cure",
      bumped ? "present" : "absent",
      "measured",
      { kind: bumped ? "done" : "not-done", step: "knock before the bake" },
      [lamp.base.id],
    );
  if (record && row?.distance_mm !== null && row?.distance_mm !== undefined && sheet?.distanceMm)
    add(
      "gun-close",
      row.distance_mm < sheet.distanceMm[0] ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "gun distance",
        value: row.distance_mm,
        unit: "mm",
        lower: sheet.distanceMm[0],
        upper: null,
        where: row.booth,
      },
      [record.base.id],
    );
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
  // Read with the coat it is nearer than the last reading of the booth.
  const booth =
    record && row?.booth_air_m_per_s !== null && row?.booth_air_m_per_s !== undefined
      ? { value: row.booth_air_m_per_s, recordId: record.base.id }
      : context.boothAirMPerS;
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
