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
}

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
  const timing = newest(rack, "bake")?.details.bake?.[0]?.timing;
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
