import type { Metadata } from "next";
import { exportTables } from "@/server/exports/export-table";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";
import { ExportForm } from "@/ui/forms/export-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { kindName } from "@/ui/kinds";
import Link from "@/ui/link";

export const metadata: Metadata = { title: "Take it with you" };

export default async function ExportPage() {
  const person = await personOnPage();
  const all = exportTables();
  const tables = all.map((t) => {
    const alone = all.filter((o) => o.kind === t.kind).length === 1;
    return { ...t, name: alone ? kindName(t.kind) : `${kindName(t.kind)}: ${t.table.replaceAll("_", " ")}` };
  });
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/records">
              Records
            </Link>
          }
          title="Take it with you"
        />
        <ExportForm tables={tables} stock={ofTheShop(person)} />
      </section>
      <Margin step="shift">
        <MarginBlock title="What a file holds">
          <p>
            A row for each reading, place or sample, with when it happened by the shop’s clock and that clock’s distance
            from UTC, who, and the grade of evidence. What was corrected later stays in it and says so.
          </p>
        </MarginBlock>
        <MarginBlock title="All of a job">
          <p>A job’s page has its whole record as JSON and its film as CSV; a history is saved from its own chart.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
