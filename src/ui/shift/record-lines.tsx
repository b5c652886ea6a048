import type { UnitSystem } from "@/core/units";
import type { RecordLine } from "@/server/search/recent";
import { clock, dayMonth } from "../format";
import { sayRecord } from "../kinds/say-record";
import Link from "../link";

/** Records, one line each: when, where, what, by whom; a correction says what it was for. */
export function RecordLines({
  records,
  timeZone,
  units,
  withDay = false,
}: {
  records: readonly RecordLine[];
  timeZone: string;
  units: UnitSystem;
  /** Of more than one day. */
  withDay?: boolean;
}) {
  return records.map((r) => (
    <div
      key={r.id}
      className={`row ${withDay ? "grid-cols-[104px_minmax(0,1fr)_auto]" : "grid-cols-[46px_minmax(0,1fr)_auto]"}`}
    >
      <span className="fig faint small">
        {withDay ? `${dayMonth(r.at, timeZone)} ` : ""}
        {clock(r.at, timeZone)}
      </span>
      <span>
        {r.rack ? (
          <Link className="link" href={`/racks/${r.rack}`}>
            {r.rack}
          </Link>
        ) : (
          (r.place ?? "")
        )}{" "}
        {sayRecord(r, units)}
        {r.corrects ? <span className="soft"> (corrected: {r.corrects})</span> : ""}
      </span>
      <span className="small faint">{r.by}</span>
    </div>
  ));
}
