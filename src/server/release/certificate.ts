import path from "node:path";
import PDFDocument from "pdfkit";
import QRCode from "qrcode";
import type { UnitSystem } from "@/core/units";

export type CertificateContent = {
  readonly number: string;
  readonly site: string;
  readonly customer: string;
  readonly job: string;
  readonly rack: string;
  readonly part: string;
  readonly pieces: string;
  readonly powder: string;
  /** Customer's order and delivery note, lots, gauge with its last shim check, oven and trace: a line each. */
  readonly named: readonly (readonly [name: string, value: string])[];
  readonly coatedOn: string;
  readonly decision: string;
  readonly note: string;
  readonly signedBy: string;
  readonly signedAt: string;
  readonly verdictWord: string;
  readonly items: readonly {
    readonly name: string;
    readonly word: string;
    readonly text: string;
    readonly grade: string;
  }[];
  /** Steps of preparation, wash and coat that are on record, each with its proof and grade. */
  readonly steps: readonly { readonly name: string; readonly proof: string; readonly grade: string }[];
  readonly readings: readonly {
    readonly face: string;
    readonly spots: readonly { readonly spot: string; readonly mean: string; readonly readings: string }[];
  }[];
  readonly notMeasured: readonly string[];
  /** What the customer's concession covers; empty where nothing was conceded. */
  readonly conceded: readonly string[];
  readonly seal: string;
  readonly units: UnitSystem;
  readonly recordId: string;
  /** What its paper is checked by, and where; absent in certificates from before papers were checked. */
  readonly check?: { readonly mark: string; readonly address: string };
};

const fontDir = path.join(process.cwd(), "node_modules/@expo-google-fonts/inter");
const face = {
  regular: path.join(fontDir, "400Regular/Inter_400Regular.ttf"),
  bold: path.join(fontDir, "600SemiBold/Inter_600SemiBold.ttf"),
};
const INK = "#221b15";
const SOFT = "#52473c";
/** Side of the code, points: two centimetres. */
const CODE = 57;

/** The certificate as a PDF, A4, ink on white. What was not measured stands beside what was. */
export async function certificatePdf(c: CertificateContent): Promise<Buffer> {
  const code =
    c.check && (await QRCode.toBuffer(c.check.address, { errorCorrectionLevel: "M", margin: 0, width: 480 }));
  return new Promise((resolve, reject) => {
    const doc = new PDFDocument({
      size: "A4",
      margins: { top: 48, bottom: 48, left: 54, right: 54 },
      bufferPages: true,
      info: { Title: `Certificate ${c.number}`, Author: c.site },
    });
    const parts: Buffer[] = [];
    doc.on("data", (part: Buffer) => parts.push(part));
    doc.on("end", () => resolve(Buffer.concat(parts)));
    doc.on("error", reject);
    doc.registerFont("regular", face.regular).registerFont("bold", face.bold);
    const left = 54;
    const width = doc.page.width - 108;
    const rule = (weight = 0.6) =>
      doc
        .moveTo(left, doc.y)
        .lineTo(left + width, doc.y)
        .lineWidth(weight)
        .strokeColor(INK)
        .stroke();
    doc.font("regular").fontSize(9.5).fillColor(SOFT).text(c.site, left, 48);
    doc.font("bold").fontSize(20).fillColor(INK).text(`Certificate ${c.number}`, left, 62);
    if (code && c.check) {
      const after = doc.y;
      doc.image(code, left + width - CODE, 44, { width: CODE });
      doc
        .font("regular")
        .fontSize(7.5)
        .fillColor(SOFT)
        .text(
          `Check this paper by the code, or at ${new URL("/check", c.check.address).href}`,
          left + width - 236,
          50,
          {
            width: 236 - CODE - 10,
            align: "right",
          },
        )
        .text(`mark ${c.check.mark}`, { width: 236 - CODE - 10, align: "right" });
      doc.x = left;
      doc.y = Math.max(after, 44 + CODE);
    }
    doc.moveDown(0.4);
    rule(1.6);
    doc.moveDown(0.6);
    const facts: [string, string][] = [
      ["Customer", c.customer],
      ["Job", c.job],
      ["Rack", `${c.rack}, ${c.pieces}`],
      ["Part", c.part],
      ["Powder", c.powder],
      ...c.named.map(([name, value]): [string, string] => [name, value]),
      ["Hung", c.coatedOn],
      ["Decision", `${c.decision}: ${c.note}`],
    ];
    for (const [name, value] of facts) {
      const y = doc.y;
      doc.font("regular").fontSize(9.5).fillColor(SOFT).text(name, left, y, { width: 90 });
      doc
        .font(name === "Decision" ? "bold" : "regular")
        .fillColor(INK)
        .text(value, left + 96, y, { width: width - 96 });
      doc.moveDown(0.25);
    }
    doc.moveDown(0.5);
    doc.font("bold").fontSize(11).text("What was found", left);
    rule(1);
    doc.moveDown(0.3);
    for (const item of c.items) {
      const y = doc.y;
      doc.font("bold").fontSize(9.5).fillColor(INK).text(item.name, left, y, { width: 90 });
      doc.font("regular").text(item.word, left + 96, y, { width: 84 });
      doc.text(item.text, left + 184, y, { width: width - 264 });
      const bottom = doc.y;
      doc.fillColor(SOFT).text(item.grade, left + width - 74, y, { width: 74, align: "right" });
      doc.y = Math.max(bottom, doc.y) + 3;
      doc
        .moveTo(left, doc.y)
        .lineTo(left + width, doc.y)
        .lineWidth(0.3)
        .strokeColor("#b8ab98")
        .stroke();
      doc.y += 4;
    }
    if (c.steps.length > 0) {
      doc.moveDown(0.5);
      doc.font("bold").fontSize(11).fillColor(INK).text("Steps done, as recorded", left);
      rule(1);
      doc.moveDown(0.3);
      for (const step of c.steps) {
        const y = doc.y;
        doc.font("bold").fontSize(9.5).fillColor(INK).text(step.name, left, y, { width: 150 });
        doc.font("regular").text(step.proof, left + 156, y, { width: width - 236 });
        const bottom = doc.y;
        doc.fillColor(SOFT).text(step.grade, left + width - 74, y, { width: 74, align: "right" });
        doc.y = Math.max(bottom, doc.y) + 2;
      }
      doc.fillColor(INK);
    }
    if (c.readings.length > 0) {
      doc.moveDown(0.5);
      doc
        .font("bold")
        .fontSize(11)
        .fillColor(INK)
        .text(`Film by spot, ${c.units === "us" ? "mil" : "µm"}`, left);
      rule(1);
      doc.moveDown(0.3);
      for (const f of c.readings) {
        doc.font("bold").fontSize(9.5).text(f.face, left);
        for (const spot of f.spots) {
          const y = doc.y;
          doc
            .font("regular")
            .fontSize(9.5)
            .text(spot.spot, left + 12, y, { width: 40 });
          doc.font("bold").text(spot.mean, left + 56, y, { width: 50, align: "right", features: ["tnum"] });
          doc
            .font("regular")
            .fillColor(SOFT)
            .text(spot.readings, left + 124, y, { width: width - 124, features: ["tnum"] });
          doc.fillColor(INK);
        }
        doc.moveDown(0.2);
      }
    }
    doc.moveDown(0.5);
    doc.font("bold").fontSize(11).fillColor(INK).text("Not measured", left);
    doc
      .font("regular")
      .fontSize(9.5)
      .text(c.notMeasured.length ? c.notMeasured.join("; ") : "Everything asked for was measured.", left, doc.y, {
        width,
      });
    doc.moveDown(1);
    doc.font("regular").fontSize(9.5).text(`Signed with password by ${c.signedBy}, ${c.signedAt}`, left);
    doc.moveDown(0.8);
    doc
      .fontSize(7.5)
      .fillColor(SOFT)
      .text(
        `Record ${c.recordId}. Newest seal of the record: ${c.seal}. Measured, by procedure, assumed and unknown are four different things; each line says which.`,
        left,
        doc.y,
        { width },
      );
    doc.end();
  });
}
