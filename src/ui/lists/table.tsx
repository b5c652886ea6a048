"use client";
import {
  columnFilteringFeature,
  constructFilterFn,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";
import { countOf } from "../format";
import { useKeysWithin } from "../frame/use-keys-within";
import { type Column, type ListProps, One, type Row, TOOLS_FROM, tracksOf, type Value, VIRTUAL_FROM } from "./rows";

const ROW_PX = 52;
/** Drawn above and below what is seen. */
const BEYOND = 12;

const words = (row: Row): string => Object.values(row.values).join(" ").toLowerCase();
const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  sortedRowModel: createSortedRowModel(),
  filteredRowModel: createFilteredRowModel(),
});
const holds = constructFilterFn({
  filter: (_value, text: string, row: { original: Row }) =>
    text
      .toLowerCase()
      .split(/\s+/)
      .every((word) => words(row.original).includes(word)),
});
const collator = new Intl.Collator("en", { numeric: true, sensitivity: "base" });
/** Nothing is last whichever way it is sorted: the table turns the rest. */
const compare = (a: Value, b: Value): number =>
  typeof a === "number" && typeof b === "number" ? a - b : collator.compare(String(a ?? ""), String(b ?? ""));

/** A list at work: sorted by its heads and found in where all of it is here, drawn as it is seen where it is long. O(rows) */
export function Table({ name, columns, rows, part = false, heads = true }: ListProps) {
  const [found, setFound] = useState("");
  const defs = useMemo(
    () =>
      columns.map((c) => ({
        id: c.key,
        accessorFn: (row: Row) => row.values[c.key] ?? undefined,
        sortFn: (a: { original: Row }, b: { original: Row }) =>
          compare(a.original.values[c.key] ?? null, b.original.values[c.key] ?? null),
        sortUndefined: "last" as const,
        enableSorting: !part && rows.length > 1,
      })),
    [columns, part, rows.length],
  );
  const table = useTable({
    features,
    columns: defs,
    data: rows as Row[],
    state: { globalFilter: found },
    globalFilterFn: holds,
    getColumnCanGlobalFilter: () => true,
    getRowId: (row: Row) => row.key,
  });
  const shown = table.getRowModel().rows.map((r) => r.original);
  const body = useRef<HTMLDivElement>(null);
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const [before, after] = [() => flushSync(() => setPrinting(true)), () => setPrinting(false)];
    addEventListener("beforeprint", before);
    addEventListener("afterprint", after);
    return () => {
      removeEventListener("beforeprint", before);
      removeEventListener("afterprint", after);
    };
  }, []);
  useKeysWithin(body, (e) => {
    const links = [...(body.current?.querySelectorAll<HTMLElement>("[data-row]") ?? [])];
    const at = links.indexOf(document.activeElement as HTMLElement);
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: links.length - 1 }[e.key];
    if (at < 0 || to === undefined || !links[to]) return;
    e.preventDefault();
    links[to]?.focus();
  });
  const tools = rows.length >= TOOLS_FROM;
  return (
    <div style={tracksOf(columns)}>
      {tools && (
        <div className="no-print flex flex-wrap items-center justify-end gap-x-4 gap-y-1">
          {!part && (
            <input
              type="search"
              className="input w-[200px]"
              aria-label={`Find in: ${name}`}
              placeholder="find in these"
              value={found}
              onChange={(e) => setFound(e.target.value)}
            />
          )}
          {!part && found && (
            <span role="status" className="small soft mr-auto">
              {shown.length} of {countOf(rows.length, "row")}
            </span>
          )}
          <button
            type="button"
            className="link min-h-11"
            onClick={() => void import("./save-csv").then((m) => m.saveCsv(name, columns, shown))}
          >
            CSV of what is shown
          </button>
        </div>
      )}
      {heads && (
        <div className="list-row small soft items-end border-rule border-b">
          {table.getFlatHeaders().map(({ column }, i) => {
            const { head, num, wide } = columns[i] as Column;
            const sorted = column.getIsSorted();
            const look = `${num ? "text-right" : "text-left"} ${wide ? "wide-only" : ""}`;
            return column.getCanSort() && head ? (
              <button
                key={column.id}
                type="button"
                className={`list-head ${look}`}
                aria-label={`Sort by ${head}${sorted ? `, now ${sorted === "asc" ? "rising" : "falling"}` : ""}`}
                onClick={column.getToggleSortingHandler()}
              >
                {head} <span aria-hidden>{sorted ? (sorted === "asc" ? "↑" : "↓") : ""}</span>
              </button>
            ) : (
              <span key={column.id} className={look}>
                {head}
              </span>
            );
          })}
        </div>
      )}
      <div ref={body}>
        {shown.length >= VIRTUAL_FROM && !printing ? (
          <Seen rows={shown} columns={columns} body={body} />
        ) : (
          shown.map((row) => <One key={row.key} row={row} columns={columns} />)
        )}
      </div>
      {shown.length === 0 && <p className="py-2">Nothing here holds “{found}”.</p>}
    </div>
  );
}

/** The rows of a long list that are seen, and some beyond; all of them on paper. */
function Seen({
  rows,
  columns,
  body,
}: {
  rows: readonly Row[];
  columns: readonly Column[];
  body: React.RefObject<HTMLDivElement | null>;
}) {
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => body.current?.closest(".bench") ?? null,
    estimateSize: () => ROW_PX,
    overscan: BEYOND,
    initialRect: { width: 800, height: 800 },
    scrollMargin: body.current?.offsetTop ?? 0,
    getItemKey: (i) => rows[i]?.key ?? i,
  });
  return (
    <div className="relative" style={{ height: list.getTotalSize() }}>
      {list.getVirtualItems().map((item) => (
        <div
          key={item.key}
          ref={list.measureElement}
          data-index={item.index}
          className="absolute top-0 left-0 w-full"
          style={{ transform: `translateY(${item.start - list.options.scrollMargin}px)` }}
        >
          <One row={rows[item.index] as Row} columns={columns} />
        </div>
      ))}
    </div>
  );
}
