import { atLeast } from "@/core/limits";
import type { Conditions } from "../../trace/conditions";
import type { Add, FoundWhat } from "./established";

/** What the baths it met, and how long it was in them, establish. */
export function baths(conditions: Conditions, add: Add): void {
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
