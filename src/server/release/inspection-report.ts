import type { VerdictResult } from "@/core/verdict";
import { barChart, lineChart } from "../pdf/charts";
import { photoGrid } from "../pdf/photos";
import { INK, Sheet, SOFT } from "../pdf/sheet";

type Point = readonly [number, number];
export type ReportSpot = {
  readonly id: string;
  readonly at: Point;
  /** As it stands on paper; empty where it was not read. */
  readonly text: string;
  readonly result: "in" | "watch" | "out" | "open";
  /** How far it lies from thin (−1) to thick (1) in what is asked; null where it was not read. */
  readonly lean: number | null;
};
export type ReportFace = {
  readonly name: string;
  readonly outline: readonly Point[];
  readonly sizeMm: Point | null;
  readonly recessFromY: number | null;
  readonly bare: readonly { readonly from: Point; readonly to: Point }[];
  readonly spots: readonly ReportSpot[];
  readonly faults: readonly { readonly at: Point; readonly number: number }[];
};
/** What an inspection report says: words as they are printed. */
export type ReportContent = {
  readonly site: string;
  readonly facts: readonly (readonly [string, string])[];
  readonly number: string;
  readonly sentence: string;
  readonly items: readonly {
    readonly name: string;
    readonly word: string;
    readonly text: string;
    readonly grade: string;
    readonly result: VerdictResult;
  }[];
  readonly faces: readonly ReportFace[];
  readonly filmUnit: string;
  readonly histogram: {
    readonly bars: readonly { readonly from: number; readonly to: number; readonly count: number }[];
    readonly limits: readonly { readonly at: number; readonly label: string }[];
    readonly alt: string;
  } | null;
  readonly traces: readonly {
    readonly title: string;
    readonly lines: readonly { readonly name: string; readonly points: readonly Point[] }[];
    readonly limits: readonly { readonly at: number; readonly label: string }[];
    readonly alt: string;
  }[];
  readonly tempUnit: string;
  readonly faults: readonly string[];
  readonly tests: readonly { readonly when: string; readonly text: string; readonly by: string }[];
  readonly photos: readonly { readonly bytes: Buffer; readonly caption: string }[];
  /** Photos on record that are not printed. */
  readonly morePhotos: number;
  readonly letter: boolean;
  readonly at: string;
};

const GRADE = 74;
const mark: Record<VerdictResult, string> = { in: "in", watch: "watch", out: "OUT", unknown: "not known" };

/**
 * The inspection report as a tagged PDF: what was asked and found, the part's faces with film and faults where they are, the
 * film's spread, the oven's trace, every test, photos. Marks are told apart by shape, so that it reads in black and white. It
 * is no certificate: nobody signs it, and it says when it was made.
 */
export async function inspectionReportPdf(c: ReportContent): Promise<Buffer> {
  const sheet = new Sheet(`Inspection report, rack ${c.number}`, c.site, c.letter ? "LETTER" : "A4", true);
  const { width } = sheet;
  sheet.heading(c.site, `Inspection report, rack ${c.number}`);
  for (const [name, value] of c.facts)
    sheet.row([
      { text: name, from: 0, width: 90, soft: true, names: true },
      { text: value, from: 96, width: width - 96 },
    ]);
  sheet.space(0.4).line(c.sentence, { bold: true }).space(0.6);
  sheet.section("What was asked and found");
  for (const item of c.items)
    sheet
      .row([
        { text: item.name, from: 0, width: 90, bold: true, names: true },
        { text: item.word, from: 96, width: 84, bold: item.result === "out" },
        { text: item.text, from: 184, width: width - 314 },
        { text: mark[item.result], from: width - 126, width: 48, bold: item.result === "out" },
        { text: item.grade, from: width - GRADE, width: GRADE, soft: true, right: true },
      ])
      .thin();
  if (c.faces.length > 0) {
    sheet.space(0.4).section(`Film on the part, ${c.filmUnit}, and faults`);
    drawFaces(sheet, c);
    sheet.line(
      "Ring: in; triangle: thinner or thicker than asked of the mean, allowed at a place; square: out; dashed: not read. Darker hatching behind a place: the further from the middle of what is asked. Crossed numbers: faults, named below.",
      { soft: true, size: 7.5 },
    );
  }
  if (c.faults.length > 0) {
    sheet.space(0.4).section("Faults");
    for (const fault of c.faults) sheet.line(fault);
  }
  if (c.histogram) {
    sheet.space(0.4).section("Spread of the film");
    barChart(sheet, { ...c.histogram, xName: c.filmUnit });
  }
  for (const trace of c.traces) {
    sheet.space(0.2).room(230).section(trace.title);
    lineChart(sheet, { ...trace, xName: "min", yName: c.tempUnit });
  }
  sheet.space(0.2).section("Tests and looks");
  if (c.tests.length === 0) sheet.line("None is on record.");
  for (const t of c.tests)
    sheet.row([
      { text: t.when, from: 0, width: 110, names: true },
      { text: t.text, from: 116, width: width - 226 },
      { text: t.by, from: width - 106, width: 106, soft: true, right: true },
    ]);
  photoGrid(sheet, c.photos, c.morePhotos);
  sheet
    .space(0.8)
    .line(
      `Made from the record as it stood ${c.at}. This is no certificate: what was released stands on the certificate, signed. Measured, by procedure, assumed and not known are four different things; each line says which.`,
      { soft: true, size: 7.5 },
    );
  return sheet.finish();
}

const TALL = 190;
/** Faces side by side, as many as fit a row, each in its own proportions. */
function drawFaces(sheet: Sheet, { faces, filmUnit }: ReportContent): void {
  const { doc, left, width } = sheet;
  let x = left;
  let rowTop = doc.y;
  let begun = false;
  for (const face of faces) {
    const [w, h] = faceSize(face, width - 40);
    if (!begun || x + w > left + width) {
      if (begun) doc.y = rowTop + TALL + 30;
      sheet.room(TALL + 34);
      rowTop = doc.y;
      x = left;
      begun = true;
    }
    const read = face.spots.filter((s) => s.text !== "");
    sheet.as(
      "Figure",
      () => drawFace(sheet, face, x, rowTop + 14, w, h),
      `${face.name}: ${read.map((s) => `${s.id} ${s.text} ${filmUnit} ${s.result}`).join(", ") || "nothing read"}${face.faults.length > 0 ? `; faults ${face.faults.map((f) => f.number).join(", ")}` : ""}`,
    );
    x += w + 46;
  }
  doc.x = left;
  doc.y = rowTop + TALL + 30;
}

function faceSize(face: ReportFace, widest: number): readonly [number, number] {
  if (!face.sizeMm) return [90, TALL];
  const [w, h] = face.sizeMm;
  const scale = Math.min(widest / 2 / w, TALL / h);
  return [Math.max(70, w * scale), Math.max(60, h * scale)];
}

function drawFace({ doc }: Sheet, face: ReportFace, left: number, top: number, w: number, h: number): void {
  const px = (x: number) => left + (x / 100) * w;
  const py = (y: number) => top + (y / 100) * h;
  doc
    .font("regular")
    .fontSize(8)
    .fillColor(INK)
    .text(face.name, left, top - 13, { lineBreak: false });
  doc.lineWidth(1).strokeColor(INK);
  face.outline.forEach(([x, y], i) => {
    if (i === 0) doc.moveTo(px(x), py(y));
    else doc.lineTo(px(x), py(y));
  });
  doc.closePath().stroke();
  for (const { from, to } of face.bare)
    doc
      .rect(
        px(Math.min(from[0], to[0])),
        py(Math.min(from[1], to[1])),
        (Math.abs(to[0] - from[0]) / 100) * w,
        (Math.abs(to[1] - from[1]) / 100) * h,
      )
      .lineWidth(0.5)
      .dash(1, { space: 1.5 })
      .stroke()
      .undash();
  if (face.recessFromY !== null)
    doc
      .moveTo(left, py(face.recessFromY))
      .lineTo(left + w, py(face.recessFromY))
      .lineWidth(0.5)
      .dash(3, { space: 2 })
      .stroke()
      .undash();
  for (const spot of face.spots) if (spot.lean !== null) hatch(doc, px(spot.at[0]), py(spot.at[1]), spot.lean);
  for (const spot of face.spots) drawSpot(doc, spot, px(spot.at[0]), py(spot.at[1]));
  for (const fault of face.faults) {
    const [x, y] = [px(fault.at[0]), py(fault.at[1])];
    doc.lineWidth(1.6).strokeColor(INK);
    doc
      .moveTo(x - 5, y - 5)
      .lineTo(x + 5, y + 5)
      .stroke();
    doc
      .moveTo(x + 5, y - 5)
      .lineTo(x - 5, y + 5)
      .stroke();
    doc
      .font("bold")
      .fontSize(8)
      .fillColor(INK)
      .text(String(fault.number), x + 7, y - 9, { lineBreak: false });
  }
}

/** Thin is hatched one way, thick the other, the further the denser; the middle stays clear. */
function hatch(doc: Sheet["doc"], x: number, y: number, lean: number): void {
  const strength = Math.min(1, Math.abs(lean));
  if (strength < 0.25) return;
  const gap = 7 - 4.5 * strength;
  doc.save().circle(x, y, 17).clip().lineWidth(0.35).strokeColor(SOFT);
  for (let d = -34; d <= 34; d += gap) {
    if (lean < 0) doc.moveTo(x + d - 17, y - 17).lineTo(x + d + 17, y + 17);
    else doc.moveTo(x + d + 17, y - 17).lineTo(x + d - 17, y + 17);
  }
  doc.stroke().restore();
}

function drawSpot(doc: Sheet["doc"], spot: ReportSpot, x: number, y: number): void {
  doc.lineWidth(1).strokeColor(INK).fillColor("#ffffff");
  if (spot.result === "out")
    doc
      .rect(x - 9, y - 8, 18, 16)
      .lineWidth(1.8)
      .fillAndStroke("#ffffff", INK);
  else if (spot.result === "watch")
    doc
      .moveTo(x, y - 12)
      .lineTo(x + 12, y + 8)
      .lineTo(x - 12, y + 8)
      .closePath()
      .fillAndStroke("#ffffff", INK);
  else if (spot.result === "open") doc.circle(x, y, 8).dash(2, { space: 2 }).stroke().undash();
  else doc.circle(x, y, 9).fillAndStroke("#ffffff", INK);
  doc.font("bold").fontSize(7).fillColor(INK);
  if (spot.text !== "")
    doc.text(spot.text, x - 14, y - 3 + (spot.result === "watch" ? 3 : 0), {
      width: 28,
      align: "center",
      lineBreak: false,
    });
  doc
    .font("regular")
    .fontSize(6.5)
    .fillColor(SOFT)
    .text(spot.id, x + (Math.abs(spot.lean ?? 0) >= 0.25 ? 18 : 12), y - 3, { lineBreak: false });
}
