import { atLeast } from "@/core/limits";
import { holdsWater } from "@/core/preparation";
import type { DetailRow } from "@/db/detail-tables";
import { newest, type RackFile } from "../../rack/load-rack";
import type { Conditions } from "../../trace/conditions";
import type { Add, FoundWhat } from "./established";

/** What the baths it met, and how long it was in them, establish. */
export function baths(conditions: Conditions, add: Add): void {
  // Inhibitor holds rust off between stages; it is no part of how the coat forms.
  const group = (role: string) => conditions.baths.filter((b) => b.role === role && b.parameter !== "inhibitor");
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
  speak("cleaner-out", "cleaner");
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
  const inhibitor = conditions.baths.find((b) => b.parameter === "inhibitor" && b.found.value !== null);
  if (inhibitor && inhibitor.found.value !== null)
    add(
      "inhibitor-low",
      atLeast(inhibitor.found.value, inhibitor.lower ?? 0) ? "absent" : "present",
      inhibitor.found.grade,
      {
        kind: "value",
        quantity: "inhibitor",
        value: inhibitor.found.value,
        unit: "mg/L",
        lower: inhibitor.lower,
        upper: inhibitor.upper,
        where: inhibitor.bath,
      },
      inhibitor.found.sources,
    );
  else add("inhibitor-low", "unknown", "unknown", { kind: "never-recorded" });
}

/** Stages a piece leaves wet. */
const wetStages = ["clean", "clean-rinse", "conversion", "rinse", "seal", "final-rinse"];

/** How long it stood wet between two stages, and whether rust was seen before powder. */
export function wetBetween(rack: RackFile, conditions: Conditions, wetLimitS: number, add: Add): void {
  const passages = [...conditions.passages].sort((a, b) => a.enteredAt.getTime() - b.enteredAt.getTime());
  const waits = passages.flatMap((p, i) => {
    const before = passages[i - 1];
    return before?.leftAt && wetStages.includes(before.stage)
      ? [{ seconds: (p.enteredAt.getTime() - before.leftAt.getTime()) / 1000, before, p }]
      : [];
  });
  const [longest] = waits.sort((a, b) => b.seconds - a.seconds);
  if (longest)
    add(
      "line-stopped-wet",
      longest.seconds > wetLimitS ? "present" : "absent",
      longest.p.grade,
      {
        kind: "value",
        quantity: "wet between two stages",
        value: longest.seconds,
        unit: "s",
        lower: null,
        upper: wetLimitS,
        where: `${longest.before.stage} to ${longest.p.stage}`,
      },
      [longest.before.recordId, longest.p.recordId],
    );
  else add("line-stopped-wet", "unknown", "unknown", { kind: "never-recorded" });
  const coat = newest(rack, "coat");
  const bloom = rack.evidence.find(
    (r) =>
      r.details.defect?.some((d) => d.defect === "flash-rust") && (!coat || r.base.happened_at < coat.base.happened_at),
  );
  if (bloom)
    add("flash-rust-seen", "present", "measured", { kind: "seen", what: "rust bloom on the bare metal" }, [
      bloom.base.id,
    ]);
}

/** What a look at the parts out of the dry-off says of water left; tubes nobody looked into are not known. */
function waterLeft(row: DetailRow<"dry_off">, holds: boolean): readonly ["present" | "absent" | "unknown", string] {
  if (!row.parts_dry) return ["present", "left the dry-off damp"];
  if (holds && row.hollow_blown === false) return ["present", "tubes and laps not blown out"];
  if (holds && row.hollow_blown === null) return ["unknown", "dry outside; tubes and laps not looked at"];
  return ["absent", holds ? "dry, tubes and laps blown out" : "looked at, dry"];
}

/** How it came out of the dry-off. */
export function dryness(rack: RackFile, add: Add): void {
  const dry = newest(rack, "dry-off");
  const row = dry?.details.dry_off?.[0];
  if (!dry || !row) {
    add("moisture-left", "unknown", "unknown", { kind: "never-recorded" });
    return;
  }
  const [state, what] = waterLeft(row, holdsWater(rack.part.data.features));
  add("moisture-left", state, state === "unknown" ? "unknown" : dry.base.grade, { kind: "seen", what }, [dry.base.id]);
}
