import QRCode from "qrcode";
import { INK, Sheet } from "../pdf/sheet";

export type Label = {
  /** Read across the hall. */
  readonly title: string;
  readonly lines: readonly string[];
  /** Boxes to write in by hand. */
  readonly blanks?: readonly string[];
  /** What the code opens. */
  readonly address: string;
};
export type LabelPaper = "a4" | "roll";

const MM = 72 / 25.4;
/** Ten to a sheet of A4; one to a page for a label printer's roll. */
const LABEL = { width: 97 * MM, height: 54 * MM };
const SHEET = { columns: 2, rows: 5, left: 8 * MM, top: 13.5 * MM };
const PAD = 9;
const CODE = 82;
const SMALLEST = 8;

/** Labels in black on white, each with a code that opens what it is of; ten to an A4 sheet, or one to a page. O(labels). */
export async function labelsPdf(labels: readonly Label[], shop: string, paper: LabelPaper): Promise<Buffer> {
  const codes = await Promise.all(
    labels.map((l) =>
      QRCode.toBuffer(l.address, {
        errorCorrectionLevel: "M",
        margin: 1,
        width: 360,
        color: { dark: "#000000", light: "#ffffff" },
      }),
    ),
  );
  const roll = paper === "roll";
  const sheet = new Sheet("Labels", shop, roll ? [LABEL.width, LABEL.height] : "A4");
  const each = SHEET.columns * SHEET.rows;
  for (const [i, label] of labels.entries()) {
    if (i > 0 && (roll || i % each === 0)) sheet.doc.addPage();
    const at = i % each;
    const x = roll ? 0 : SHEET.left + (at % SHEET.columns) * LABEL.width;
    const y = roll ? 0 : SHEET.top + Math.floor(at / SHEET.columns) * LABEL.height;
    draw(sheet.doc, label, codes[i] as Buffer, x, y, shop);
  }
  return sheet.finish();
}

function draw(doc: Sheet["doc"], label: Label, code: Buffer, x: number, y: number, shop: string): void {
  const width = LABEL.width - CODE - 3 * PAD;
  const sizeFor = (text: string, most: number, least: number, room: number): number => {
    for (let size = most; size > least; size -= 1) if (doc.fontSize(size).widthOfString(text) <= room) return size;
    return least;
  };
  doc
    .rect(x + 2, y + 2, LABEL.width - 4, LABEL.height - 4)
    .lineWidth(0.7)
    .strokeColor(INK)
    .stroke();
  doc.image(code, x + LABEL.width - CODE - PAD, y + PAD, { width: CODE });
  doc.font("bold").fillColor("#000000");
  const titleSize = sizeFor(label.title, 30, 12, width);
  doc.fontSize(titleSize).text(label.title, x + PAD, y + PAD, { width, height: titleSize * 1.2, ellipsis: true });
  doc.font("regular");
  let next = y + PAD + titleSize * 1.25 + 2;
  const foot = y + LABEL.height - PAD - 9;
  // Beside the code there is less room than under it.
  const roomAt = (top: number): number => (top > y + PAD + CODE ? LABEL.width - 2 * PAD : width);
  for (const line of label.lines.filter((l) => l !== "")) {
    if (next + 11 > foot) break;
    const room = roomAt(next);
    const size = sizeFor(line, 10, SMALLEST, room);
    // What is too long for one line takes two.
    const two = doc.fontSize(size).widthOfString(line) > room && next + 22 <= foot;
    doc.text(line, x + PAD, next, { width: room, height: two ? 22 : 12, ellipsis: true, lineBreak: two });
    next += two ? 22 : 12.5;
  }
  for (const blank of label.blanks ?? []) {
    if (next + 16 > foot) break;
    doc.fontSize(9).text(blank, x + PAD, next + 4, { lineBreak: false });
    doc
      .moveTo(x + PAD + doc.widthOfString(blank) + 4, next + 15)
      .lineTo(x + PAD + roomAt(next), next + 15)
      .lineWidth(0.5)
      .strokeColor("#000000")
      .stroke();
    next += 17;
  }
  doc.fontSize(7).text(shop, x + PAD, y + LABEL.height - PAD - 6, {
    width: LABEL.width - 2 * PAD,
    height: 9,
    ellipsis: true,
    lineBreak: false,
  });
}
