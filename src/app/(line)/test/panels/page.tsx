import type { Metadata } from "next";
import { PANELS_A_PAGE, panelRegister, panelsDue } from "@/server/bench/panels";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { countOf, dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { List } from "@/ui/lists/list";
import { Verdict } from "@/ui/marks/verdict";

export const metadata: Metadata = { title: "Test panels" };

const columns = [
  { key: "number", head: "panel", width: "minmax(0,1fr)", look: "fig" },
  { key: "racks", head: "stands for racks", width: "minmax(0,1.4fr)", look: "fig" },
  { key: "metal", head: "metal", width: "minmax(0,1fr)", wide: true },
  { key: "hung", head: "hung", width: "minmax(0,1fr)", wide: true },
  { key: "tests", head: "tests", width: "70px", num: true },
  { key: "at", head: "on record", width: "minmax(0,170px)", wide: true, look: "fig small" },
];

export default async function PanelsPage({
  searchParams,
}: {
  searchParams: Promise<{ readonly find?: string; readonly page?: string }>;
}) {
  const person = await personOnPage();
  const search = await searchParams;
  const find = typeof search.find === "string" ? search.find.slice(0, 40) : "";
  const page = Math.max(0, Math.min(10_000, Math.trunc(Number(search.page)) || 0));
  const [line, { rows, more }, due] = await Promise.all([
    currentLine(person),
    panelRegister(database(), person, find, page),
    panelsDue(database(), person),
  ]);
  const link = (to: number) => `/test/panels?find=${encodeURIComponent(find)}&page=${to}`;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/test">
              Test
            </Link>
          }
          title="Test panels"
        />
        {due.length > 0 && (
          <section className="ruled mt-4" aria-label="In a cabinet">
            <h2>In a cabinet</h2>
            {due.map((d) => (
              <Link
                key={`${d.number} ${d.cabinet}`}
                href={`/test/panels/${encodeURIComponent(d.number)}`}
                className="row grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)_auto] items-center"
              >
                <b className="fig">{d.number}</b>
                <span>
                  {d.cabinet.replace("-", " ")}, <span className="fig">{d.hours} h</span> read, next at{" "}
                  <span className="fig">{d.nextHours} h</span>
                </span>
                <Verdict result={d.dueAt <= line.at ? "watch" : "in"}>
                  {d.dueAt <= line.at ? "due since " : "due "}
                  {dateAndTime(d.dueAt, line.timeZone)}
                </Verdict>
              </Link>
            ))}
          </section>
        )}
        <form className="no-print mt-4 flex flex-wrap items-end gap-3" action="/test/panels">
          <div className="field w-[240px]">
            <label htmlFor="find">Find by panel or rack</label>
            <input id="find" name="find" className="input" defaultValue={find} maxLength={40} />
          </div>
          <button type="submit" className="btn">
            Find
          </button>
        </form>
        <List
          name="Test panels"
          empty={
            find
              ? `No panel or rack with “${find}”.`
              : "No panel yet. Put one on record where its rack is looked at and tested: it ties tests that destroy to the load they speak for."
          }
          columns={columns}
          part={more || page > 0}
          rows={rows.map((p) => ({
            key: p.number,
            href: `/test/panels/${encodeURIComponent(p.number)}`,
            values: {
              number: p.number,
              racks: p.racks.join(", "),
              metal: `${p.metal.replaceAll("-", " ")}${p.madeFrom ? `, ${p.madeFrom}` : ""}`,
              hung: p.hungAt ?? "–",
              tests: p.tests,
              at: dateAndTime(p.at, line.timeZone),
            },
          }))}
        />
        {(more || page > 0) && (
          <p className="flex gap-5">
            {page > 0 && (
              <Link className="link" href={link(page - 1)}>
                {PANELS_A_PAGE} newer
              </Link>
            )}
            {more && (
              <Link className="link" href={link(page + 1)}>
                {PANELS_A_PAGE} older
              </Link>
            )}
          </p>
        )}
      </section>
      <Margin step="test">
        <MarginBlock title="What a panel is for">
          <p>
            Cuts, rubs and salt spray destroy what they test. A panel of the same metal hangs with the load, and what is
            found on it speaks for {countOf(1, "rack")} or several that it stands for.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
