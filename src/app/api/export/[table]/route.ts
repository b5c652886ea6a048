import { momentOf } from "@/core/shifts";
import { database } from "@/server/database";
import { exportStock } from "@/server/exports/export-stock";
import { exportTable, exportTables } from "@/server/exports/export-table";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { personWith } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";

export const dynamic = "force-dynamic";

/** A table of the record, or what is in stock, as CSV that a spreadsheet of this shop opens; a line at a time, however long. */
export async function GET(request: Request, { params }: { params: Promise<{ table: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: who.refusal.kind === "signed-out" ? 401 : 403 });
  const { person } = who;
  const table = (await params).table.replace(/\.csv$/, "");
  const asked = new URL(request.url).searchParams;
  const at = now();
  const db = database();
  const { timeZone, decimalMark } = await siteAt(db, at);
  const style = { timeZone, decimalMark: decimalMark ?? ("." as const) };
  const mark = asked.get("bom") === "yes" ? "\uFEFF" : "";
  const headers = {
    "content-type": "text/csv; charset=utf-8",
    "content-disposition": `attachment; filename="${table.replaceAll("_", "-")}.csv"`,
    "cache-control": "no-store",
    "x-content-type-options": "nosniff",
  };
  if (table === "stock") {
    // What a shop has in store is its own affair.
    if (!ofTheShop(person)) return Response.json({ kind: "unknown-export", table }, { status: 404 });
    return new Response(mark + (await exportStock(db, at, style)), { headers });
  }
  if (!exportTables().some((t) => t.table === table))
    return Response.json({ kind: "unknown-export", table }, { status: 404 });
  const day = (name: string, other: Date, daysOn: number): Date => {
    const text = asked.get(name) ?? "";
    return /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text))
      ? new Date(momentOf(Date.parse(`${text}T00:00Z`) + daysOn * 86_400_000, timeZone))
      : other;
  };
  const rows = exportTable(db, person, table, {
    from: day("from", new Date(0), 0),
    to: day("to", new Date(at.getTime() + 1), 1),
    style,
  });
  const encoder = new TextEncoder();
  let begun = false;
  const body = new ReadableStream({
    async pull(controller) {
      try {
        const { done, value } = await rows.next();
        if (done) return controller.close();
        controller.enqueue(encoder.encode(begun ? value : mark + value));
        begun = true;
      } catch (error) {
        // Half a file must not look like a whole one.
        log("error", "export failed", { table, error: errorText(error) });
        controller.error(error);
      }
    },
    cancel: () => void rows.return(undefined),
  });
  return new Response(body, { headers });
}
