import { scaleLinear } from "d3";
import { INK, type Sheet, SOFT } from "./sheet";

const AXIS = 30;
const GRID = "#d8cfc0";
/** Lines told apart without colour. */
const dashes: readonly (readonly [number, number] | null)[] = [null, [5, 3], [2, 2], [8, 2], [1, 3]];
/** A line of more points is thinned to so many: no printer shows more. */
const MOST_POINTS = 500;

export type PdfLine = {
  readonly name: string;
  readonly points: readonly (readonly [x: number, y: number])[];
};
type Limit = { readonly at: number; readonly label: string };

/** Lines over an x, each with its own dash and its name at its end; limits as thin lines across. Heights in points. Read as one figure by `alt`. */
export function lineChart(
  sheet: Sheet,
  chart: {
    readonly lines: readonly PdfLine[];
    readonly limits: readonly Limit[];
    readonly xName: string;
    readonly yName: string;
    readonly alt: string;
    readonly height?: number;
  },
): void {
  const height = chart.height ?? 150;
  sheet.room(height + 40);
  const { doc, left, width } = sheet;
  const top = doc.y + 12;
  const all = chart.lines.flatMap((l) => l.points);
  const ys = [...all.map(([, y]) => y), ...chart.limits.map((l) => l.at)];
  const x = scaleLinear([0, Math.max(1, ...all.map(([px]) => px))], [left + AXIS, left + width - 90]);
  const y = scaleLinear([Math.min(0, ...ys), Math.max(1, ...ys)], [top + height, top]).nice();
  sheet.as(
    "Figure",
    () => {
      doc.font("regular").fontSize(7.5).fillColor(SOFT);
      doc.text(chart.yName, left, top - 12, { lineBreak: false });
      for (const tick of y.ticks(5)) {
        doc
          .moveTo(left + AXIS, y(tick))
          .lineTo(left + width - 90, y(tick))
          .lineWidth(0.4)
          .strokeColor(GRID)
          .stroke();
        doc.text(String(tick), left, y(tick) - 4, { width: AXIS - 5, align: "right", lineBreak: false });
      }
      for (const tick of x.ticks(8))
        doc.text(String(tick), x(tick) - 15, top + height + 4, { width: 30, align: "center", lineBreak: false });
      doc.text(chart.xName, left + width - 74, top + height + 4, { width: 74, lineBreak: false });
      for (const { at, label } of chart.limits) {
        doc
          .moveTo(left + AXIS, y(at))
          .lineTo(left + width - 90, y(at))
          .lineWidth(0.8)
          .strokeColor(INK)
          .stroke();
        doc.fillColor(INK).text(label, left + AXIS + 3, y(at) - 10, { lineBreak: false });
      }
      chart.lines.forEach((line, i) => {
        const step = Math.max(1, Math.ceil(line.points.length / MOST_POINTS));
        const shown = line.points.filter((_, k) => k % step === 0 || k === line.points.length - 1);
        const dash = dashes[i % dashes.length];
        doc.save().lineWidth(1.1).strokeColor(INK);
        if (dash) doc.dash(dash[0], { space: dash[1] });
        shown.forEach(([px, py], k) => {
          if (k === 0) doc.moveTo(x(px), y(py));
          else doc.lineTo(x(px), y(py));
        });
        doc.stroke().restore();
      });
      // Names at the ends, pushed apart as little as may be.
      let above = Number.NEGATIVE_INFINITY;
      const ends = chart.lines.flatMap((line) => {
        const last = line.points.at(-1);
        return last ? [{ name: line.name, y: Math.max(top, y(last[1]) - 4) }] : [];
      });
      for (const end of ends.sort((a, b) => a.y - b.y)) {
        above = Math.max(end.y, above + 9);
        doc.fillColor(INK).text(end.name, left + width - 86, above, { width: 86, lineBreak: false, ellipsis: true });
      }
    },
    chart.alt,
  );
  doc.x = left;
  doc.y = top + height + 20;
}

/** Bars of counts between edges, with limits as upright lines. */
export function barChart(
  sheet: Sheet,
  chart: {
    readonly bars: readonly { readonly from: number; readonly to: number; readonly count: number }[];
    readonly limits: readonly Limit[];
    readonly xName: string;
    readonly alt: string;
  },
): void {
  const height = 90;
  sheet.room(height + 44);
  const { doc, left, width } = sheet;
  const top = doc.y + 14;
  const edges = [...chart.bars.flatMap((b) => [b.from, b.to]), ...chart.limits.map((l) => l.at)];
  const x = scaleLinear([Math.min(...edges), Math.max(...edges)], [left + AXIS, left + width - 90]).nice();
  const y = scaleLinear([0, Math.max(1, ...chart.bars.map((b) => b.count))], [top + height, top]);
  sheet.as(
    "Figure",
    () => {
      for (const b of chart.bars)
        doc
          .rect(x(b.from) + 0.5, y(b.count), Math.max(1, x(b.to) - x(b.from) - 1), top + height - y(b.count))
          .fillColor(SOFT)
          .fill();
      doc.font("regular").fontSize(7.5).fillColor(SOFT);
      for (const tick of x.ticks(8))
        doc.text(String(tick), x(tick) - 15, top + height + 4, { width: 30, align: "center", lineBreak: false });
      doc.text(chart.xName, left + width - 74, top + height + 4, { lineBreak: false });
      for (const { at, label } of chart.limits) {
        doc
          .moveTo(x(at), top - 2)
          .lineTo(x(at), top + height)
          .lineWidth(1)
          .strokeColor(INK)
          .stroke();
        doc.fillColor(INK).text(label, x(at) - 30, top - 12, { width: 60, align: "center", lineBreak: false });
      }
    },
    chart.alt,
  );
  doc.x = left;
  doc.y = top + height + 20;
}

export type PdfMark = {
  readonly name: string;
  readonly result: "in" | "watch" | "out" | "unknown";
  readonly at: readonly [number, number];
};

/** A mark told by its shape: disc in, triangle watch, square out, dashed ring unknown. */
function shape(doc: Sheet["doc"], result: PdfMark["result"], x: number, y: number): void {
  if (result === "in") doc.circle(x, y, 4.4).fillColor(INK).fill();
  else if (result === "watch")
    doc
      .polygon([x, y - 5.4], [x + 5.4, y + 4.4], [x - 5.4, y + 4.4])
      .fillColor(INK)
      .fill();
  else if (result === "out")
    doc
      .rect(x - 4.4, y - 4.4, 8.8, 8.8)
      .fillColor(INK)
      .fill();
  else doc.circle(x, y, 4.2).lineWidth(1.2).dash(1.8, { space: 1.6 }).strokeColor(INK).stroke().undash();
}

/** A plan as it was drawn: lines, words and marks, places of its width and height, 0–1. Read as one figure by `alt`. */
export function planFigure(
  sheet: Sheet,
  plan: {
    readonly lines: readonly (readonly (readonly [number, number])[])[];
    readonly words: readonly { readonly at: readonly [number, number]; readonly text: string }[];
    readonly marks: readonly PdfMark[];
    readonly alt: string;
    /** Height over width. */
    readonly high: number;
  },
): void {
  const { doc, left, width } = sheet;
  const height = width * plan.high;
  sheet.room(height + 24);
  const top = doc.y;
  const at = ([x, y]: readonly [number, number]) => [left + x * width, top + y * height] as const;
  sheet.as(
    "Figure",
    () => {
      doc.rect(left, top, width, height).lineWidth(0.6).strokeColor(GRID).stroke();
      for (const line of plan.lines) {
        for (const [i, p] of line.entries()) {
          const [x, y] = at(p);
          if (i === 0) doc.moveTo(x, y);
          else doc.lineTo(x, y);
        }
        doc.lineWidth(1.4).strokeColor(INK).stroke();
      }
      doc.font("regular").fontSize(8).fillColor(SOFT);
      for (const w of plan.words) {
        const [x, y] = at(w.at);
        doc.text(w.text, x - 60, y - 5, { width: 120, align: "center", lineBreak: false });
      }
      for (const m of plan.marks) {
        const [x, y] = at(m.at);
        shape(doc, m.result, x, y);
        doc.font("regular").fontSize(7.5).fillColor(INK);
        doc.text(m.name, Math.min(left + width - 80, Math.max(left, x - 40)), y + 7, {
          width: 80,
          height: 10,
          align: "center",
          ellipsis: true,
        });
      }
    },
    plan.alt,
  );
  doc.y = top + height + 8;
  doc.x = left;
}
