import QRCode from "qrcode";
import type * as v from "valibot";
import { Sheet, SOFT } from "../pdf/sheet";
import type { certificateSchema } from "./certificate-schema";

/** What a certificate says. */
export type CertificateContent = v.InferOutput<typeof certificateSchema>;

/** Side of the code, points: two centimetres. */
const CODE = 57;
const GRADE = 74;
/** Room for the customer's mark, points. */
const LOGO = [110, 44] as const;

/** The certificate as a tagged PDF, A4, or Letter in US units; ink on white. What was not measured stands beside what was. */
export async function certificatePdf(c: CertificateContent, logo: Buffer | null = null): Promise<Buffer> {
  const code =
    c.check && (await QRCode.toBuffer(c.check.address, { errorCorrectionLevel: "M", margin: 0, width: 480 }));
  const sheet = new Sheet(`Certificate ${c.number}`, c.site, c.units === "us" ? "LETTER" : "A4", true);
  const { doc, left, width } = sheet;
  const grade = (text: string) => ({ text, from: width - GRADE, width: GRADE, soft: true, right: true });
  sheet.heading(c.site, `Certificate ${c.number}`, () => {
    if (!code || !c.check) return;
    const after = doc.y;
    const beside = { width: 236 - CODE - 10, align: "right" as const };
    const { mark, address } = c.check;
    sheet.as(
      "Figure",
      () => doc.image(code, left + width - CODE, 44, { width: CODE }),
      `Code that leads to ${address}`,
    );
    sheet.as("P", () =>
      doc
        .font("regular")
        .fontSize(7.5)
        .fillColor(SOFT)
        .text(`Check this paper by the code, or at ${new URL("/check", address).href}`, left + width - 236, 50, beside)
        .text(`mark ${mark}`, beside),
    );
    doc.x = left;
    doc.y = Math.max(after, 44 + CODE);
  });
  if (logo) {
    const y = doc.y;
    sheet.as(
      "Figure",
      () => doc.image(logo, left + width - LOGO[0], y, { fit: [...LOGO], align: "right" }),
      `Mark of ${c.customer}`,
    );
    doc.x = left;
    doc.y = y;
  }
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
  for (const [name, value] of facts)
    sheet.row([
      { text: name, from: 0, width: 90, soft: true, names: true },
      { text: value, from: 96, width: width - 96 - (logo ? LOGO[0] + 12 : 0), bold: name === "Decision" },
    ]);
  if (c.conceded.length > 0) {
    sheet.space(0.5).section("Taken by the customer as it is");
    for (const gap of c.conceded) sheet.line(gap);
  }
  sheet.space(0.5).section("What was found");
  for (const item of c.items)
    sheet
      .row([
        { text: item.name, from: 0, width: 90, bold: true, names: true },
        { text: item.word, from: 96, width: 84 },
        { text: item.text, from: 184, width: width - 264 },
        grade(item.grade),
      ])
      .thin();
  if (c.steps.length > 0) {
    sheet.space(0.5).section("Steps done, as recorded");
    for (const step of c.steps)
      sheet.row([
        { text: step.name, from: 0, width: 150, bold: true, names: true },
        { text: step.proof, from: 156, width: width - 236 },
        grade(step.grade),
      ]);
  }
  if (c.readings.length > 0) {
    sheet.space(0.5).section(`Film by spot, ${c.units === "us" ? "mil" : "µm"}`);
    for (const f of c.readings) {
      sheet.room(46).line(f.face, { bold: true });
      for (const spot of f.spots)
        sheet.row([
          { text: spot.spot, from: 12, width: 40, names: true },
          { text: spot.mean, from: 56, width: 50, bold: true, right: true, figures: true },
          { text: spot.readings, from: 124, width: width - 124, soft: true, figures: true },
        ]);
      sheet.space(0.2);
    }
  }
  sheet.space(0.5).section("Not measured");
  sheet
    .line(c.notMeasured.length ? c.notMeasured.join("; ") : "Nothing: all that was asked for was measured.")
    .space(1);
  if (c.wording) {
    sheet.section(`As agreed with ${c.customer}`);
    for (const words of c.wording.split(/\n+/)) sheet.line(words);
    sheet.space(1);
  }
  sheet.line(`Signed with password by ${c.signedBy}, ${c.signedAt}`).space(0.8);
  sheet.line(
    `Record ${c.recordId}. Newest seal of the record: ${c.seal}. Measured, by procedure, assumed and unknown are four different things; each line says which.`,
    { soft: true, size: 7.5 },
  );
  return sheet.finish();
}
