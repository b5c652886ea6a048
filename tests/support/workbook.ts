import { strToU8, zipSync } from "fflate";

const MS_PER_DAY = 86_400_000;
const letter = (i: number) => String.fromCharCode(65 + i);
const cell = (value: string | number | Date, ref: string): string => {
  if (typeof value === "string") return `<c r="${ref}" t="inlineStr"><is><t>${value}</t></is></c>`;
  // A date is a number of days with a format that shows it as one.
  if (value instanceof Date) return `<c r="${ref}" s="1"><v>${value.getTime() / MS_PER_DAY + 25_569}</v></c>`;
  return `<c r="${ref}"><v>${value}</v></c>`;
};
const XML = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
const MAIN = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';

/** A workbook as a spreadsheet program saves one, by its open standard (ISO/IEC 29500): sheets by name, rows of cells. */
export function workbook(sheets: Record<string, readonly (readonly (string | number | Date)[])[]>): Buffer {
  const names = Object.keys(sheets);
  const part = "application/vnd.openxmlformats-officedocument.spreadsheetml";
  const rel = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
  const files: Record<string, string> = {
    "[Content_Types].xml": `${XML}<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${part}.sheet.main+xml"/><Override PartName="/xl/styles.xml" ContentType="${part}.styles+xml"/>${names.map((_, i) => `<Override PartName="/xl/worksheets/sheet${i + 1}.xml" ContentType="${part}.worksheet+xml"/>`).join("")}</Types>`,
    "_rels/.rels": `${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="${rel}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    "xl/workbook.xml": `${XML}<workbook ${MAIN} xmlns:r="${rel}"><sheets>${names.map((n, i) => `<sheet name="${n}" sheetId="${i + 1}" r:id="rId${i + 1}"/>`).join("")}</sheets></workbook>`,
    "xl/_rels/workbook.xml.rels": `${XML}<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${names.map((_, i) => `<Relationship Id="rId${i + 1}" Type="${rel}/worksheet" Target="worksheets/sheet${i + 1}.xml"/>`).join("")}<Relationship Id="rId99" Type="${rel}/styles" Target="styles.xml"/></Relationships>`,
    "xl/styles.xml": `${XML}<styleSheet ${MAIN}><fonts count="1"><font/></fonts><fills count="1"><fill/></fills><borders count="1"><border/></borders><cellStyleXfs count="1"><xf/></cellStyleXfs><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="22" applyNumberFormat="1"/></cellXfs></styleSheet>`,
  };
  names.forEach((name, i) => {
    const rows = (sheets[name] ?? [])
      .map((row, y) => `<row r="${y + 1}">${row.map((value, x) => cell(value, `${letter(x)}${y + 1}`)).join("")}</row>`)
      .join("");
    files[`xl/worksheets/sheet${i + 1}.xml`] = `${XML}<worksheet ${MAIN}><sheetData>${rows}</sheetData></worksheet>`;
  });
  return Buffer.from(zipSync(Object.fromEntries(Object.entries(files).map(([name, xml]) => [name, strToU8(xml)]))));
}
