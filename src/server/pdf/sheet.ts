import path from "node:path";
import PDFDocument from "pdfkit";

const fontDir = path.join(process.cwd(), "node_modules/@expo-google-fonts/inter");
export const INK = "#221b15";
export const SOFT = "#52473c";
const LEFT = 54;

/** An A4 sheet in ink on white, with the house's own lines; grows over pages by itself. */
export class Sheet {
  readonly doc: InstanceType<typeof PDFDocument>;
  readonly left = LEFT;
  readonly width: number;
  private readonly done: Promise<Buffer>;
  constructor(title: string, author: string, size: "A4" | [width: number, height: number] = "A4") {
    this.doc = new PDFDocument({
      size,
      // A label has its own margins, and is never broken over two.
      margins:
        size === "A4" ? { top: 48, bottom: 48, left: LEFT, right: LEFT } : { top: 0, bottom: 0, left: 0, right: 0 },
      info: { Title: title, Author: author },
    });
    this.width = this.doc.page.width - 2 * LEFT;
    const parts: Buffer[] = [];
    this.done = new Promise((resolve, reject) => {
      this.doc.on("data", (part: Buffer) => parts.push(part));
      this.doc.on("end", () => resolve(Buffer.concat(parts)));
      this.doc.on("error", reject);
    });
    this.doc
      .registerFont("regular", path.join(fontDir, "400Regular/Inter_400Regular.ttf"))
      .registerFont("bold", path.join(fontDir, "600SemiBold/Inter_600SemiBold.ttf"));
  }
  /** Starts a new page where less than this is left, pt. */
  room(points: number): this {
    if (this.doc.y + points > this.doc.page.height - 48) this.doc.addPage();
    return this;
  }
  heading(above: string, title: string): this {
    this.doc.font("regular").fontSize(9.5).fillColor(SOFT).text(above, LEFT, 48);
    this.doc
      .font("bold")
      .fontSize(20)
      .fillColor(INK)
      .text(title, LEFT, 62, { width: this.width - 90 });
    this.doc.moveDown(0.4);
    return this.rule(1.6).space(0.6);
  }
  rule(weight = 0.6, colour = INK): this {
    this.doc
      .moveTo(LEFT, this.doc.y)
      .lineTo(LEFT + this.width, this.doc.y)
      .lineWidth(weight)
      .strokeColor(colour)
      .stroke();
    return this;
  }
  space(lines: number): this {
    this.doc.moveDown(lines);
    return this;
  }
  section(title: string): this {
    this.room(60);
    this.doc.font("bold").fontSize(11).fillColor(INK).text(title, LEFT);
    return this.rule(1).space(0.3);
  }
  /** Cells of one line side by side; the tallest decides where the next begins. */
  row(
    cells: readonly {
      readonly text: string;
      readonly from: number;
      readonly width: number;
      readonly bold?: boolean;
      readonly soft?: boolean;
      readonly right?: boolean;
    }[],
    size = 9.5,
  ): this {
    this.room(28);
    const y = this.doc.y;
    let bottom = y;
    for (const c of cells) {
      this.doc
        .font(c.bold ? "bold" : "regular")
        .fontSize(size)
        .fillColor(c.soft ? SOFT : INK)
        .text(c.text || " ", LEFT + c.from, y, { width: c.width, align: c.right ? "right" : "left" });
      bottom = Math.max(bottom, this.doc.y);
    }
    this.doc.y = bottom + 3;
    return this;
  }
  line(text: string, { bold = false, soft = false, size = 9.5 } = {}): this {
    this.room(18);
    this.doc
      .font(bold ? "bold" : "regular")
      .fontSize(size)
      .fillColor(soft ? SOFT : INK)
      .text(text, LEFT, this.doc.y, { width: this.width });
    return this;
  }
  thin(): this {
    this.rule(0.3, "#b8ab98");
    this.doc.y += 4;
    return this;
  }
  finish(): Promise<Buffer> {
    this.doc.end();
    return this.done;
  }
}
