import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { loadKnowledge } from "@/core/diagnosis";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop, seesCost, seesPainters } from "@/server/sign-in/roles";
import { firstPassYield, racksBehind, YIELD_PAGE, type YieldGroup, yieldGroups } from "@/server/yield/first-pass-yield";
import { extraWorkOf } from "@/server/yield/free-work";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime, fullDate, percent } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { decisionWords } from "@/ui/words/decisions";
import { money } from "@/ui/words/plan";
import { stageNames } from "@/ui/words/reasons";
import { Spans, spanOf } from "@/ui/yield/spans";
import { YieldRows } from "@/ui/yield/yield-rows";

export const metadata: Metadata = { title: "Yield" };
const groupName: Record<YieldGroup, string> = {
  week: "By week of the decision",
  part: "By part",
  powder: "By powder",
  booth: "By booth",
  shift: "By shift that coated",
  painter: "By painter",
};
/** Rows of a group before the rest folds away. */
const SHOWN = 12;

/** First-pass yield with its intervals, what was found on the racks, and the racks behind each figure. */
export default async function YieldPage({
  searchParams,
}: {
  searchParams: Promise<{ days?: string; by?: string; of?: string; page?: string }>;
}) {
  const person = await personOnPage();
  // It goes over all customers' work.
  if (!ofTheShop(person)) notFound();
  const asked = await searchParams;
  const days = spanOf(asked.days);
  const at = now();
  const [all, site, extra] = await Promise.all([
    firstPassYield(database(), person, at, { days }),
    siteAt(database(), at),
    extraWorkOf(database(), { at, days }),
  ]);
  const address = (over: Record<string, string>) =>
    `/release/yield?${new URLSearchParams({ days: String(days), ...over })}`;
  const group = [...yieldGroups, "defect" as const].find((g) => g === asked.by);
  const of = group && typeof asked.of === "string" ? { group, key: asked.of.slice(0, 120) } : null;
  const page = Math.min(10_000, Math.max(1, Math.trunc(Number(asked.page)) || 1));
  const behind = of && (await racksBehind(database(), person, at, { days, of, page }));
  const defectName = (id: string) => loadKnowledge().defects.get(id)?.label ?? id.replaceAll("-", " ");
  const said = (g: YieldGroup, name: string) =>
    g === "week" ? `from ${fullDate(new Date(`${name}T12:00:00Z`), "UTC")}` : name;
  const named =
    of &&
    (of.group === "defect"
      ? defectName(of.key)
      : said(of.group, all.rows.find((r) => r.group === of.group && r.key === of.key)?.name ?? of.key));
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/release">
              Release
            </Link>
          }
          title="Yield"
        >
          <Spans days={days} href={(s) => `/release/yield?days=${s}`} />
        </PageHead>
        {all.whole === null ? (
          <p className="ruled mt-3 py-3">
            No rack was decided on in {days} days.{" "}
            {all.undecided > 0
              ? `${countOf(all.undecided, "rack")} hung since wait for a decision.`
              : "Choose a longer span."}
          </p>
        ) : (
          <>
            <div className="ruled mt-3 flex flex-wrap items-baseline gap-x-8 gap-y-2">
              <span>
                <span className="small soft block">passed by their first decision</span>
                <b className="fig text-[28px]">{percent(all.whole.share)}</b>
              </span>
              <span>
                {all.whole.passed} of {countOf(all.whole.racks, "rack")}; 95 times in 100 between{" "}
                {percent(all.whole.interval[0])} and {percent(all.whole.interval[1])}
                {all.undecided > 0 && (
                  <span className="soft block">
                    Not in it: {countOf(all.undecided, "rack")} hung in this span and not decided on yet.
                  </span>
                )}
              </span>
            </div>
            {of && behind && (
              <section className="mt-5 border-sorrel border-l-4 pl-4" id="racks" aria-label="Racks behind it">
                <h2>
                  Racks behind it: {named}, {countOf(behind.total, "rack")}
                </h2>
                {behind.racks.map((r) => (
                  <div key={r.number} className="row grid-cols-[80px_minmax(0,1fr)_auto] items-center">
                    <Link
                      className="link fig inline-flex min-h-11 items-center font-bold"
                      href={`/racks/${encodeURIComponent(r.number)}/release`}
                    >
                      {r.number}
                    </Link>
                    <Verdict
                      result={
                        r.decision === "accept"
                          ? "in"
                          : r.decision === "concession" || r.decision === "part"
                            ? "watch"
                            : "out"
                      }
                    >
                      {r.decision === "part" ? "Some pieces first" : (decisionWords[r.decision] ?? r.decision)}
                    </Verdict>
                    <span className="soft small">{dateAndTime(r.at, site.timeZone)}</span>
                  </div>
                ))}
                {behind.total === 0 && <p className="m-0">No rack in this span.</p>}
                <p className="m-0 mt-2 flex gap-5">
                  {page > 1 && (
                    <Link className="link" href={address({ by: of.group, of: of.key, page: String(page - 1) })}>
                      Earlier page
                    </Link>
                  )}
                  {page * YIELD_PAGE < behind.total && (
                    <Link className="link" href={address({ by: of.group, of: of.key, page: String(page + 1) })}>
                      Next page
                    </Link>
                  )}
                  <Link className="link" href={address({})}>
                    Put the list away
                  </Link>
                </p>
              </section>
            )}
            {all.defects.length > 0 && (
              <section className="mt-6">
                <h2>What was found on them</h2>
                <div className="ruled">
                  {all.defects.map((d) => (
                    <Link
                      key={d.defect}
                      href={address({ by: "defect", of: d.defect })}
                      className="row min-h-11 grid-cols-[minmax(0,190px)_minmax(0,1fr)_auto] items-center text-ink no-underline hover:bg-sorrel-tint"
                    >
                      <span>{defectName(d.defect)}</span>
                      <span className="block h-3" aria-hidden="true">
                        <span
                          className="block h-3 bg-sorrel"
                          style={{ width: `${(d.share / (all.defects[0]?.share ?? 1)) * 100}%` }}
                        />
                      </span>
                      <span className="text-right">
                        <b className="fig">{countOf(d.count, "rack")}</b>
                        <span className="soft small block">
                          {d.cost !== null && seesCost(person) ? `${money(d.cost, all.currency)}, ` : ""}
                          {d.pieces > 0 ? `${countOf(d.pieces, "piece")}, ` : ""}up to here {percent(d.upTo)}
                        </span>
                      </span>
                    </Link>
                  ))}
                </div>
              </section>
            )}
            <p className="no-print mt-3">
              <Link className="btn" href={`/release/yield/map?days=${days}`}>
                Where on the part: map over racks
              </Link>
            </p>
            {all.escapes.length > 0 && (
              <section className="mt-6">
                <h2>Where faults were made, and where they were found</h2>
                <div className="ruled">
                  {all.escapes.map((e) => (
                    <div
                      key={`${e.made} ${e.found}`}
                      className="row grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] items-center"
                    >
                      <span>
                        {e.made === "as-it-came" ? "As it came in" : stageNames[e.made]} → {stageNames[e.found]}
                      </span>
                      <Verdict result={e.stages === 0 ? "in" : e.stages < 3 ? "watch" : "out"}>
                        {e.stages === 0 ? "found where it was made" : `passed ${countOf(e.stages, "stage")}`}
                      </Verdict>
                      <span className="text-right">
                        <b className="fig">{countOf(e.racks, "rack")}</b>
                        {e.cost !== null && seesCost(person) && (
                          <span className="soft small block">{money(e.cost, all.currency)}</span>
                        )}
                      </span>
                    </div>
                  ))}
                </div>
              </section>
            )}
            {extra.length > 0 && (
              <section className="mt-6">
                <h2>Work nobody ordered</h2>
                <div className="ruled">
                  {extra.map((w) => (
                    <div key={w.what} className="row grid-cols-[minmax(0,1fr)_110px_minmax(0,200px)] items-center">
                      <span>{w.what}</span>
                      <span className="fig text-right">{countOf(w.racks, "rack")}</span>
                      <span className="text-right">
                        <b className="fig">{w.freeMinutes.toFixed(0)}</b> of {w.minutes.toFixed(0)} min free
                        {w.freeCost !== null && seesCost(person) && (
                          <span className="soft small block">{money(w.freeCost, all.currency)} that nobody pays</span>
                        )}
                      </span>
                    </div>
                  ))}
                </div>
              </section>
            )}
            {yieldGroups.map((g) => {
              const rows = all.rows
                .filter((r) => r.group === g)
                .map((r) => ({ name: said(g, r.name), href: address({ by: g, of: r.key }), yield: r.yield }));
              if (rows.length === 0 || all.whole === null) return null;
              const own = g === "painter" && !seesPainters(person);
              return (
                <section key={g} className="mt-6">
                  <h2>{own ? "What you coated, beside the whole" : groupName[g]}</h2>
                  <YieldRows rows={rows.slice(0, SHOWN)} whole={all.whole} />
                  {rows.length > SHOWN && (
                    <Fold summary={`and ${rows.length - SHOWN} more`}>
                      <YieldRows rows={rows.slice(SHOWN)} whole={all.whole} />
                    </Fold>
                  )}
                </section>
              );
            })}
          </>
        )}
      </section>
      <Margin step="release">
        <MarginBlock title="How it is counted">
          <p className="small">
            A rack counts once, in the span of its first decision; it passed if that was to accept it. Held, conceded,
            recoated, stripped, wiped off, downgraded and scrapped did not pass; trial panels count like any rack. The
            bar is the 95 % interval (Wilson), the stroke the share, the dashed line the whole. A group is told apart
            from the whole only where its interval leaves the line out.
          </p>
          <p className="small">
            Painter, booth and shift are those of the first coat. A painter is named to a lead, and to themselves; names
            stand by the alphabet.
          </p>
          <p className="small">
            Groups differ in what they were given to do: ask what else differed before asking who.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
