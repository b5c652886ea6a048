import { type ScaleContinuousNumeric, scaleLinear, scaleLog } from "d3";
import { type Axis, colourOf, type Layer, type Spec, type Tick, type Tone } from "./spec";
import { textWidth } from "./text-width";

/** Height of a line of words, px, and how far under its middle its baseline lies. */
const LINE = 14;
const BASELINE = 4;
/** Between words and what stands next to them, px. */
const AIR = 5;
const FOOT = 20;
/** Room in the right lower corner for what saves the picture, px. */
const CORNER = 24;
/** Of its width what may be given to names beside the plot; limits with longer ones are named in the plot. */
const MOST_BESIDE = 0.34;
/** Of its width what is kept free to either side for charts under one another. */
const MOST_SET = 0.3;
export const FLAG = 9;
const LEAST_GUTTER = 10;
/** Rows of names above the plot; what must be named opens another. */
const ROWS = 1;
/** Side of a cell of what is taken, px. */
const CELL = 3;
/** Words further than this from their value are led to it by a line, px. */
const LEAD = 8;

export type Box = { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
export type Text = {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly anchor: "start" | "middle" | "end";
  readonly fill: string;
  readonly strong: boolean;
  readonly box: Box;
};
export type Segment = readonly [x1: number, y1: number, x2: number, y2: number];
type Scale = ScaleContinuousNumeric<number, number>;
export type Layout = {
  readonly width: number;
  readonly height: number;
  readonly plot: Box;
  readonly x: Scale;
  readonly y: Scale;
  readonly texts: readonly Text[];
  readonly leaders: readonly Segment[];
  /** What found no place in the plot, said under it, each with its colour. */
  readonly keys: readonly (Text & { readonly swatch: Segment; readonly dash: string | undefined })[];
};

const boxOf = (text: string, x: number, y: number, anchor: Text["anchor"]): Box => {
  const w = textWidth(text);
  const left = anchor === "start" ? x : anchor === "end" ? x - w : x - w / 2;
  return { left, right: left + w, top: y + BASELINE - LINE, bottom: y + BASELINE };
};
const textAt = (
  text: string,
  x: number,
  y: number,
  anchor: Text["anchor"] = "start",
  tone: Tone = "soft",
  strong = false,
): Text => ({
  text,
  x,
  y,
  anchor,
  fill: colourOf[tone],
  strong,
  box: boxOf(text, x, y, anchor),
});
export const overlap = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/**
 * Places of lines of words that want to stand at some heights, in the order of those heights, none nearer to the next than
 * a line, moved as little as they can be together, and all between two heights while there is room. O(n log n)
 */
export function spread(wanted: readonly number[], top: number, bottom: number, apart = LINE): number[] {
  const order = wanted.map((_, i) => i).sort((a, b) => (wanted[a] as number) - (wanted[b] as number));
  // Pools of neighbours that would touch, each held at the mean of what its members want.
  const pools: { sum: number; n: number }[] = [];
  order.forEach((of, rank) => {
    pools.push({ sum: (wanted[of] as number) - rank * apart, n: 1 });
    for (;;) {
      const [before, last] = [pools.at(-2), pools.at(-1)];
      if (!before || !last || before.sum / before.n <= last.sum / last.n) return;
      pools.splice(-2, 2, { sum: before.sum + last.sum, n: before.n + last.n });
    }
  });
  const places = pools.flatMap((p) => Array<number>(p.n).fill(p.sum / p.n));
  const most = bottom - (wanted.length - 1) * apart;
  const out: number[] = new Array(wanted.length);
  order.forEach((of, rank) => {
    out[of] = Math.max(top, Math.min(Math.max(top, most), places[rank] as number)) + rank * apart;
  });
  return out;
}

/** What of a line lies in a box; null where none does. Liang and Barsky 1984. */
export function clipped([x1, y1, x2, y2]: Segment, box: Box): Segment | null {
  const [dx, dy] = [x2 - x1, y2 - y1];
  if (![x1, y1, dx, dy].every(Number.isFinite)) return null;
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [-dx, x1 - box.left],
    [dx, box.right - x1],
    [-dy, y1 - box.top],
    [dy, box.bottom - y1],
  ] as const) {
    if (p === 0 && q < 0) return null;
    if (p < 0) from = Math.max(from, q / p);
    if (p > 0) to = Math.min(to, q / p);
  }
  return from > to ? null : [x1 + from * dx, y1 + from * dy, x1 + to * dx, y1 + to * dy];
}

/** What of a picture is taken already, in cells. */
class Taken {
  private readonly cells: Uint8Array;
  constructor(
    private readonly plot: Box,
    private readonly columns = Math.ceil((plot.right - plot.left) / CELL) + 1,
    rows = Math.ceil((plot.bottom - plot.top) / CELL) + 1,
  ) {
    this.cells = new Uint8Array(Math.max(0, columns * rows));
  }
  private each(box: Box, act: (cell: number) => boolean): boolean {
    const { left, top, right, bottom } = this.plot;
    const at = (v: number, from: number) => Math.floor((v - from) / CELL);
    for (let j = at(Math.max(box.top, top), top); j <= at(Math.min(box.bottom, bottom), top); j++)
      for (let i = at(Math.max(box.left, left), left); i <= at(Math.min(box.right, right), left); i++)
        if (act(j * this.columns + i)) return true;
    return false;
  }
  take(box: Box): void {
    this.each(box, (cell) => {
      this.cells[cell] = 1;
      return false;
    });
  }
  line(segment: Segment): void {
    const inside = clipped(segment, this.plot);
    if (!inside) return;
    const [x1, y1, x2, y2] = inside;
    const steps = Math.ceil(Math.max(Math.abs(x2 - x1), Math.abs(y2 - y1)) / (CELL / 2)) || 1;
    for (let k = 0; k <= steps; k++) {
      const [x, y] = [x1 + ((x2 - x1) * k) / steps, y1 + ((y2 - y1) * k) / steps];
      this.take({ left: x - 1, right: x + 1, top: y - 1, bottom: y + 1 });
    }
  }
  free(box: Box): boolean {
    const p = this.plot;
    const inside = box.left >= p.left && box.right <= p.right && box.top >= p.top && box.bottom <= p.bottom;
    return inside && !this.each(box, (cell) => this.cells[cell] === 1);
  }
}

const within = (v: number, [a, b]: readonly [number, number]) => v >= Math.min(a, b) && v <= Math.max(a, b);

/** Every so many ticks, so that none touches the next. */
function thinned(ticks: readonly Tick[], x: Scale): Tick[] {
  const touches = (a: Tick, b: Tick) =>
    Math.abs(x(b.at) - x(a.at)) < (textWidth(a.label) + textWidth(b.label)) / 2 + 2 * AIR;
  for (let every = 1; every < ticks.length; every++) {
    const kept = ticks.filter((_, i) => i % every === 0);
    if (kept.every((t, i) => i === 0 || !touches(kept[i - 1] as Tick, t))) return kept;
  }
  return ticks.slice(0, 1);
}

const scaleOf = (axis: Axis, range: [number, number]): Scale =>
  (axis.log ? scaleLog() : scaleLinear()).domain([...axis.domain]).range(range);

/** Points of a layer that words must not lie on, as segments in px. */
function segmentsOf(layer: Layer, x: Scale, y: Scale, plot: Box): Segment[] {
  if (layer.kind === "level") {
    const [from, to] = layer.x ?? [null, null];
    return [[from === null ? plot.left : x(from), y(layer.y), to === null ? plot.right : x(to), y(layer.y)]];
  }
  if (layer.kind === "moment") {
    const [from, to] = layer.y ?? [null, null];
    return [[x(layer.x), from === null ? plot.top : y(from), x(layer.x), to === null ? plot.bottom : y(to)]];
  }
  const lines =
    layer.kind === "curve"
      ? [layer.points]
      : layer.kind === "area"
        ? [layer.points.map((p) => [p[0], p[1]] as const), layer.points.map((p) => [p[0], p[2]] as const)]
        : [];
  return lines.flatMap((points) =>
    points.flatMap((p, i): Segment[] => {
      const before = points[i - 1];
      return p && before ? [[x(before[0]), y(before[1]), x(p[0]), y(p[1])]] : [];
    }),
  );
}

type Wish = {
  readonly text: string;
  readonly tone: Tone;
  readonly strong: boolean;
  readonly dash: string | undefined;
  /** Where it would stand, best first, px. */
  readonly near: readonly (readonly [number, number])[];
};
/** Around a place, nearest first. */
function around([x, y]: readonly [number, number], w: number): [number, number, Text["anchor"]][] {
  const out: [number, number, Text["anchor"]][] = [];
  for (const r of [8, 18, 30, 46])
    out.push(
      [x + r, y + BASELINE, "start"],
      [x + r / 2, y - r + BASELINE, "start"],
      [x + r / 2, y + r + 2 * BASELINE, "start"],
      [x - r, y + BASELINE, "end"],
      [x - r / 2, y - r + BASELINE, "end"],
      [x - r / 2, y + r + 2 * BASELINE, "end"],
      [x - w / 2, y - r, "start"],
      [x - w / 2, y + r + 2 * BASELINE, "start"],
    );
  return out;
}

/**
 * Where everything of a chart stands, `width` by `height` px and more under it where words found no place. No words lie
 * under a line, a mark or other words; limits and lines that reach the end are named beside the plot, moments above it.
 * O(points + words · tried places)
 */
export function layoutOf({ x: xAxis, y: yAxis, layers, room }: Spec, width: number, height: number): Layout {
  const [tx, ty] = [xAxis.domain, yAxis.domain];
  // A name too long for its side is cut; the reading says it whole.
  const most = Math.floor((width * MOST_BESIDE) / textWidth("0"));
  const yTicks = yAxis.ticks
    .filter((t) => within(t.at, ty))
    .map((t) => ({ ...t, label: t.label.length > most ? `${t.label.slice(0, most - 1)}…` : t.label }));
  const left = Math.max(
    4,
    Math.min(room?.left ?? 0, width * MOST_SET),
    ...yTicks.map((t) => Math.ceil(textWidth(t.label)) + AIR + 2),
  );
  const end = (layer: Layer): readonly [number, number] | null =>
    layer.kind === "curve"
      ? (layer.points.findLast((p): p is readonly [number, number] => p !== null && within(p[0], tx)) ?? null)
      : null;

  const limited = (layer: Layer): layer is Extract<Layer, { kind: "level" }> & { readonly label: string } =>
    layer.kind === "level" && !!layer.label && within(layer.y, ty) && (layer.x?.[1] ?? null) === null;
  // Beside the plot: limits, and curves that reach its end.
  const reach = tx[1] - (tx[1] - tx[0]) * 0.04;
  const beside = layers.flatMap((layer) => {
    if (limited(layer) && textWidth(layer.label) <= width * MOST_BESIDE)
      return [{ at: layer.y, text: layer.label, tone: layer.tone, strong: false }];
    if (layer.kind === "beside" && within(layer.y, ty))
      return [
        {
          at: layer.y,
          text: textWidth(layer.text) > width * MOST_BESIDE ? (layer.short ?? layer.text) : layer.text,
          tone: layer.tone,
          strong: false,
        },
      ];
    const at = layer.kind === "curve" && layer.label ? end(layer) : null;
    return layer.kind === "curve" && layer.label && at && at[0] >= reach && within(at[1], ty)
      ? [{ at: at[1], text: layer.label, tone: layer.tone, strong: layer.strong ?? false }]
      : [];
  });
  const gutter = Math.max(
    LEAST_GUTTER,
    Math.min(room?.right ?? 0, width * MOST_SET),
    ...beside.map((b) => Math.ceil(textWidth(b.text)) + AIR + 4),
  );
  const right = Math.max(left + 40, width - gutter);
  const x = scaleOf(xAxis, [left, right]);

  // Above the plot: moments, the newest first, each in the first row with room.
  const moments = layers.flatMap((l) => (l.kind === "moment" && l.label && within(l.x, tx) ? [l] : []));
  const rows: Box[][] = [[]];
  const named: { row: number; text: Text; x: number }[] = [];
  const titled = yAxis.title ? textAt(yAxis.title, 0, 0, "start", "faint") : null;
  if (titled) rows[0]?.push({ ...titled.box, right: titled.box.right + AIR });
  for (const m of [...moments].sort((a, b) => Number(b.must ?? false) - Number(a.must ?? false) || b.x - a.x)) {
    const at = x(m.x);
    const w = textWidth(m.label as string);
    const shift = m.flag ? FLAG + 2 : 3;
    const places = [
      [at + shift, "start"],
      [at - shift, "end"],
      [Math.max(w / 2 + 1, Math.min(width - w / 2 - 1, at)), "middle"],
    ] as const;
    const tried = Array.from({ length: m.must ? rows.length + 1 : Math.max(ROWS, rows.length) }, (_, row) => row);
    const found = tried
      .flatMap((row) => places.map(([px, anchor]) => ({ row, text: textAt(m.label as string, px, 0, anchor, m.tone) })))
      .find(
        ({ row, text }) =>
          text.box.left >= 0 && text.box.right <= width && !(rows[row] ?? []).some((b) => overlap(b, text.box)),
      );
    if (!found) continue;
    while (rows.length <= found.row) rows.push([]);
    rows[found.row]?.push({ ...found.text.box, left: found.text.box.left - AIR, right: found.text.box.right + AIR });
    named.push({ ...found, x: at });
  }
  const strip = rows.some((r) => r.length > 0) ? rows.length * LINE : 0;
  const flagged = layers.some((l) => l.kind === "moment" && l.flag);
  const top = Math.max(room?.top ?? 0, strip + (flagged ? FLAG : 0) + 5);
  const bottom = height - (xAxis.ticks.length > 0 || xAxis.title ? FOOT : 4);
  const plot: Box = { left, right, top, bottom };
  const y = scaleOf(yAxis, [bottom, top]);
  const rowY = (row: number) => strip - row * LINE - BASELINE;

  const texts: Text[] = [];
  const leaders: Segment[] = [];
  const put = (text: Text) => texts.push(text);
  const lifted = (t: Text, by: number): Text => ({
    ...t,
    y: t.y + by,
    box: { ...t.box, top: t.box.top + by, bottom: t.box.bottom + by },
  });
  if (titled) put(lifted(titled, rowY(0)));
  for (const n of named) put(lifted(n.text, rowY(n.row)));

  const places = spread(
    beside.map((b) => y(b.at)),
    top + 2,
    bottom - 4,
  );
  beside.forEach((b, i) => {
    const at = places[i] as number;
    put(textAt(b.text, right + AIR + 2, at + BASELINE, "start", b.tone, b.strong));
    if (Math.abs(at - y(b.at)) > LEAD) leaders.push([right, y(b.at), right + AIR, at]);
  });

  // Under and left of the plot: ticks, those left out that would touch.
  const title = xAxis.title ? textAt(xAxis.title, width - CORNER, height - 5, "end", "faint") : null;
  if (title) put(title);
  for (const t of thinned(
    xAxis.ticks.filter((t) => within(t.at, tx)),
    x,
  )) {
    const w = textWidth(t.label);
    const at = textAt(t.label, Math.max(w / 2 + 1, Math.min(width - CORNER - w / 2, x(t.at))), height - 5, "middle");
    if (!title || !overlap(at.box, { ...title.box, left: title.box.left - AIR })) put(at);
  }
  let above = Number.POSITIVE_INFINITY;
  for (const t of [...yTicks].sort((a, b) => y(b.at) - y(a.at))) {
    const at = textAt(t.label, left - AIR, y(t.at) + BASELINE, "end");
    if (at.box.bottom > above + 2 || at.box.bottom > height - FOOT + LINE) continue;
    above = at.box.top;
    put(at);
  }

  // In the plot: what is left, where nothing else is.
  const taken = new Taken(plot);
  for (const layer of layers) {
    for (const s of segmentsOf(layer, x, y, plot)) taken.line(s);
    if (layer.kind === "marks")
      for (const m of layer.marks) {
        const r = (m.r ?? 3) + 1;
        const [mx, my] = [x(m.x), y(m.y) + (m.lift ?? 0)];
        taken.take({ left: mx - r, right: mx + r, top: my - r, bottom: my + r });
      }
    if (layer.kind === "bars")
      for (const b of layer.bars) taken.take({ left: x(b.from), right: x(b.to), top: y(b.y), bottom });
  }
  const wishes = layers.flatMap((layer): Wish[] => {
    if (layer.kind === "note")
      return [
        {
          text: layer.text,
          tone: layer.tone,
          strong: layer.strong ?? false,
          dash: undefined,
          near: [[x(layer.x), y(layer.y)]],
        },
      ];
    if (limited(layer) && textWidth(layer.label) > width * MOST_BESIDE)
      return [
        {
          text: layer.label,
          tone: layer.tone,
          strong: false,
          dash: layer.dash,
          near: [0.02, 0.3, 0.6].map((f) => [left + f * (right - left), y(layer.y)]),
        },
      ];
    if (layer.kind === "gap" && layer.label)
      return [
        {
          text: layer.label,
          tone: "soft",
          strong: false,
          dash: undefined,
          near: [0.9, 0.7, 0.5, 0.3].map((f) => [
            (x(Math.max(tx[0], layer.from)) + x(Math.min(tx[1], layer.to))) / 2,
            top + f * (bottom - top),
          ]),
        },
      ];
    if (layer.kind === "band" && layer.label) {
      const from = x(Math.max(tx[0], layer.x?.[0] ?? tx[0]));
      const heights = [0.92, 0.75, 0.5, 0.25, 0.08];
      return [
        {
          text: layer.label,
          tone: "in",
          strong: false,
          dash: undefined,
          near: heights.map((f) => [from, top + f * (bottom - top)]),
        },
      ];
    }
    if (layer.kind !== "curve" || !layer.label) return [];
    const at = end(layer);
    if (!at || (at[0] >= reach && within(at[1], ty))) return [];
    const seen = layer.points.filter(
      (p): p is readonly [number, number] => p !== null && within(p[0], tx) && within(p[1], ty),
    );
    const along = [1, 0.85, 0.7, 0.5, 0.3, 0.15].flatMap((f) => {
      const p = seen[Math.round(f * (seen.length - 1))];
      return p ? [[x(p[0]), y(p[1])] as const] : [];
    });
    return [{ text: layer.label, tone: layer.tone, strong: layer.strong ?? false, dash: layer.dash, near: along }];
  });
  const unplaced: Wish[] = [];
  for (const wish of wishes) {
    const w = textWidth(wish.text);
    const found = wish.near
      .flatMap((at) => around(at, w))
      .map(([px, py, anchor]) => textAt(wish.text, px, py, anchor, wish.tone, wish.strong))
      .find((t) => taken.free(t.box));
    if (!found) {
      unplaced.push(wish);
      continue;
    }
    taken.take(found.box);
    put(found);
  }
  const keys: (Text & { swatch: Segment; dash: string | undefined })[] = [];
  let [keyX, keyY] = [0, height + LINE - BASELINE];
  for (const wish of unplaced) {
    const w = 24 + textWidth(wish.text);
    if (keyX > 0 && keyX + w > width) [keyX, keyY] = [0, keyY + LINE + 2];
    const text = textAt(wish.text, keyX + 24, keyY, "start", wish.tone, wish.strong);
    keys.push({ ...text, swatch: [keyX, keyY - BASELINE, keyX + 18, keyY - BASELINE], dash: wish.dash });
    keyX += w + 14;
  }
  const whole = keys.length > 0 ? keyY + BASELINE + 2 : height;
  return { width, height: whole, plot, x, y, texts, leaders, keys };
}
