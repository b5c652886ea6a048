import { atLeast, atMost, within } from "@/core/limits";
import { bareLimitHours } from "@/core/preparation";
import { newest, type RackFile } from "../../rack/load-rack";
import type { SetupData } from "../../setup/setup-data";
import { type Add, declinedOption, type FoundWhat } from "./established";

/** Metals that hold gas and give it off through the film. */
export const castings = ["cast-aluminium", "cast-iron"];

/** What the preparation of the metal under this pass establishes. */
export function preparation(rack: RackFile, site: SetupData<"site">, humidityPercent: number | null, add: Add): void {
  const bareLimit = bareLimitHours(humidityPercent, site.bareLimits, site.bareLimitHours);
  const bareHours = bareLimit.ok ? bareLimit.value : site.bareLimitHours;
  const step = (name: string) =>
    rack.evidence.findLast((r) => r.base.kind === "prep-step" && r.details.prep_step?.[0]?.step === name);
  const doneOrNot = (finding: string, name: string): boolean => {
    const record = step(name);
    const row = record?.details.prep_step?.[0];
    if (!record || !row) return false;
    const what: FoundWhat = { kind: row.done ? "done" : "not-done", step: name };
    add(finding, row.done ? "absent" : "present", record.base.grade, what, [record.base.id]);
    return true;
  };
  const blast = step("blast");
  const row = blast?.details.prep_step?.[0];
  if (blast && row) {
    doneOrNot("no-blast", "blast");
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
      add("profile-low", atLeast(row.value, site.blastProfileUm[0]) ? "absent" : "present", "measured", what, [
        blast.base.id,
      ]);
      add("profile-high", atMost(row.value, site.blastProfileUm[1]) ? "absent" : "present", "measured", what, [
        blast.base.id,
      ]);
    }
  } else {
    const declined = declinedOption(rack, "blast");
    const called = rack.job.plan.stages.includes("blast");
    add(
      "no-blast",
      declined || !called ? "present" : "unknown",
      declined ? "measured" : called ? "unknown" : "by-procedure",
      declined
        ? { kind: "option-declined", what: declined.what, by: declined.by, on: declined.on }
        : { kind: "never-recorded" },
    );
  }
  const called = castings.includes(rack.part.data.substrate) || rack.part.data.substrate === "galvanised";
  const prebake = step("prebake");
  const bakeRow = prebake?.details.prep_step?.[0];
  if (!called) add("prebake-missed", "absent", "by-procedure", { kind: "not-called-for" });
  else if (prebake && bakeRow) {
    doneOrNot("prebake-missed", "prebake");
    const hottest = Math.max(...rack.powder.data.schedule.map((p) => p.metalC));
    if (bakeRow.done && bakeRow.value !== null)
      add(
        "prebake-too-cool",
        atLeast(bakeRow.value, hottest) ? "absent" : "present",
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
  const blasted = rack.evidence.find((r) => r.base.kind === "passage" && r.details.passage?.[0]?.stage === "blast");
  if (coat && blasted) {
    const hours = (coat.base.happened_at.getTime() - blasted.base.happened_at.getTime()) / 3_600_000;
    add(
      "long-wait-before-coat",
      hours > bareHours ? "present" : "absent",
      "measured",
      {
        kind: "value",
        quantity: "blast to powder",
        value: hours,
        unit: "h",
        lower: null,
        upper: bareHours,
        where: "",
      },
      [blasted.base.id, coat.base.id],
    );
  } else add("long-wait-before-coat", "unknown", "unknown", { kind: "never-recorded" });
  if (!doneOrNot("solvent-wipe-missed", "solvent-wipe"))
    add("solvent-wipe-missed", "unknown", "unknown", { kind: "never-recorded" });
  const measured = (
    finding: string,
    name: string,
    quantity: string,
    unit: string,
    lower: number | null,
    upper: number | null,
  ) => {
    const record = step(name);
    const value = record?.details.prep_step?.[0]?.value;
    if (!record || value === null || value === undefined)
      return add(finding, "unknown", "unknown", { kind: "never-recorded" });
    add(
      finding,
      within(value, lower, upper) ? "absent" : "present",
      "measured",
      { kind: "value", quantity, value, unit, lower, upper, where: "" },
      [record.base.id],
    );
  };
  measured("blast-dust-left", "dust-tape", "dust on tape", "grade", null, site.dustTapeWorstGrade);
  measured("water-break-fail", "water-break", "water film holds", "s", site.waterBreakHoldsS, null);
  measured("soluble-salt-high", "soluble-salt", "soluble salt", "mg/m²", null, site.solubleSaltMgPerM2);
}
