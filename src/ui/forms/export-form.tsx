"use client";
import { useState } from "react";
import { Fold } from "../fields/fold";
import { Tick } from "../fields/tick";

type Table = { readonly table: string; readonly kind: string; readonly name: string };

/** What a shop asks for most, by the kinds it is kept in. */
const groups: readonly (readonly [string, readonly string[]])[] = [
  ["Rounds", ["bath-check", "bath-event", "round-skip"]],
  ["Film", ["thickness", "base-metal", "powder-height", "gauge-check"]],
  ["Cure", ["bake", "bake-event", "cure-test", "solvent-rub"]],
  ["Tests", ["cross-cut", "pull-off", "panel-test", "wash-panel", "first-panel"]],
  ["Decisions", ["disposition", "certificate"]],
  ["Defects", ["defect", "look", "finding"]],
];

/** Days and how the file is written, then a file of each table. */
export function ExportForm({ tables, stock }: { tables: readonly Table[]; stock: boolean }) {
  const [from, setFrom] = useState("");
  const [to, setTo] = useState("");
  const [bom, setBom] = useState(false);
  const query = new URLSearchParams({
    ...(from && { from }),
    ...(to && { to }),
    ...(bom && { bom: "yes" }),
  }).toString();
  const file = (table: string) => `/api/export/${table}.csv${query ? `?${query}` : ""}`;
  const backwards = from !== "" && to !== "" && from > to;
  const links = (some: readonly Table[]) => (
    <div className="flex flex-wrap gap-2">
      {some.map((t) => (
        <a key={t.table} className="btn" href={file(t.table)} download>
          {t.name}
        </a>
      ))}
    </div>
  );
  return (
    <div className="mt-4 grid gap-5">
      <div className="flex flex-wrap items-end gap-3">
        <div className="field w-44">
          <label htmlFor="export-from">From, the day included</label>
          <input
            id="export-from"
            type="date"
            className="input"
            value={from}
            onChange={(e) => setFrom(e.target.value)}
          />
        </div>
        <div className="field w-44">
          <label htmlFor="export-to">To, the day included</label>
          <input id="export-to" type="date" className="input" value={to} onChange={(e) => setTo(e.target.value)} />
        </div>
        <label className="flex min-h-11 items-center gap-2">
          <Tick checked={bom} onChange={setBom} /> for a spreadsheet that shows µ and ° wrongly
        </label>
      </div>
      {backwards && (
        <p role="alert" className="m-0 text-out">
          {from} is after {to}: turn the days round.
        </p>
      )}
      {groups.map(([name, kinds]) => (
        <section key={name} className="ruled">
          <h2>{name}</h2>
          {links(tables.filter((t) => kinds.includes(t.kind)))}
        </section>
      ))}
      {stock && (
        <section className="ruled">
          <h2>Stock, as it is now</h2>
          <a className="btn" href={file("stock")} download>
            Powder and chemicals
          </a>
        </section>
      )}
      <Fold summary="Every other kind of record">
        {links(tables.filter((t) => !groups.some(([, kinds]) => kinds.includes(t.kind))))}
      </Fold>
    </div>
  );
}
