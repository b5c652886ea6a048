import "server-only";
import { unzipSync } from "fflate";
import readWorkbook from "read-excel-file/node";
import { refuse } from "../outcome";

/** What a workbook may unpack to, bytes: a spreadsheet of 10 MB holds a tenth of this. */
const MOST_UNPACKED = 120 * 1024 * 1024;

export type Decoded = {
  readonly ok: true;
  readonly text: string;
  /** How it was written, where that is not UTF-8 text. */
  readonly as: string | null;
  /** Sheets of a workbook that were not read. */
  readonly sheetsLeftOut: readonly string[];
};

/**
 * A file's bytes as text: UTF-8, UTF-16 by its mark, Windows-1252 where it is neither, and a spreadsheet's fullest sheet as
 * tabbed text. Failures: `not-text`, `old-spreadsheet`, `bad-spreadsheet`, `too-large`.
 */
export async function decodeFile(bytes: Buffer): Promise<Decoded | ReturnType<typeof refuse>> {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return await fromWorkbook(bytes);
  if (bytes.subarray(0, 4).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0]))) return refuse({ kind: "old-spreadsheet" });
  const wide =
    bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : null;
  if (wide && bytes.length % 2 === 0) return asText(new TextDecoder(wide).decode(bytes), "UTF-16");
  try {
    return asText(new TextDecoder("utf-8", { fatal: true }).decode(bytes), null);
  } catch {
    return asText(new TextDecoder("windows-1252").decode(bytes), "Windows-1252");
  }
}

/** Text holds no control characters but line ends and tabs. */
const asText = (text: string, as: string | null): Decoded | ReturnType<typeof refuse> =>
  /(?![\t-\r\x7f-\x9f])\p{Cc}/u.test(text) ? refuse({ kind: "not-text" }) : { ok: true, text, as, sheetsLeftOut: [] };

async function fromWorkbook(bytes: Buffer): Promise<Decoded | ReturnType<typeof refuse>> {
  // What it says it unpacks to is looked at before any of it is unpacked.
  let unpacked = 0;
  try {
    unzipSync(bytes, {
      filter: (file) => {
        unpacked += file.originalSize;
        return false;
      },
    });
    if (unpacked > MOST_UNPACKED)
      return refuse({
        kind: "too-large",
        megabytes: Math.round(unpacked / 1e6),
        mostMegabytes: Math.round(MOST_UNPACKED / 1e6),
      });
    const sheets = await readWorkbook(bytes);
    const [fullest] = [...sheets].sort((a, b) => b.data.length - a.data.length);
    if (!fullest || fullest.data.length === 0) return refuse({ kind: "empty-file" });
    return {
      ok: true,
      text: fullest.data.map((row) => row.map(cellText).join("\t")).join("\n"),
      as: `spreadsheet, sheet “${fullest.sheet}”`,
      sheetsLeftOut: sheets.filter((s) => s !== fullest && s.data.length > 0).map((s) => s.sheet),
    };
  } catch {
    return refuse({ kind: "bad-spreadsheet" });
  }
}

/** A cell as text: numbers with a point, moments as the sheet's own clock has them, times of day alone as such. */
function cellText(cell: unknown): string {
  if (cell === null || cell === undefined) return "";
  if (cell instanceof Date) {
    const iso = new Date(Math.round(cell.getTime() / 1000) * 1000).toISOString();
    return cell.getUTCFullYear() < 1901 ? iso.slice(11, 19) : `${iso.slice(0, 10)} ${iso.slice(11, 19)}`;
  }
  return String(cell).replace(/[\t\r\n]+/g, " ");
}
