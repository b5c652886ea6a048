import { Plot } from "./plot/plot";
import { domainOf, type Layer, type Tick } from "./plot/spec";
import { textWidth } from "./plot/text-width";

export type ControlPanel = {
  readonly title: string;
  readonly values: readonly number[];
  readonly limits: readonly [lower: number, centre: number, upper: number];
};

/** Means of subgroups over their spreads, each with its centre and limits; what lies beyond is marked by shape. */
export function ControlPanels({
  panels,
  format,
  names,
  ends,
  width = 860,
}: {
  panels: readonly ControlPanel[];
  format: (value: number) => string;
  /** What each subgroup is called when it is read. */
  names: readonly string[];
  /** What is said at the first and the last of them. */
  ends: readonly [string, string];
  width?: number;
}) {
  return panels.map(({ title, values, limits }) => {
    const [lower, centre, upper] = limits;
    const last = Math.max(1, values.length - 1);
    const ticks: Tick[] = ends.map((label, i) => ({ at: i * last, label }));
    const level = (y: number, tone: "out" | "soft"): Layer => ({
      kind: "level",
      y,
      tone,
      label: format(y),
      ...(tone === "soft" ? { dash: "4 4" } : {}),
    });
    return (
      <Plot
        key={title}
        label={title}
        width={width}
        height={142}
        spec={{
          room: { right: 6 + Math.max(...panels.flatMap((p) => p.limits.map((v) => textWidth(format(v)) + 4))) },
          x: { domain: [0, last], ticks },
          y: { domain: domainOf([...values, ...limits]), ticks: [], title },
          layers: [
            level(upper, "out"),
            level(centre, "soft"),
            level(lower, "out"),
            { kind: "curve", points: values.map((v, i) => [i, v]), tone: "ink" },
            {
              kind: "marks",
              marks: values.map((y, x) => ({
                x,
                y,
                ...(y > upper || y < lower ? { tone: "out", shape: "square", r: 4 } : { tone: "ink", r: 2.6 }),
              })),
            },
          ],
        }}
        readings={values.map((y, x) => ({ x, y, says: `${names[x]}: ${format(y)}` }))}
      />
    );
  });
}
