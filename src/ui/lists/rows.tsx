import type { CSSProperties, ReactNode } from "react";
import Link from "../link";

/** What a column sorts by, is found by and leaves as in a CSV. */
export type Value = string | number | null;
export type Column = {
  readonly key: string;
  readonly head: string;
  /** Its track of the grid. */
  readonly width: string;
  /** Classes of its cells. */
  readonly look?: string;
  /** Stands at the right, as figures do. */
  readonly num?: boolean;
  /** Left out where the screen is narrow. */
  readonly wide?: boolean;
};
export type Row = {
  readonly key: string;
  /** Where it leads; the whole row is the link. */
  readonly href?: string;
  /** How a column shows in this row, where it is not its value alone. */
  readonly cells?: Readonly<Record<string, ReactNode>>;
  readonly values: Readonly<Record<string, Value>>;
};

export type ListProps = {
  name: string;
  columns: readonly Column[];
  rows: readonly Row[];
  /** What the list is for and how it begins, where nothing is in it. */
  empty: ReactNode;
  /** These are a page of more: their order is the page's own. */
  part?: boolean;
  /** Whether its columns are named: not where each row says what it is. */
  heads?: boolean;
};

/** From so many rows on they are found in, and saved. */
export const TOOLS_FROM = 8;
/** From so many rows on only those that are seen are drawn. */
export const VIRTUAL_FROM = 120;

/** The grid of a list's rows: all its columns, and those of a narrow screen. */
export const tracksOf = (columns: readonly Column[]): CSSProperties =>
  ({
    "--tracks": columns.map((c) => c.width).join(" "),
    "--few": columns
      .filter((c) => !c.wide)
      .map((c) => c.width)
      .join(" "),
  }) as CSSProperties;

export function One({ row, columns }: { row: Row; columns: readonly Column[] }) {
  const cells = columns.map((c) => (
    <span key={c.key} className={`min-w-0 ${c.look ?? ""} ${c.num ? "num" : ""} ${c.wide ? "wide-only" : ""}`}>
      {row.cells?.[c.key] ?? row.values[c.key]}
    </span>
  ));
  return row.href ? (
    <Link
      href={row.href}
      data-row=""
      className="row list-row min-h-[52px] items-center text-ink no-underline hover:bg-sorrel-tint"
    >
      {cells}
    </Link>
  ) : (
    <div className="row list-row items-baseline">{cells}</div>
  );
}
