import { scaleLinear } from "d3";
import { histogram } from "@/core/statistics";
import type { UnitSystem } from "@/core/units";
import { figure, withUnit } from "../format";

/** Readings in 4 µm bins on the sheet's range, with the lowest single spot allowed. */
export function FilmHistogram({
  valuesUm,
  minUm,
  maxUm,
  lowestUm,
  meanUm,
  units,
}: {
  valuesUm: readonly number[];
  minUm: number;
  maxUm: number | null;
  lowestUm: number;
  meanUm: number | null;
  units: UnitSystem;
}) {
  const bins = histogram(valuesUm, 4);
  if (!bins.ok) return <p className="soft py-8">No reading yet. Type one, or start the gauge.</p>;
  const from = Math.min(lowestUm, bins.value[0]?.from ?? lowestUm) - 4;
  const to = Math.max(maxUm ?? 0, bins.value.at(-1)?.to ?? 0) + 4;
  const x = scaleLinear([from, to], [0, 400]);
  const tallest = Math.max(...bins.value.map((b) => b.count), 1);
  const h = 118;
  return (
    <svg
      viewBox="0 0 410 150"
      width="410"
      className="h-auto max-w-full overflow-visible"
      role="img"
      aria-label={`${valuesUm.length} readings; mean ${meanUm === null ? "none" : withUnit(meanUm, "thickness", units)}`}
    >
      <rect x={x(minUm)} y="0" width={x(maxUm ?? to) - x(minUm)} height={h} fill="var(--band)" />
      {[minUm, maxUm].map(
        (v) => v !== null && <line key={v} x1={x(v)} x2={x(v)} y1="0" y2={h} stroke="var(--in)" strokeWidth="1.6" />,
      )}
      <line x1={x(lowestUm)} x2={x(lowestUm)} y1="0" y2={h} stroke="var(--out)" strokeDasharray="4 3" />
      <text x={x(lowestUm) - 4} y="10" textAnchor="end" style={{ fill: "var(--out)" }}>
        {figure(lowestUm, "thickness", units).text}
      </text>
      <text
        x={x(maxUm ?? to) + 4}
        y="10"
        style={{ fill: "var(--in)" }}
        textAnchor={x(maxUm ?? to) > 330 ? "end" : "start"}
        dx={x(maxUm ?? to) > 330 ? -8 : 0}
      >
        {maxUm === null
          ? `${figure(minUm, "thickness", units).text} and over`
          : `${figure(minUm, "thickness", units).text}–${withUnit(maxUm, "thickness", units)}`}
      </text>
      {bins.value.map(
        (b) =>
          b.count > 0 && (
            <rect
              key={b.from}
              x={x(b.from) + 1}
              width={Math.max(1, x(b.to) - x(b.from) - 2)}
              y={h - (b.count / tallest) * 92}
              height={(b.count / tallest) * 92}
              fill="var(--ink-2)"
            >
              <title>{`${b.count} from ${withUnit(b.from, "thickness", units)}`}</title>
            </rect>
          ),
      )}
      <line x1="0" x2="400" y1={h} y2={h} stroke="var(--ink)" />
      {x.ticks(6).map((t) => (
        <text key={t} x={x(t)} y="134" textAnchor="middle">
          {figure(t, "thickness", units).text.replace(/\.0$/, "")}
        </text>
      ))}
      {meanUm !== null && (
        <path d={`M${x(meanUm)} ${h + 2}l5 8h-10z`} fill="var(--sorrel)">
          <title>mean</title>
        </path>
      )}
    </svg>
  );
}
