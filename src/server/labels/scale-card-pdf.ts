import { CARD } from "@/core/photo";
import { Sheet } from "../pdf/sheet";

const MM = 72 / 25.4;
/** Two to a sheet, so that one can be cut and one kept clean. */
const PLACES = [52, 152] as const;
const LEFT_MM = 50;

/** The scale card at its true size on A4: four marks at the corners of 80 × 50 mm, with a ruler to hold the print against. */
export async function scaleCardPdf(shop: string): Promise<Buffer> {
  const sheet = new Sheet("Scale card", shop, [210 * MM, 297 * MM]);
  const { doc } = sheet;
  doc
    .font("bold")
    .fontSize(15)
    .fillColor("#000000")
    .text("Scale card", 20 * MM, 14 * MM);
  doc
    .font("regular")
    .fontSize(9.5)
    .text(
      "Print at 100 %, on matt paper or card; not fitted to the page. Hold a steel rule to the line on a card: 80 mm, or it measures wrong. Cut it out, keep it flat and clean, and lay it flat beside what is measured, all four marks in the picture.",
      20 * MM,
      21 * MM,
      { width: 170 * MM },
    );
  for (const top of PLACES) card(doc, LEFT_MM, top, shop);
  return sheet.finish();
}

function card(doc: Sheet["doc"], left: number, top: number, shop: string): void {
  const { widthMm, heightMm, borderMm, ringOuterMm, ringInnerMm, discMm } = CARD;
  doc
    .rect((left - borderMm) * MM, (top - borderMm) * MM, (widthMm + 2 * borderMm) * MM, (heightMm + 2 * borderMm) * MM)
    .lineWidth(0.4)
    .dash(2, { space: 2 })
    .strokeColor("#888888")
    .stroke()
    .undash();
  for (const x of [left, left + widthMm])
    for (const y of [top, top + heightMm]) {
      const middle = (ringOuterMm + ringInnerMm) / 2;
      doc
        .circle(x * MM, y * MM, middle * MM)
        .lineWidth((ringOuterMm - ringInnerMm) * MM)
        .strokeColor("#000000")
        .stroke();
      doc
        .circle(x * MM, y * MM, discMm * MM)
        .fillColor("#000000")
        .fill();
    }
  doc
    .font("bold")
    .fontSize(11)
    .fillColor("#000000")
    .text("80 × 50 mm between the marks", left * MM, (top + 14) * MM, { width: widthMm * MM, align: "center" });
  doc
    .font("regular")
    .fontSize(8.5)
    .text(shop, left * MM, (top + 21) * MM, { width: widthMm * MM, align: "center" });
  const line = top + heightMm - 12;
  doc
    .moveTo(left * MM, line * MM)
    .lineTo((left + widthMm) * MM, line * MM)
    .lineWidth(0.5)
    .strokeColor("#000000");
  for (let mm = 0; mm <= widthMm; mm += 10)
    doc.moveTo((left + mm) * MM, line * MM).lineTo((left + mm) * MM, (line - (mm % 50 === 0 ? 3 : 2)) * MM);
  doc.stroke();
  doc.fontSize(7).text("0", left * MM, (line + 1) * MM);
  doc.text("80 mm", (left + widthMm - 10) * MM, (line + 1) * MM, { width: 10 * MM, align: "right" });
}
