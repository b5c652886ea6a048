import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { ImportForm } from "@/ui/forms/import-form";
import { ManyReadingsForm } from "@/ui/forms/many-readings-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { importUpload } from "../../actions";

export const metadata: Metadata = { title: "Import a file" };

export default async function ImportPage() {
  await personOnPage("inspect");
  const ovens = [...(await setupAt(database(), "oven", now())).values()].map((o) => o.code);
  return (
    <>
      <section className="bench">
        <PageHead
          above="Film gauge, oven recorder or bath log; read first, stored after you have seen it"
          title="Import a file"
        />
        <ImportForm upload={importUpload} ovens={ovens} />
        <h2 className="mt-8">A history of readings</h2>
        <ManyReadingsForm />
      </section>
      <Margin step="test">
        <MarginBlock title="What is taken">
          <p>
            CSV, TSV, plain readings or a spreadsheet (XLSX), up to 10 MB (a history: UTF-8 text, 500 MB), either
            decimal mark. What the file says decides, not its name; what it leaves open is asked.
          </p>
        </MarginBlock>
        <MarginBlock title="All or nothing">
          <p>
            Columns and times of a trace are shown as they were taken, and can be changed; times are the shop’s. A line
            that is no reading refuses the whole file, and is named. Markers such as OVER, n/a or a deleted flag are
            left out and listed.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
