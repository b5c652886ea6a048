import path from "node:path";
import PDFDocument from "pdfkit";

const fontDir = path.join(process.cwd(), "node_modules/@expo-google-fonts/inter");
export const INK = "#221b15";
export const SOFT = "#52473c";
const LEFT = 54;

type SheetCell = {
  readonly text: string;
  readonly from: number;
  readonly width: number;
  readonly bold?: boolean;
  readonly soft?: boolean;
  readonly right?: boolean;
  /** Digits of one width. */
  readonly figures?: boolean;
  /** Says what the row is of. */
  readonly names?: boolean;
};

/**
 * A sheet in ink on white, with the house's own lines; grows over pages by itself. A tagged one says in what order it is
 * read and what is a heading, a row, a figure: whatever is drawn on it goes through these methods. Lengths in points.
 */
export class Sheet {
  readonly doc: InstanceType<typeof PDFDocument>;
  readonly left = LEFT;
  readonly width: number;
  private readonly done: Promise<Buffer>;
  private readonly root: PDFKit.PDFStructureElement | null;
  private table: PDFKit.PDFStructureElement | null = null;
  constructor(
    title: string,
    author: string,
    size: "A4" | "LETTER" | [width: number, height: number] = "A4",
    tagged = false,
  ) {
    this.doc = new PDFDocument({
      size,
      // A label has its own margins, and is never broken over two.
      margins: Array.isArray(size)
        ? { top: 0, bottom: 0, left: 0, right: 0 }
        : { top: 48, bottom: 48, left: LEFT, right: LEFT },
      info: { Title: title, Author: author },
      ...(tagged ? { pdfVersion: "1.7", tagged: true, lang: "en-GB", displayTitle: true } : {}),
    });
    this.root = tagged ? this.doc.struct("Document") : null;
    if (this.root) this.doc.addStructure(this.root);
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
  /** What is drawn is read as this; `alt` says a figure in words. */
  as(tag: string, draw: () => void, alt?: string): this {
    this.table = null;
    if (this.root) this.root.add(this.doc.struct(tag, alt === undefined ? {} : { alt }, draw));
    else draw();
    return this;
  }
  heading(above: string, title: string, beside?: () => void): this {
    this.as("P", () => this.doc.font("regular").fontSize(9.5).fillColor(SOFT).text(above, LEFT, 48));
    this.as("H1", () =>
      this.doc
        .font("bold")
        .fontSize(20)
        .fillColor(INK)
        .text(title, LEFT, 62, { width: this.width - 90 }),
    );
    beside?.();
    this.doc.moveDown(0.4);
    return this.rule(1.6).space(0.6);
  }
  /** A line that only parts things for the eye. */
  rule(weight = 0.6, colour = INK): this {
    if (this.root) this.doc.markContent("Artifact", { type: "Layout" });
    this.doc
      .moveTo(LEFT, this.doc.y)
      .lineTo(LEFT + this.width, this.doc.y)
      .lineWidth(weight)
      .strokeColor(colour)
      .stroke();
    if (this.root) this.doc.endMarkedContent();
    return this;
  }
  space(lines: number): this {
    this.doc.moveDown(lines);
    return this;
  }
  section(title: string): this {
    this.room(60);
    this.as("H2", () => this.doc.font("bold").fontSize(11).fillColor(INK).text(title, LEFT));
    return this.rule(1).space(0.3);
  }
  /** Cells of one line side by side, whole on one page; the tallest decides where the next begins. */
  row(cells: readonly SheetCell[], size = 9.5): this {
    const set = (c: SheetCell) =>
      this.doc
        .font(c.bold ? "bold" : "regular")
        .fontSize(size)
        .fillColor(c.soft ? SOFT : INK);
    this.room(Math.max(28, ...cells.map((c) => set(c).heightOfString(c.text || " ", { width: c.width }) + 3)));
    const y = this.doc.y;
    let bottom = y;
    const draw = (c: SheetCell) => {
      set(c).text(c.text || " ", LEFT + c.from, y, {
        width: c.width,
        align: c.right ? "right" : "left",
        ...(c.figures ? { features: ["tnum"] as const } : {}),
      });
      bottom = Math.max(bottom, this.doc.y);
    };
    const line = this.root && this.doc.struct("TR");
    if (this.root && line) {
      if (!this.table) {
        this.table = this.doc.struct("Table");
        this.root.add(this.table);
      }
      this.table.add(line);
    }
    for (const c of cells) {
      if (line) line.add(this.doc.struct(c.names ? "TH" : "TD", {}, () => draw(c)));
      else draw(c);
    }
    this.doc.y = bottom + 3;
    return this;
  }
  line(text: string, { bold = false, soft = false, size = 9.5 } = {}): this {
    this.room(18);
    return this.as("P", () =>
      this.doc
        .font(bold ? "bold" : "regular")
        .fontSize(size)
        .fillColor(soft ? SOFT : INK)
        .text(text, LEFT, this.doc.y, { width: this.width }),
    );
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
