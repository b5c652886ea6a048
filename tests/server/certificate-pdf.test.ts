import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { afterAll, expect, test } from "vitest";
import { type CertificateContent, certificatePdf } from "@/server/release/certificate";

const directory = mkdtempSync(path.join(tmpdir(), "certificate-"));
afterAll(() => rmSync(directory, { recursive: true }));
const content = (over: Partial<CertificateContent> = {}): CertificateContent => ({
  number: "R7-0a1b2c",
  site: "Tarnwick Quay Finishing",
  customer: "Saltmarsh Ferries",
  job: "J-7",
  rack: "R7",
  part: "Landing-stage seat",
  pieces: "2 pieces, R7-01 to R7-02",
  powder: "GR-505 Gorse yellow",
  named: [["Lots", "GR-505/2611-4"]],
  coatedOn: "29 Nov 2026, 09:05",
  decision: "Accepted by concession",
  note: "for the yard bench",
  signedBy: "Ines Calder",
  signedAt: "29 Nov 2026, 12:00",
  verdictWord: "out",
  items: [{ name: "Film", word: "Out", text: "Mean 44 µm, 60 to 90 asked", grade: "measured" }],
  steps: [{ name: "Blast", proof: "45.0 µm", grade: "measured" }],
  readings: [{ face: "Seat", spots: [{ spot: "S1", mean: "44.0", readings: "43.0  45.0" }] }],
  notMeasured: ["Gloss at 60° (not asked)"],
  conceded: ["Film: Out. Mean 44 µm, 60 to 90 asked"],
  seal: "no. 3, abc",
  units: "metric",
  recordId: "0190",
  check: { mark: "0a1b 2c3d 4e5f 6071 8293", address: "http://shop.example:3000/check?number=R7-0a1b2c&mark=0a1b" },
  ...over,
});
async function read(over: Partial<CertificateContent> = {}) {
  const file = path.join(directory, "c.pdf");
  writeFileSync(file, await certificatePdf(content(over)));
  const run = (command: string, ...args: string[]) => execFileSync(command, [...args], { encoding: "utf8" });
  return {
    info: run("pdfinfo", file),
    structure: run("pdfinfo", "-struct-text", file),
    pages: run("pdftotext", "-layout", file, "-").split("\f").slice(0, -1),
  };
}

test("is tagged: its title, headings, rows and the code's words are read in their order; what parts things is left out", async () => {
  const { info, structure, pages } = await read();
  expect(info).toMatch(/Tagged:\s+yes/);
  expect(info).toMatch(/Title:\s+Certificate R7-0a1b2c/);
  expect(pages).toHaveLength(1);
  const tags = [...structure.matchAll(/^\s*(Document|H1|H2|P|Figure|Table|TR|TH|TD)\b/gm)].map((m) => m[1]);
  expect(tags.slice(0, 4)).toEqual(["Document", "P", "H1", "Figure"]);
  expect(tags.filter((t) => t === "H2")).toHaveLength(5);
  // One row to a fact, an item, a step, a spot; the first cell names it.
  expect(tags.filter((t) => t === "TR")).toHaveLength(8 + 1 + 1 + 1);
  expect(tags.filter((t) => t === "TH")).toHaveLength(11);
  const read_ = structure.replace(/\s+/g, " ");
  for (const said of ["Certificate R7-0a1b2c", "Gorse yellow", "44.0", "mark 0a1b 2c3d 4e5f 6071 8293", "Ines Calder"])
    expect(read_, said).toContain(said);
});

test("A4, and Letter where film is in mils", async () => {
  expect((await read()).info).toMatch(/Page size:.*A4/);
  expect((await read({ units: "us" })).info).toMatch(/Page size:.*letter/i);
});

test("what the customer takes as it is stands on the paper, and only where they do", async () => {
  const [page] = (await read()).pages;
  expect(page).toMatch(/Taken by the customer as it is\s+Film: Out\. Mean 44 µm/);
  expect((await read({ conceded: [] })).pages[0]).not.toContain("Taken by the customer");
});

test("a long one goes over pages with each row whole on one", async () => {
  const { pages } = await read({
    items: Array.from({ length: 70 }, (_, i) => ({
      name: `Item ${i}`,
      word: `word${i}`,
      text: i % 7 === 0 ? `text${i} ${"that takes more than a line to say ".repeat(6)}` : `text${i}`,
      grade: "measured",
    })),
    readings: Array.from({ length: 12 }, (_, f) => ({
      face: `Face ${f}`,
      spots: Array.from({ length: 10 }, (_, i) => ({ spot: `F${f}S${i}`, mean: "70.0", readings: `70.1  69.${i}` })),
    })),
  });
  // Two or three hundred lines: no page stands for a cell alone.
  expect(pages.length).toBeGreaterThan(4);
  expect(pages.length).toBeLessThan(9);
  for (let i = 0; i < 70; i++) {
    const on = pages.findIndex((p) => new RegExp(`Item ${i}\\s`).test(p));
    expect(pages[on], `item ${i}`).toMatch(new RegExp(`Item ${i}\\s+word${i}\\s+text${i}\\b.*measured`));
  }
  for (let f = 0; f < 12; f++)
    for (let i = 0; i < 10; i++)
      expect(pages.join("\n"), `F${f}S${i}`).toMatch(new RegExp(`F${f}S${i}\\s+70\\.0\\s+70\\.1\\s+69\\.${i}\\b`));
});
