import type { UnitSystem } from "@/core/units";
import { countOf, figure, withUnit } from "../format";
import { Plot } from "./plot/plot";
import { ticksOf } from "./plot/spec";
import { axisOf } from "./ticks";

export type FilmGroupRow = {
  readonly name: string;
  readonly racks: number;
  readonly meanUm: number;
  readonly sdUm: number | null;
  readonly interval: readonly [number, number] | null;
};
const ROW = 26;
const ROOM = { left: 120, right: 216 };
/** Longer names are cut: the reading says them whole. */
const MOST_NAME = 24;

/** Groups under one another on one scale: the mean with its 95 % interval, the spread of the spots behind it, the range asked. */
export function FilmGroups({
  label,
  rows,
  domain,
  limits,
  units,
}: {
  label: string;
  rows: readonly FilmGroupRow[];
  domain: readonly [number, number];
  limits: { readonly minUm: number; readonly maxUm: number } | null;
  units: UnitSystem;
}) {
  const film = (um: number) => withUnit(um, "thickness", units);
  const said = (r: FilmGroupRow) =>
    `${film(r.meanUm)}${r.sdUm === null ? "" : `, s ${figure(r.sdUm, "thickness", units).text}`}, ${countOf(r.racks, "rack")}`;
  const row = (i: number) => -i;
  return (
    <Plot
      label={label}
      width={860}
      height={rows.length * ROW + 30}
      spec={{
        // Groups stand under one another on one scale.
        room: ROOM,
        x: axisOf("thickness", domain, units),
        y: {
          domain: [0.5 - rows.length, 0.5],
          ticks: ticksOf(
            rows.map((_, i) => row(i)),
            (at) => {
              const name = rows[Math.abs(at)]?.name ?? "";
              return name.length > MOST_NAME ? `${name.slice(0, MOST_NAME - 1)}…` : name;
            },
          ),
        },
        layers: [
          ...(limits ? [{ kind: "band" as const, x: [limits.minUm, limits.maxUm] as const }] : []),
          ...rows.flatMap((r, i) => [
            ...(r.sdUm === null
              ? []
              : [
                  {
                    kind: "level" as const,
                    y: row(i),
                    x: [r.meanUm - r.sdUm, r.meanUm + r.sdUm] as const,
                    tone: "rule" as const,
                    width: 2,
                  },
                ]),
            ...(r.interval
              ? [
                  {
                    kind: "curve" as const,
                    points: r.interval.map((um) => [um, row(i)] as const),
                    tone: "sorrel" as const,
                    width: 10,
                    opacity: 0.45,
                  },
                ]
              : []),
            {
              kind: "moment" as const,
              x: r.meanUm,
              y: [row(i) - 0.3, row(i) + 0.3] as const,
              tone: "ink" as const,
              width: 3,
            },
            { kind: "beside" as const, y: row(i), text: said(r), short: film(r.meanUm), tone: "ink" as const },
          ]),
        ],
      }}
      scatter
      readings={rows.map((r, i) => ({ x: r.meanUm, y: row(i), says: `${r.name}: ${said(r)}` }))}
    />
  );
}
