import type { FindingState } from "@/core/diagnosis";
import { atLeast, within } from "@/core/limits";
import { mean } from "@/core/statistics";
import type { EvidenceGrade } from "@/core/verdict";
import { judgeRack, spotsOf } from "../rack/judge-rack";
import { newest, type RackFile } from "../rack/load-rack";
import type { SetupData } from "../setup/setup-data";
import type { Conditions } from "../trace/conditions";

/** A finding as the record establishes it, with what was found and the records it rests on. */
export type EstablishedFinding = {
  readonly finding: string;
  readonly state: FindingState;
  readonly grade: EvidenceGrade;
  readonly what: FoundWhat;
  readonly sources: readonly string[];
};
export type FoundWhat =
  | { readonly kind: "never-recorded" }
  | { readonly kind: "not-called-for" }
  | { readonly kind: "job-says"; readonly substrate: string; readonly feature: string | null }
  | {
      readonly kind: "value";
      readonly quantity: string;
      readonly value: number;
      readonly unit: string;
      readonly lower: number | null;
      readonly upper: number | null;
      readonly where: string;
    }
  | { readonly kind: "done" | "not-done"; readonly step: string }
  | { readonly kind: "option-declined"; readonly what: string; readonly by: string; readonly on: string }
  | { readonly kind: "exposure"; readonly exposure: readonly string[] };

const castings = ["cast-aluminium", "cast-iron"];

/**
 * Establishes every finding that the record can speak to, for one rack, at the time it passed. No record means
 * unknown, said as never recorded; a step that is missing counts only where the route or the metal called for it.
 */
export function findingsFromRecord(
  rack: RackFile,
  conditions: Conditions,
  context: {
    site: SetupData<"site">;
    setupSheet: SetupData<"setup-sheet"> | null;
    lot: SetupData<"lot"> | null;
    exposure: readonly string[] | null;
    face: string | null;
    compressedAirDewPointC: { value: number; recordId: string } | null;
  },
): EstablishedFinding[] {
  const out: EstablishedFinding[] = [];
  const add = (
    finding: string,
    state: FindingState,
    grade: EvidenceGrade,
    what: FoundWhat,
    sources: readonly string[] = [],
  ) => out.push({ finding, state, grade, what, sources });
  const yes = (condition: boolean): FindingState => (condition ? "present" : "absent");
  const part = rack.part.data;
  const job = (finding: string, is: boolean, feature: string | null = null) =>
    add(finding, yes(is), "measured", { kind: "job-says", substrate: part.substrate, feature });
  job("steel-hot-rolled", part.substrate === "hot-rolled-steel");
  job("cast-metal", castings.includes(part.substrate));
  job("galvanised", part.substrate === "galvanised");
  job("light-metal", part.substrate === "aluminium");
  job("stainless", part.substrate === "stainless");
  for (const feature of [
    "thermal-cut-edges",
    "sharp-edges",
    "open-lap-seam",
    "hollow-section",
    "deep-recess",
    "fit-surface",
  ] as const)
    job(feature, part.features.includes(feature), feature);
  preparation(rack, context.site, add);
  baths(conditions, add);
  film(rack, context.face, add);
  cure(rack, conditions, add);
  coat(rack, context, add);
  const declined = rack.job.plan.offered.find((o) => /primer/i.test(o.what) && !o.taken);
  add(
    "no-primer",
    yes(!rack.job.plan.primer),
    "measured",
    declined
      ? { kind: "option-declined", what: declined.what, by: declined.by, on: declined.on }
      : { kind: rack.job.plan.primer ? "done" : "not-done", step: "primer" },
  );
  const powder = rack.powder.data;
  for (const trait of ["low-flow-powder", "high-flow-powder", "water-releasing-powder"] as const)
    add(trait, yes(powder.traits.includes(trait)), "by-procedure", {
      kind: "job-says",
      substrate: rack.powder.code,
      feature: trait,
    });
  const exposure = context.exposure ?? rack.job.plan.exposure;
  const outdoors = !exposure.includes("indoor");
  add(
    "indoor-chemistry-outdoors",
    yes(outdoors && powder.traits.includes("indoor-chemistry-outdoors")),
    "by-procedure",
    { kind: "exposure", exposure },
  );
  add(
    "weather-grade-low",
    yes(
      outdoors &&
        (powder.weathering === "indoor" ||
          (exposure.includes("sun") && exposure.includes("salt") && powder.weathering === "standard")),
    ),
    "by-procedure",
    { kind: "exposure", exposure },
  );
  for (const [finding, word] of [
    ["salt-exposure", "salt"],
    ["standing-water", "standing-water"],
    ["impact-service", "knocks"],
  ] as const)
    add(finding, yes(exposure.includes(word)), context.exposure ? "measured" : "by-procedure", {
      kind: "exposure",
      exposure,
    });
  return out;
}

type Add = (
  finding: string,
  state: FindingState,
  grade: EvidenceGrade,
  what: FoundWhat,
  sources?: readonly string[],
) => void;

function preparation(rack: RackFile, site: SetupData<"site">, add: Add): void {
  const step = (name: string) =>
    rack.current.find((r) => r.base.kind === "prep-step" && r.details.prep_step?.[0]?.step === name);
  const blast = step("blast");
  const row = blast?.details.prep_step?.[0];
  if (blast && row) {
    add(
      "no-blast",
      row.done ? "absent" : "present",
      blast.base.grade,
      { kind: row.done ? "done" : "not-done", step: "blast" },
      [blast.base.id],
    );
    if (row.value !== null) {
      const what: FoundWhat = {
        kind: "value",
        quantity: "blast profile",
        value: row.value,
        unit: "µm",
        lower: site.blastProfileUm[0],
        upper: site.blastProfileUm[1],
        where: "",
      };
      add("profile-low", row.value < site.blastProfileUm[0] ? "present" : "absent", "measured", what, [blast.base.id]);
      add("profile-high", row.value > site.blastProfileUm[1] ? "present" : "absent", "measured", what, [blast.base.id]);
    }
  } else
    add(
      "no-blast",
      rack.job.plan.stages.includes("blast") ? "unknown" : "present",
      rack.job.plan.stages.includes("blast") ? "unknown" : "by-procedure",
      { kind: "never-recorded" },
    );
  const dust = step("dust-tape")?.details.prep_step?.[0];
  if (dust?.value !== null && dust?.value !== undefined)
    add(
      "blast-dust-left",
      dust.value > 2 ? "present" : "absent",
      "measured",
      { kind: "value", quantity: "dust on tape", value: dust.value, unit: "grade", lower: null, upper: 2, where: "" },
      [step("dust-tape")?.base.id ?? ""],
    );
  else add("blast-dust-left", "unknown", "unknown", { kind: "never-recorded" });
  const called = castings.includes(rack.part.data.substrate) || rack.part.data.substrate === "galvanised";
  const prebake = step("prebake");
  const bakeRow = prebake?.details.prep_step?.[0];
  if (!called) add("prebake-missed", "absent", "by-procedure", { kind: "not-called-for" });
  else if (prebake && bakeRow) {
    add(
      "prebake-missed",
      bakeRow.done ? "absent" : "present",
      prebake.base.grade,
      { kind: bakeRow.done ? "done" : "not-done", step: "prebake" },
      [prebake.base.id],
    );
    const hottest = Math.max(...rack.powder.data.schedule.map((p) => p.metalC));
    if (bakeRow.done && bakeRow.value !== null)
      add(
        "prebake-too-cool",
        bakeRow.value < hottest ? "present" : "absent",
        "measured",
        {
          kind: "value",
          quantity: "outgassing bake, metal",
          value: bakeRow.value,
          unit: "°C",
          lower: hottest,
          upper: null,
          where: "",
        },
        [prebake.base.id],
      );
  } else add("prebake-missed", "unknown", "unknown", { kind: "never-recorded" });
  const coat = newest(rack, "coat");
  const blasted = rack.current.find((r) => r.base.kind === "passage" && r.details.passage?.[0]?.stage === "blast");
  if (coat && blasted) {
    const hours = (coat.base.happened_at.getTime() - blasted.base.happened_at.getTime()) / 3_600_000;
    add(
      "long-wait-before-coat",
      hours > site.bareLimitHours ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "blast to powder",
        value: hours,
        unit: "h",
        lower: null,
        upper: site.bareLimitHours,
        where: "",
      },
      [blasted.base.id, coat.base.id],
    );
  } else add("long-wait-before-coat", "unknown", "unknown", { kind: "never-recorded" });
  for (const [finding, name] of [
    ["solvent-wipe-missed", "solvent-wipe"],
    ["water-break-fail", "water-break"],
    ["soluble-salt-high", "soluble-salt"],
  ] as const)
    if (!step(name)) add(finding, "unknown", "unknown", { kind: "never-recorded" });
}

function baths(conditions: Conditions, add: Add): void {
  const group = (role: string) => conditions.baths.filter((b) => b.role === role);
  const speak = (finding: string, role: string) => {
    const all = group(role);
    const known = all.filter((b) => b.found.value !== null);
    const [worst] = [...known].sort((a, b) => (a.result === "out" ? -1 : 0) - (b.result === "out" ? -1 : 0));
    if (!worst || worst.found.value === null) return add(finding, "unknown", "unknown", { kind: "never-recorded" });
    add(
      finding,
      worst.result === "out" ? "present" : "absent",
      worst.found.grade,
      {
        kind: "value",
        quantity: worst.parameter,
        value: worst.found.value,
        unit: "",
        lower: worst.lower,
        upper: worst.upper,
        where: worst.bath,
      },
      worst.found.sources,
    );
  };
  speak("conversion-out", "conversion");
  speak("rinse-dirty", "rinse");
  const passed = conditions.passages.find((p) => p.stage === "conversion");
  if (passed) {
    add("pretreatment-skipped", "absent", passed.grade, { kind: "done", step: "conversion" }, [passed.recordId]);
    const window = conditions.baths.find((b) => b.stage === passed.stage)?.contactS ?? null;
    if (passed.seconds !== null && window) {
      const [lower, upper] = window;
      const short = !atLeast(passed.seconds, lower);
      const what: FoundWhat = {
        kind: "value",
        quantity: "contact time",
        value: passed.seconds,
        unit: "s",
        lower,
        upper,
        where: "conversion",
      };
      add("contact-time-short", short ? "present" : "absent", passed.grade, what, [passed.recordId]);
    } else add("contact-time-short", "unknown", "unknown", { kind: "never-recorded" });
  } else
    add(
      "pretreatment-skipped",
      conditions.passages.length > 0 ? "present" : "unknown",
      conditions.passages.length > 0 ? "by-procedure" : "unknown",
      { kind: "never-recorded" },
    );
  add("inhibitor-low", "unknown", "unknown", { kind: "never-recorded" });
}

function film(rack: RackFile, face: string | null, add: Add): void {
  const values = spotsOf(rack)
    .filter((s) => face === null || s.face === face)
    .flatMap((s) => s.spot.readings.filter((r) => !r.rejectedReason).map((r) => r.valueUm));
  const sources = rack.current.filter((r) => r.base.kind === "thickness").map((r) => r.base.id);
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
  add("film-high", meanUm > maxUm ? "present" : "absent", "measured", what, sources);
  add("film-low", meanUm < minUm ? "present" : "absent", "measured", what, sources);
  add("film-right", within(meanUm, minUm, maxUm) ? "present" : "absent", "measured", what, sources);
}

function cure(rack: RackFile, conditions: Conditions, add: Add): void {
  const item = judgeRack(rack, conditions).items.find((i) => i.item === "cure");
  const bake = item?.item === "cure" ? item.bake : null;
  if (!bake || !item) {
    for (const finding of ["hold-short", "cure-index-low", "cure-index-high"])
      add(finding, "unknown", "unknown", { kind: "never-recorded" });
  } else {
    const deciding = bake.channels.find((c) => c.name === bake.decidingChannel);
    add(
      "cure-index-low",
      bake.decidingIndex < 100 ? "present" : "absent",
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
      over > 100 ? "present" : "absent",
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
      item?.sources ?? [],
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

function coat(
  rack: RackFile,
  context: {
    setupSheet: SetupData<"setup-sheet"> | null;
    lot: SetupData<"lot"> | null;
    compressedAirDewPointC: { value: number; recordId: string } | null;
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
  against("reclaim-high", "reclaim", row?.reclaim_percent, "%", 40);
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
  add("booth-air-high", "unknown", "unknown", { kind: "never-recorded" });
}
