import type { Metadata } from "next";
import * as v from "valibot";
import { kinds } from "@/core/kinds";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { recentRecords } from "@/server/search/recent";
import { personOnPage } from "@/server/sign-in/person";
import { Choice } from "@/ui/fields/choice";
import { dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { kindName } from "@/ui/kinds";
import { sayRecord } from "@/ui/kinds/say-record";
import Link from "@/ui/link";
import { List } from "@/ui/lists/list";
import { Grade } from "@/ui/marks/verdict";

export const metadata: Metadata = { title: "Records" };
const PAGE = 60;
const columns = [
  { key: "at", head: "at", width: "minmax(92px,170px)", look: "fig small faint" },
  { key: "of", head: "of", width: "minmax(50px,90px)" },
  { key: "what", head: "record", width: "minmax(0,1fr)" },
  { key: "by", head: "by", width: "80px", wide: true, look: "faint small" },
  { key: "grade", head: "grade", width: "26px" },
];
const recordId = v.pipe(v.string(), v.uuid());
export default async function RecordsPage({
  searchParams,
}: {
  searchParams: Promise<{ kind?: string; rack?: string; by?: string; before?: string; id?: string }>;
}) {
  const person = await personOnPage();
  const [line, { units }] = await Promise.all([currentLine(person), preferences()]);
  const all = kinds().map((k) => k.kind);
  const { kind, rack, by, before, id } = await searchParams;
  const from = before && !Number.isNaN(Date.parse(before)) ? new Date(before) : line.at;
  const records = await recentRecords(database(), person, from, PAGE, {
    kind: all.includes(kind ?? "") ? (kind ?? null) : null,
    rack: rack ?? null,
    by: by ?? null,
    beforeId: v.is(recordId, id) ? id : null,
  });
  const last = records.at(-1);
  const query = new URLSearchParams({ ...(kind ? { kind } : {}), ...(rack ? { rack } : {}), ...(by ? { by } : {}) });
  return (
    <>
      <section className="bench">
        <PageHead above="Everything that was recorded, newest first; nothing is ever edited or deleted" title="Records">
          <Link className="btn" href="/records/export">
            Take it with you
          </Link>
          <Link className="btn" href="/records/import">
            Import a file
          </Link>
        </PageHead>
        <form className="mt-3 flex flex-wrap items-end gap-3">
          <div className="field w-44">
            <label htmlFor="kind">Kind</label>
            <Choice id="kind" name="kind" className="input" defaultValue={kind ?? ""}>
              <option value="">every kind</option>
              {all.map((k) => (
                <option key={k} value={k}>
                  {kindName(k)}
                </option>
              ))}
            </Choice>
          </div>
          <div className="field w-32">
            <label htmlFor="rack">Rack</label>
            <input id="rack" name="rack" className="input" defaultValue={rack ?? ""} />
          </div>
          <div className="field w-32">
            <label htmlFor="by">By, sign-in name</label>
            <input id="by" name="by" className="input" defaultValue={by ?? ""} />
          </div>
          <button type="submit" className="btn">
            Show
          </button>
        </form>
        <div className="ruled mt-4">
          <List
            name="Records"
            part
            heads={false}
            empty="Nothing on record fits that. Try another kind, rack or person."
            columns={columns}
            rows={records.map((r) => ({
              key: r.id,
              cells: {
                at: dateAndTime(r.at, line.timeZone),
                of: r.rack ? (
                  <Link className="link fig" href={`/racks/${r.rack}`}>
                    {r.rack}
                  </Link>
                ) : (
                  (r.place ?? "")
                ),
                what: (
                  <>
                    {sayRecord(r, units)}
                    {r.corrects ? <span className="soft">, corrects an earlier one: “{r.corrects}”</span> : ""}
                  </>
                ),
                grade: <Grade grade={r.grade as "measured"} />,
              },
              values: {
                at: r.at.toISOString(),
                of: r.rack ?? r.place,
                what: sayRecord(r, units),
                by: r.by,
                grade: r.grade,
              },
            }))}
          />
        </div>
        {records.length === PAGE && last && (
          <p className="mt-4">
            <Link
              className="btn"
              href={`/records?${new URLSearchParams([...query, ["before", last.storedAt.toISOString()], ["id", last.id]])}`}
            >
              Older
            </Link>
          </p>
        )}
      </section>
      <Margin step="shift">
        <MarginBlock title="Seals">
          <p>
            Records are sealed in batches: changing, removing or slipping one in is named by{" "}
            <span className="fig">npm run verify</span>. The newest seal is printed on each certificate.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
