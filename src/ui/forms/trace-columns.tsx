"use client";
import type { TraceLayout } from "@/core/instrument-files";
import type { TraceAsked } from "@/server/imports/understand-file";
import { Choice } from "../fields/choice";

const roles: readonly (readonly [TraceLayout["columns"][number]["is"], string])[] = [
  ["time", "time"],
  ["date", "date, beside the time"],
  ["metal", "metal"],
  ["air", "air of the oven"],
  ["left-out", "left out"],
];
const forms: readonly (readonly [NonNullable<TraceLayout["form"]>, string])[] = [
  ["elapsed-s", "seconds from its start"],
  ["elapsed-min", "minutes from its start"],
  ["elapsed-clock", "h:mm:ss or m:ss from its start"],
  ["time-of-day", "time of day, without a date"],
  ["date-time", "date and time"],
  ["epoch-s", "seconds since 1970"],
  ["epoch-ms", "milliseconds since 1970"],
  ["spreadsheet-days", "days as a spreadsheet counts them"],
];

/** How a recorder's columns are read, to look at and change; what is changed is read anew. */
export function TraceColumns({
  asked,
  racks,
  change,
}: {
  asked: TraceAsked;
  /** Racks of the load it is of: a probe hangs on one of them. */
  racks: readonly { readonly number: string; readonly place: string }[];
  change: (layout: TraceLayout) => void;
}) {
  const { layout, cells } = asked;
  const column = (at: number, over: Partial<TraceLayout["columns"][number]>) =>
    change({ ...layout, columns: layout.columns.map((c, i) => (i === at ? { ...c, ...over } : c)) });
  const pick = <T extends string>(
    id: string,
    label: string,
    value: T | null,
    of: readonly (readonly [T, string])[],
    set: (value: T) => void,
  ) => (
    <div className="field w-60 max-w-full">
      <label htmlFor={id}>{label}</label>
      <Choice id={id} className="input" value={value ?? ""} onChange={(v) => set(v as T)}>
        {value === null && <option value="">choose one</option>}
        {of.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </Choice>
    </div>
  );
  return (
    <fieldset className="m-0 min-w-0 border-0 p-0">
      <legend className="mb-1 p-0 text-[17px] font-bold">How its columns are read</legend>
      <p className="small soft m-0 mb-2">Change what is wrong; files with these headings are read so the next time.</p>
      <div className="flex flex-wrap gap-3">
        {pick("trace-form", "Its time is", layout.form, forms, (form) => change({ ...layout, form }))}
        {layout.form === "date-time" &&
          pick(
            "trace-order",
            "Dates are",
            layout.order,
            [
              ["dmy", "day first"],
              ["mdy", "month first"],
              ["ymd", "year first"],
            ],
            (order) => change({ ...layout, order }),
          )}
        {(layout.form === "date-time" || layout.form === "spreadsheet-days") &&
          pick(
            "trace-zone",
            "By the clock",
            layout.zone,
            [
              ["shop", "of the shop"],
              ["utc", "of UTC"],
            ],
            (zone) => change({ ...layout, zone }),
          )}
        {pick(
          "trace-unit",
          "Unit",
          layout.unit,
          [
            ["degC", "°C"],
            ["degF", "°F"],
          ],
          (unit) => change({ ...layout, unit }),
        )}
        {pick(
          "trace-mark",
          "Decimals after",
          layout.mark,
          [
            [".", "a point: 181.5"],
            [",", "a comma: 181,5"],
          ],
          (mark) => change({ ...layout, mark }),
        )}
      </div>
      <ul className="m-0 mt-2 list-none p-0">
        {layout.columns
          .map((column, at) => ({ c: column, at, key: `${at} ${column.heading}` }))
          .map(({ c, at, key }) => (
            <li
              key={key}
              className="row grid-cols-[minmax(0,170px)_minmax(0,1fr)_190px_150px] items-center gap-2 max-[900px]:grid-cols-2"
            >
              <span className="min-w-0 break-words">{c.heading || <i className="soft">no heading</i>}</span>
              <span className="fig small faint truncate">
                {(cells[at] ?? []).filter((s) => s !== "").join("   ") || "empty"}
              </span>
              <Choice
                aria-label={`Column ${c.heading || at + 1} is`}
                className="input"
                value={c.is}
                onChange={(is) => column(at, { is: is as typeof c.is, rack: null })}
              >
                {roles.map(([role, words]) => (
                  <option key={role} value={role}>
                    {words}
                  </option>
                ))}
              </Choice>
              {c.is === "metal" && racks.length > 0 ? (
                <Choice
                  aria-label={`Probe ${c.name} hangs on`}
                  className="input"
                  value={c.rack ?? ""}
                  onChange={(rack) => column(at, { rack: rack === "" ? null : rack })}
                >
                  <option value="">any rack</option>
                  {racks.map((r) => (
                    <option key={r.number} value={r.number}>
                      rack {r.number}
                    </option>
                  ))}
                </Choice>
              ) : (
                <span />
              )}
            </li>
          ))}
      </ul>
    </fieldset>
  );
}
