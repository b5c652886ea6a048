import { ListFrame } from "./list-frame";
import { type ListProps, One, TOOLS_FROM, tracksOf, VIRTUAL_FROM } from "./rows";

export type { Column, Row } from "./rows";

/**
 * Rows of anything: sorted by their heads and found in where all of them are here, walked by the arrow keys, drawn as they
 * are seen where they are many, and saved as CSV as they are shown. They stand there at once; what works on them is loaded
 * behind the page, in the same places.
 */
export function List(props: ListProps) {
  const { columns, rows, empty, heads = true } = props;
  if (rows.length === 0) return <div className="py-3">{empty}</div>;
  return (
    <ListFrame {...props}>
      <div style={tracksOf(columns)}>
        {rows.length >= TOOLS_FROM && <div className="no-print min-h-11" />}
        {heads && (
          <div className="list-row small soft items-end border-rule border-b">
            {columns.map((c) => (
              <span
                key={c.key}
                className={`list-head ${c.num ? "text-right" : "text-left"} ${c.wide ? "wide-only" : ""}`}
              >
                {c.head}
              </span>
            ))}
          </div>
        )}
        {rows.slice(0, VIRTUAL_FROM).map((row) => (
          <One key={row.key} row={row} columns={columns} />
        ))}
      </div>
    </ListFrame>
  );
}
