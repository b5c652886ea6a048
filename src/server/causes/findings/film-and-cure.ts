import { atLeast, atMost, within } from "@/core/limits";
import { mean } from "@/core/statistics";
import { cureItem, spotsOf } from "../../rack/judge-rack";
import { newest, type RackFile } from "../../rack/load-rack";
import type { Add, FoundWhat } from "./established";

/** What the readings of this pass establish, on one face or on all. */
export function film(rack: RackFile, face: string | null, add: Add): void {
  const values = spotsOf(rack)
    .filter((s) => face === null || s.face === face)
    .flatMap((s) => s.spot.readings.filter((r) => !r.rejectedReason).map((r) => r.valueUm));
  const sources = rack.latest.filter((r) => r.base.kind === "thickness").map((r) => r.base.id);
  if (values.length === 0) {
    for (const finding of ["film-high", "film-low", "film-right"])
      add(finding, "unknown", "unknown", { kind: "never-recorded" });
    return;
  }
  const { minUm, maxUm } = rack.powder.data;
  const meanUm = mean(values);
  const what: FoundWhat = {
    kind: "value",
    quantity: "mean film",
    value: meanUm,
    unit: "µm",
    lower: minUm,
    upper: maxUm,
    where: face ?? "all faces",
  };
  add("film-high", atMost(meanUm, maxUm) ? "absent" : "present", "measured", what, sources);
  add("film-low", atLeast(meanUm, minUm) ? "absent" : "present", "measured", what, sources);
  add("film-right", within(meanUm, minUm, maxUm) ? "present" : "absent", "measured", what, sources);
  const means = spotsOf(rack).flatMap((s) => {
    const read = s.spot.readings.filter((r) => !r.rejectedReason).map((r) => r.valueUm);
    return read.length > 0 ? [mean(read)] : [];
  });
  if (means.length < UNEVEN_LEAST_SPOTS) return;
  const spread = ((Math.max(...means) - Math.min(...means)) / mean(means)) * 100;
  add(
    "film-uneven",
    spread > UNEVEN_OVER_PERCENT ? "present" : "absent",
    "measured",
    {
      kind: "value",
      quantity: "thinnest to thickest spot",
      value: spread,
      unit: "% of the mean",
      lower: null,
      upper: UNEVEN_OVER_PERCENT,
      where: "all faces",
    },
    sources,
  );
}

/** Film varies widely where the spots lie further apart than this, of the mean; asked of this many spots. */
const UNEVEN_OVER_PERCENT = 50;
const UNEVEN_LEAST_SPOTS = 4;
/** Metal channels of one load further apart than this at their hottest are uneven: the usual tolerance of ±10 °C, twice over. */
const OVEN_SPREAD_C = 20;

/** What its bake and its solvent rub establish. */
export function cure(rack: RackFile, add: Add): void {
  const item = cureItem(rack);
  const bake = item.bake;
  if (!bake) {
    for (const finding of ["hold-short", "cure-index-low", "cure-index-high"])
      add(finding, "unknown", "unknown", { kind: "never-recorded" });
  } else {
    const deciding = bake.channels.find((c) => c.name === bake.decidingChannel);
    add(
      "cure-index-low",
      atLeast(bake.decidingIndex, 100) ? "absent" : "present",
      "measured",
      {
        kind: "value",
        quantity: "cure index",
        value: bake.decidingIndex,
        unit: "",
        lower: 100,
        upper: null,
        where: bake.decidingChannel,
      },
      item.sources,
    );
    if (deciding)
      add(
        "hold-short",
        deciding.holdMet ? "absent" : "present",
        "measured",
        {
          kind: "value",
          quantity: "longest hold",
          value: Math.max(...deciding.holds.map((h) => h.longestS / h.neededS)) * 100,
          unit: "% of the sheet's",
          lower: 100,
          upper: null,
          where: deciding.name,
        },
        item.sources,
      );
    const over = Math.max(...bake.channels.map((c) => c.overbakeIndex ?? 0));
    add(
      "cure-index-high",
      atMost(over, 100) ? "absent" : "present",
      "measured",
      {
        kind: "value",
        quantity: "over-bake index",
        value: over,
        unit: "",
        lower: null,
        upper: 100,
        where: "hottest channel",
      },
      item.sources,
    );
  }
  const loaded = newest(rack, "bake");
  const metal = (loaded?.details.bake_channel ?? []).flatMap((c) => {
    const temps = c.temp_c.filter((t): t is number => t !== null);
    return c.medium === "metal" && temps.length > 0 ? [{ name: c.name, peakC: Math.max(...temps) }] : [];
  });
  if (loaded && metal.length >= 2) {
    const peaks = metal.map((c) => c.peakC);
    const spread = Math.max(...peaks) - Math.min(...peaks);
    const coldest = metal.find((c) => c.peakC === Math.min(...peaks));
    add(
      "oven-uneven",
      spread > OVEN_SPREAD_C ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "between the channels at their hottest",
        value: spread,
        unit: "°C",
        lower: null,
        upper: OVEN_SPREAD_C,
        where: `coldest ${coldest?.name ?? ""}`,
      },
      [loaded.base.id],
    );
  }
  const ran = loaded?.details.bake?.[0]?.powder_id;
  // Of a rack with a primer the newest bake may be the primer’s own.
  if (loaded && ran && !rack.job.plan.primer)
    add(
      "schedule-of-other-powder",
      ran === rack.powder.id ? "absent" : "present",
      "measured",
      { kind: ran === rack.powder.id ? "not-done" : "done", step: "another powder’s schedule" },
      [loaded.base.id],
    );
  const timing = loaded?.details.bake?.[0]?.timing;
  if (timing)
    add(
      "timed-from-door",
      timing === "door-close" ? "present" : "absent",
      "measured",
      { kind: "done", step: timing },
      item.sources,
    );
  const rub = newest(rack, "solvent-rub");
  const row = rub?.details.solvent_rub?.[0];
  if (rub && row) {
    const what: FoundWhat = {
      kind: "value",
      quantity: "solvent rub grade",
      value: row.grade,
      unit: "of 5",
      lower: row.known_cured_grade,
      upper: null,
      where: "",
    };
    add("solvent-rub-fail", row.grade <= 2 ? "present" : "absent", "measured", what, [rub.base.id]);
    add("solvent-rub-pass", row.grade >= (row.known_cured_grade ?? 5) ? "present" : "absent", "measured", what, [
      rub.base.id,
    ]);
  } else
    for (const finding of ["solvent-rub-fail", "solvent-rub-pass"])
      add(finding, "unknown", "unknown", { kind: "never-recorded" });
}
