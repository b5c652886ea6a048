import { scaleLinear } from "d3";
import type { Loading, Orientation } from "@/core/plan";
import type { UnitSystem } from "@/core/units";
import { countOf, plainly, sides } from "../format";

/** The rack in the oven, to scale: from the side and from above, each piece where it hangs. */
export function FitDrawing({
  oven,
  rack,
  orientation,
  loading,
  gapMm,
  units,
}: {
  oven: { readonly lengthMm: number; readonly widthMm: number; readonly heightMm: number };
  rack: { readonly widthMm: number; readonly heightMm: number };
  orientation: Orientation;
  loading: Loading;
  gapMm: number;
  units: UnitSystem;
}) {
  const width = 620;
  const x = scaleLinear([0, oven.lengthMm], [0, width - 2]);
  const k = (mm: number) => x(mm) - x(0);
  const elevation = k(oven.heightMm);
  const plan = k(oven.widthMm);
  const columns = Math.min(loading.perRow, loading.perRack);
  const rows = Math.ceil(loading.perRack / columns);
  const pieces = Array.from({ length: loading.perRack }, (_, i) => ({
    column: i % columns,
    row: Math.floor(i / columns),
  }));
  const used = columns * (orientation.alongMm + gapMm) - gapMm;
  const top = (oven.heightMm - rack.heightMm) / 2;
  const spare = (oven.lengthMm - loading.racksLong * rack.widthMm) / (loading.racksLong + 1);
  const racks = Array.from({ length: loading.racksLong }, (_, i) => spare + i * (rack.widthMm + spare));
  const deep = (oven.widthMm - loading.racksDeep * orientation.acrossMm) / (loading.racksDeep + 1);
  const lanes = Array.from({ length: loading.racksDeep }, (_, i) => deep + i * (orientation.acrossMm + deep));
  const startIn = (left: number) => left + Math.max(0, (rack.widthMm - used) / 2);
  const label = `${loading.perRack} on a rack, ${columns} across and ${rows} down, ${countOf(loading.racksLong * loading.racksDeep, "rack")} in an oven of ${sides(oven, units)}`;
  return (
    <svg
      viewBox={`0 0 ${width} ${elevation + plan + 62}`}
      width={width}
      className="h-auto max-w-full"
      role="img"
      aria-label={label}
    >
      <text x="0" y="12">
        from the side
      </text>
      <g transform="translate(1,20)">
        <rect width={k(oven.lengthMm)} height={elevation} fill="var(--band)" stroke="var(--ink-2)" />
        {racks.map((left) => (
          <g key={left}>
            <rect
              x={k(left)}
              y={k(top)}
              width={k(rack.widthMm)}
              height={k(rack.heightMm)}
              fill="none"
              stroke="var(--ink-2)"
              strokeWidth="2.5"
            />
            {pieces.map(({ column, row }) => (
              <rect
                key={`${column}-${row}`}
                x={k(startIn(left) + column * (orientation.alongMm + gapMm))}
                y={k(top + row * (orientation.upMm + gapMm))}
                width={k(orientation.alongMm)}
                height={k(orientation.upMm)}
                fill="var(--sorrel-tint)"
                stroke="var(--sorrel)"
              />
            ))}
          </g>
        ))}
        <text x={k(oven.lengthMm) - 4} y={elevation - 6} textAnchor="end">
          {plainly(oven.lengthMm / 1000, "length", units)} × {plainly(oven.heightMm / 1000, "length", units)}
        </text>
      </g>
      <text x="0" y={elevation + 44}>
        from above
      </text>
      <g transform={`translate(1,${elevation + 52})`}>
        <rect width={k(oven.lengthMm)} height={plan} fill="var(--band)" stroke="var(--ink-2)" />
        {racks.flatMap((left) =>
          lanes.map((lane) => (
            <g key={`${left}-${lane}`}>
              {Array.from({ length: columns }, (_, column) => column).map((column) => (
                <rect
                  key={column}
                  x={k(startIn(left) + column * (orientation.alongMm + gapMm))}
                  y={k(lane)}
                  width={k(orientation.alongMm)}
                  height={k(orientation.acrossMm)}
                  fill="var(--sorrel-tint)"
                  stroke="var(--sorrel)"
                />
              ))}
              <line
                x1={k(left)}
                x2={k(left + rack.widthMm)}
                y1={k(lane + orientation.acrossMm / 2)}
                y2={k(lane + orientation.acrossMm / 2)}
                stroke="var(--ink-2)"
                strokeWidth="2.5"
              />
            </g>
          )),
        )}
        <text x={k(oven.lengthMm) - 4} y={plan - 6} textAnchor="end">
          {plainly(oven.widthMm / 1000, "length", units)} deep
        </text>
      </g>
    </svg>
  );
}
