import type { VerdictResult } from "@/core/verdict";
import { lineChart, type PdfLine, type PdfMark, planFigure } from "../pdf/charts";
import { photoGrid } from "../pdf/photos";
import { Sheet } from "../pdf/sheet";

/** What a report on a structure says, in words as they are printed. */
export type FieldReport = {
  readonly site: string;
  readonly name: string;
  readonly facts: readonly (readonly [string, string])[];
  readonly inShort: readonly string[];
  readonly zones: readonly {
    readonly name: string;
    readonly place: string;
    readonly found: string;
    readonly protection: VerdictResult;
    readonly appearance: VerdictResult;
    readonly growth: string;
  }[];
  readonly creep: {
    readonly lines: readonly PdfLine[];
    readonly limits: readonly { readonly at: number; readonly label: string }[];
    readonly unit: string;
  } | null;
  /** Zones by the side they face and how high they are, as far as that is on record. */
  readonly map: {
    readonly marks: readonly PdfMark[];
    readonly sides: readonly string[];
    readonly highestM: number;
  } | null;
  /** The plan of its site, with where it stands. */
  readonly plan: {
    readonly lines: readonly (readonly (readonly [number, number])[])[];
    readonly words: readonly { readonly at: readonly [number, number]; readonly text: string }[];
    readonly marks: readonly PdfMark[];
  } | null;
  readonly causes: readonly string[];
  readonly made: readonly string[];
  readonly offered: readonly string[];
  readonly advice: readonly { readonly zone: string; readonly what: string; readonly caution: string }[];
  readonly design: readonly string[];
  readonly photos: readonly { readonly bytes: Buffer; readonly caption: string }[];
  readonly morePhotos: number;
  readonly letter: boolean;
  readonly at: string;
};
const word: Record<VerdictResult, string> = { in: "good", watch: "watch", out: "FAILED", unknown: "not looked at" };

/** The report as a tagged PDF for whoever owns the structure: how it stands in short, zone by zone, what is known of why, what to do. */
export async function fieldReportPdf(c: FieldReport): Promise<Buffer> {
  const sheet = new Sheet(`Report on ${c.name}`, c.site, c.letter ? "LETTER" : "A4", true);
  const { width } = sheet;
  const list = (title: string, lines: readonly string[], none: string | null) => {
    if (lines.length === 0 && none === null) return;
    sheet.space(0.4).section(title);
    for (const line of lines) sheet.line(line);
    if (lines.length === 0 && none !== null) sheet.line(none);
  };
  sheet.heading(c.site, `Report on ${c.name}`);
  for (const [name, value] of c.facts)
    sheet.row([
      { text: name, from: 0, width: 110, soft: true, names: true },
      { text: value, from: 116, width: width - 116 },
    ]);
  sheet.space(0.4).section("In short");
  for (const line of c.inShort) sheet.line(line, { bold: true });
  sheet.space(0.4).section("Zone by zone, each as it was read last");
  for (const z of c.zones)
    sheet
      .row([
        { text: `${z.name}\n${z.place}`, from: 0, width: 130, names: true },
        { text: [z.found, z.growth].filter(Boolean).join("\n"), from: 136, width: width - 286 },
        {
          text: `protection: ${word[z.protection]}\nappearance: ${word[z.appearance]}`,
          from: width - 144,
          width: 144,
          bold: z.protection === "out" || z.appearance === "out",
        },
      ])
      .thin();
  if (c.map) {
    sheet.space(0.2).section("Where on it");
    const step = 1 / c.map.sides.length;
    planFigure(sheet, {
      lines: [
        [
          [0, 0.97],
          [1, 0.97],
        ],
      ],
      words: [
        ...c.map.sides.map((text, i) => ({ at: [(i + 0.5) * step, 0.04] as const, text })),
        { at: [0.04, 0.94] as const, text: "ground" },
        { at: [0.05, 0.1] as const, text: `${c.map.highestM} m` },
      ],
      marks: c.map.marks,
      alt: c.map.marks.map((m) => `${m.name}: ${word[m.result]}`).join("; "),
      high: 0.42,
    });
    sheet.line(
      "Disc good, triangle watch, square failed, dashed not looked at. Zones with no height on record are left out.",
      {
        soft: true,
        size: 8,
      },
    );
  }
  if (c.plan) {
    sheet.space(0.2).section("Where it stands");
    planFigure(sheet, {
      ...c.plan,
      alt: `Plan of the site with ${c.plan.marks.map((m) => m.name).join(", ")}`,
      high: 0.64,
    });
    sheet.line("As it was drawn on site, not to scale.", { soft: true, size: 8 });
  }
  if (c.creep) {
    sheet.space(0.2).room(230).section("How far rust has crept from damage");
    lineChart(sheet, {
      lines: c.creep.lines,
      limits: c.creep.limits,
      xName: "years",
      yName: c.creep.unit,
      alt: c.creep.lines
        .map((l) => `${l.name}: ${l.points.map(([x, y]) => `${x.toFixed(1)} years ${y}`).join(", ")}`)
        .join("; "),
    });
  }
  list("What is known of why", c.causes, "No cause is confirmed yet.");
  list("When it was coated", c.made, "There is no record of it.");
  list("What was offered then", c.offered, null);
  if (c.advice.length > 0) {
    sheet.space(0.4).section("What to do");
    for (const a of c.advice)
      sheet.row([
        { text: a.zone, from: 0, width: 110, bold: true, names: true },
        { text: `${a.what}${a.caution ? ` ${a.caution}` : ""}`, from: 116, width: width - 116 },
      ]);
  }
  list("For the next one", c.design, null);
  photoGrid(sheet, c.photos, c.morePhotos);
  sheet
    .space(0.8)
    .line(
      `Made from the record as it stood ${c.at}. A zone that was not looked at is not said to be good. What is foretold goes on as it went between two visits; nobody promises it. Data sheets, local codes and licensed practice come before what is advised here.`,
      { soft: true, size: 7.5 },
    );
  return sheet.finish();
}
