import type { UnitSystem } from "@/core/units";
import type { RecordLine } from "@/server/search/recent";
import { recordSentence } from ".";

/** A listed record in a few words, in the reader's units. */
export const sayRecord = (
  record: Pick<RecordLine, "kind" | "details" | "counts" | "names">,
  units: UnitSystem,
): string =>
  recordSentence(record.kind, record.details, {
    units,
    name: (id) => (id ? (record.names[id] ?? "") : ""),
    count: (table) => record.counts[table] ?? 0,
  });
