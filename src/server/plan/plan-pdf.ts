import QRCode from "qrcode";
import { type PrintedPhoto, photoGrid } from "../pdf/photos";
import { INK, Sheet } from "../pdf/sheet";

export type OptionsSheet = {
  readonly site: string;
  readonly customer: string;
  readonly job: string;
  readonly part: string;
  readonly system: string;
  /** What the system usually reaches where the part will live; empty where it is not known. */
  readonly life: string;
  readonly day: string;
  readonly options: readonly {
    readonly what: string;
    readonly price: string;
    readonly risk: string;
    readonly state: string;
    readonly said: string;
  }[];
  readonly notices: readonly string[];
  /** How the parts came in, and how many photos there are more. */
  readonly photos?: readonly PrintedPhoto[];
  readonly morePhotos?: number;
};

/** The sheet a customer signs: each option with its price and, in plain words, what is risked without it; what was answered, and boxes for what was not. */
export function optionsPdf(c: OptionsSheet): Promise<Buffer> {
  const sheet = new Sheet(`Options, job ${c.job}`, c.site).heading(`${c.site} · ${c.day}`, `Options for job ${c.job}`);
  for (const [name, value] of [
    ["Customer", c.customer],
    ["Part", c.part],
    ["System", c.system],
    ...(c.life ? [["Usual life", c.life] as const] : []),
  ] as const)
    sheet.row([
      { text: name, from: 0, width: 90, soft: true },
      { text: value, from: 96, width: sheet.width - 96 },
    ]);
  sheet.space(0.5).section("Offered, and what is risked without it");
  if (c.options.length === 0) sheet.line("Nothing beyond the system is offered.");
  for (const o of c.options) {
    sheet.room(54).row([
      { text: o.what, from: 0, width: sheet.width - 200, bold: true },
      { text: o.price, from: sheet.width - 190, width: 70, right: true },
      {
        text: o.state === "" ? "[  ] taken   [  ] declined" : o.state,
        from: sheet.width - 112,
        width: 112,
        right: true,
      },
    ]);
    sheet.line(o.risk);
    if (o.said) sheet.line(o.said, { soft: true, size: 8.5 });
    sheet.space(0.2).thin();
  }
  if (c.notices.length > 0) {
    sheet.space(0.4).section("Please note");
    for (const notice of c.notices) sheet.line(`·  ${notice}`).space(0.15);
  }
  photoGrid(sheet, c.photos ?? [], c.morePhotos ?? 0);
  sheet.room(110).space(1.2);
  sheet.line("I have read what is offered and what is risked without it.");
  sheet.space(3);
  const y = sheet.doc.y;
  for (const [i, word] of ["Name", "Signature", "Date"].entries()) {
    const from = sheet.left + i * (sheet.width / 3);
    sheet.doc
      .moveTo(from, y)
      .lineTo(from + sheet.width / 3 - 16, y)
      .lineWidth(0.6)
      .strokeColor(INK)
      .stroke();
    sheet.doc
      .font("regular")
      .fontSize(8.5)
      .text(word, from, y + 4);
  }
  return sheet.finish();
}

export type RouteCardSheet = {
  readonly site: string;
  readonly customer: string;
  readonly job: string;
  readonly part: string;
  readonly pieces: string;
  readonly powder: string;
  readonly version: string;
  readonly address: string;
  /** The rack it is printed for; null while it goes with the whole job. */
  readonly rack: string | null;
  /** The customer's own number of the order, and when it is due; empty where neither is on record. */
  readonly order: string;
  readonly due: string;
  readonly steps: readonly {
    readonly stage: string;
    readonly name: string;
    readonly parameters: string;
    readonly checks: string;
    readonly hold: boolean;
  }[];
  /** What decisions to do it again added to a rack's card, in order of time. */
  readonly reworks: readonly { readonly title: string; readonly steps: RouteCardSheet["steps"] }[];
  readonly marks: readonly string[];
  readonly cautions: readonly string[];
};

/** The route card for the shop, with a code that opens the traveller on any tablet. */
export async function routeCardPdf(c: RouteCardSheet): Promise<Buffer> {
  const code = await QRCode.toBuffer(c.address, {
    errorCorrectionLevel: "M",
    margin: 2,
    width: 300,
    color: { dark: INK, light: "#ffffff" },
  });
  const sheet = new Sheet(`Route card, job ${c.job}`, c.site).heading(
    `${c.site} · ${c.version}`,
    c.rack ? `Route card ${c.job}, rack ${c.rack}` : `Route card ${c.job}`,
  );
  sheet.doc.image(code, sheet.left + sheet.width - 74, 44, { width: 74 });
  for (const [name, value] of [
    ["Customer", c.customer],
    ["Part", `${c.part}, ${c.pieces}`],
    ["Powder", c.powder],
    ...(c.rack ? [["Rack", c.rack] as const] : []),
    ...(c.order ? [["Order", c.order] as const] : []),
    ...(c.due ? [["Due", c.due] as const] : []),
  ] as const)
    sheet.row([
      { text: name, from: 0, width: 70, soft: true },
      { text: value, from: 76, width: sheet.width - 170 },
    ]);
  let number = 0;
  const stages = (steps: RouteCardSheet["steps"]) => {
    for (const s of steps) {
      number += 1;
      sheet.room(34).row([
        { text: String(number), from: 0, width: 18, soft: true },
        { text: s.name, from: 20, width: 130, bold: true },
        { text: s.parameters, from: 156, width: 130 },
        { text: s.checks, from: 292, width: 110, soft: true },
        { text: s.hold ? "HOLD, sign:" : "done:", from: 408, width: sheet.width - 408, bold: s.hold },
      ]);
      sheet.thin();
    }
  };
  sheet.space(1).section("Stages in order");
  stages(c.steps);
  for (const rework of c.reworks) {
    sheet.space(0.4).section(rework.title);
    stages(rework.steps);
  }
  if (c.marks.length > 0) {
    sheet.space(0.4).section("Hang, mask, rest, drain");
    for (const mark of c.marks) sheet.line(`·  ${mark}`);
  }
  sheet.space(0.6).section("Cautions");
  for (const caution of c.cautions) sheet.line(`·  ${caution}`, { size: 8.5 });
  sheet.space(0.4).line("Data sheets, local codes and licensed practice come first.", { soft: true, size: 8.5 });
  return sheet.finish();
}
