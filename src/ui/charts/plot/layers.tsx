import { area, line } from "d3";
import { memo } from "react";
import { FLAG, type Layout } from "./layout";
import { colourOf, type Layer, type Mark, type Spec } from "./spec";

const edge = (at: number | null | undefined, open: number, scale: (v: number) => number) =>
  at === null || at === undefined ? open : scale(at);
/** Shorter in the page, and no finer than anyone sees. */
const px = (v: number) => Math.round(v * 10) / 10;

function MarkShape({ mark, x, y }: { mark: Mark; x: number; y: number }) {
  const r = mark.r ?? 3;
  const colour = colourOf[mark.tone];
  const says = mark.says && <title>{mark.says}</title>;
  if (mark.shape === "square")
    return (
      <rect x={px(x - r)} y={px(y - r)} width={2 * r} height={2 * r} fill={colour} opacity={mark.opacity}>
        {says}
      </rect>
    );
  const ring = mark.shape === "ring";
  return (
    <circle
      cx={px(x)}
      cy={px(y)}
      r={r}
      fill={ring ? "var(--bench)" : colour}
      stroke={ring ? colour : undefined}
      strokeWidth={ring ? 2 : undefined}
      opacity={mark.opacity}
    >
      {says}
    </circle>
  );
}

function LayerShape({ layer, layout, hatch }: { layer: Layer; layout: Layout; hatch: string }) {
  const { x, y, plot } = layout;
  if (layer.kind === "band") {
    const [left, right] = [edge(layer.x?.[0], plot.left, x), edge(layer.x?.[1], plot.right, x)];
    const [top, bottom] = [edge(layer.y?.[1], plot.top, y), edge(layer.y?.[0], plot.bottom, y)];
    return (
      <rect
        x={px(left)}
        width={px(Math.max(2, right - left))}
        y={px(top)}
        height={px(Math.max(2, bottom - top))}
        fill={layer.fill ?? "var(--band)"}
      />
    );
  }
  if (layer.kind === "level" || layer.kind === "moment") {
    const across = layer.kind === "level";
    const at = across ? y(layer.y) : x(layer.x);
    const [from, to] = across
      ? [edge(layer.x?.[0], plot.left, x), edge(layer.x?.[1], plot.right, x)]
      : [edge(layer.y?.[0], plot.bottom, y), edge(layer.y?.[1], plot.top, y)];
    const drawn = (
      <path
        d={across ? `M${px(from)} ${px(at)}H${px(to)}` : `M${px(at)} ${px(from)}V${px(to)}`}
        fill="none"
        stroke={colourOf[layer.tone]}
        strokeWidth={layer.width ?? 1}
        strokeDasharray={layer.dash}
      />
    );
    return across || !layer.flag ? (
      drawn
    ) : (
      <>
        {drawn}
        <path d={`M${px(at)} ${px(plot.top)}v-${FLAG}h8l-2 3 2 3h-8`} fill="var(--ink-2)">
          <title>{layer.says ?? layer.label}</title>
        </path>
      </>
    );
  }
  if (layer.kind === "curve") {
    const path = line<readonly [number, number] | null>(
      (p) => px(x(p?.[0] ?? 0)),
      (p) => px(y(p?.[1] ?? 0)),
    ).defined((p) => p !== null && Number.isFinite(y(p[1])));
    return (
      <path
        d={path(layer.points as (readonly [number, number] | null)[]) ?? ""}
        fill="none"
        stroke={colourOf[layer.tone]}
        strokeWidth={layer.width ?? 1.4}
        strokeDasharray={layer.dash}
        opacity={layer.opacity}
      />
    );
  }
  if (layer.kind === "area") {
    const path = area<readonly [number, number, number]>(
      (p) => px(x(p[0])),
      (p) => px(y(p[1])),
      (p) => px(y(p[2])),
    );
    return <path d={path([...layer.points]) ?? ""} fill={colourOf[layer.tone]} opacity={layer.opacity} />;
  }
  if (layer.kind === "marks")
    return layer.marks.map((m, i) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: two marks may be alike, and none is moved
      <MarkShape key={i} mark={m} x={x(m.x)} y={y(m.y) + (m.lift ?? 0)} />
    ));
  if (layer.kind === "bars")
    return layer.bars.map((b) => (
      <rect
        key={b.from}
        x={px(x(b.from)) + 1}
        width={px(Math.max(1, x(b.to) - x(b.from) - 2))}
        y={px(y(b.y))}
        height={px(Math.max(1, plot.bottom - y(b.y)))}
        fill={b.fill === "hatch" ? `url(#${hatch})` : b.fill}
        stroke={b.outline && colourOf[b.outline]}
        strokeWidth={b.strong ? 2.5 : 1}
      />
    ));
  if (layer.kind === "gap") {
    const [left, right] = [x(layer.from), x(layer.to)];
    return (
      <rect
        x={px(left)}
        width={px(Math.max(1, right - left))}
        y={plot.top}
        height={plot.bottom - plot.top}
        fill="var(--unknown)"
        opacity=".16"
      />
    );
  }
  return null;
}

/** The layers of a chart, clipped to its plot; drawn anew only where what they show changes. */
export const Layers = memo(function Layers({
  layers,
  layout,
  id,
}: {
  layers: Spec["layers"];
  layout: Layout;
  /** Of this chart in its page. */
  id: string;
}) {
  return layers.map((layer, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: layers have no other name, and none is moved
    <LayerShape key={i} layer={layer} layout={layout} hatch={`${id}-hatch`} />
  ));
});

/** What a chart says: its ticks, its names, its flags, and what found no place in it. */
export const Words = memo(function Words({ layout }: { layout: Layout }) {
  return (
    <>
      {layout.leaders.map((s) => (
        <path key={s.join()} d={`M${s[0]} ${s[1]}L${s[2]} ${s[3]}`} stroke="var(--ink-3)" strokeWidth=".8" />
      ))}
      {layout.keys.map((k) => (
        <path
          key={k.text + k.x}
          d={`M${k.swatch[0]} ${k.swatch[1]}H${k.swatch[2]}`}
          stroke={k.fill}
          strokeWidth="2"
          strokeDasharray={k.dash}
        />
      ))}
      {[...layout.texts, ...layout.keys].map((t) => (
        <text
          key={`${t.text} ${t.x} ${t.y}`}
          x={px(t.x)}
          y={px(t.y)}
          textAnchor={t.anchor === "start" ? undefined : t.anchor}
          style={{ fill: t.fill, fontWeight: t.strong ? 650 : undefined }}
        >
          {t.text}
        </text>
      ))}
    </>
  );
});

/** Axes of a chart: its foot, and hairlines where they are asked for. */
export function Grid({ spec, layout }: { spec: Spec; layout: Layout }) {
  const { plot, x, y } = layout;
  const lines = (scale: typeof x, ticks: Spec["x"]["ticks"], from: number, to: number) =>
    ticks.map((t) => ({ at: px(scale(t.at)), t })).filter(({ at }) => at >= from && at <= to);
  return (
    <>
      {spec.y.lines &&
        lines(y, spec.y.ticks, plot.top, plot.bottom).map(({ at, t }) => (
          <path key={t.at} d={`M${plot.left} ${at}H${plot.right}`} stroke="var(--rule)" />
        ))}
      {spec.x.lines &&
        lines(x, spec.x.ticks, plot.left, plot.right).map(({ at, t }) => (
          <path key={t.at} d={`M${at} ${plot.top}V${plot.bottom}`} stroke="var(--rule)" />
        ))}
      <path d={`M${plot.left} ${plot.bottom}H${plot.right}`} stroke="var(--rule-strong)" />
    </>
  );
}
