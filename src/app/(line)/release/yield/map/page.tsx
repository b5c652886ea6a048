import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";
import { type Mapped, mapped, mostNoted, partMap } from "@/server/yield/part-map";
import { Choice } from "@/ui/fields/choice";
import { countOf, percent } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { PartHeat } from "@/ui/yield/part-heat";
import { Spans, spanOf } from "@/ui/yield/spans";

export const metadata: Metadata = { title: "Map over racks" };
const whatName: Record<Mapped, string> = {
  light: "Light places under the lamp",
  heavy: "Heavy places left",
  bump: "Bumps",
  fault: "Faults of the film",
};
const none: Record<Mapped, string> = {
  light: "No light place was marked under the lamp on this part in this span.",
  heavy: "No heavy place was marked under the lamp on this part in this span.",
  bump: "No bump was marked on this part in this span.",
  fault: "No fault was placed on this part in this span.",
};

/** Where on a part something was noted, added up over its racks; each cell leads to them. */
export default async function PartMapPage({
  searchParams,
}: {
  searchParams: Promise<{ part?: string; what?: string; days?: string; cell?: string }>;
}) {
  const person = await personOnPage();
  // It goes over all customers' work.
  if (!ofTheShop(person)) notFound();
  const asked = await searchParams;
  const at = now();
  const parts = [...(await setupAt(database(), "part", at)).values()].sort((a, b) =>
    a.data.name.localeCompare(b.data.name, "en", { numeric: true }),
  );
  const days = spanOf(asked.days);
  const what = mapped.find((w) => w === asked.what) ?? "light";
  const named = parts.find((p) => p.code === asked.part);
  const most = named ? null : await mostNoted(database(), { what, days, at });
  const part = named ?? parts.find((p) => p.id === most) ?? parts[0];
  const map = part && (await partMap(database(), { partId: part.id, what, days, at }));
  const address = (over: Record<string, string>) =>
    `/release/yield/map?${new URLSearchParams({ part: part?.code ?? "", what, days: String(days), ...over })}`;
  const chosen = map?.cells.find((c) => `${c.face}-${c.column}-${c.row}` === asked.cell) ?? null;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/release/yield">
              Yield
            </Link>
          }
          title="Map over racks"
        >
          <Spans days={days} href={(s) => address({ days: String(s) })} />
        </PageHead>
        <form className="no-print mt-3 flex flex-wrap items-end gap-3" action="/release/yield/map">
          <input type="hidden" name="days" value={days} />
          <input type="hidden" name="what" value={what} />
          <div className="field">
            <label htmlFor="map-part">Part</label>
            <Choice id="map-part" name="part" className="input min-w-[260px]" defaultValue={part?.code}>
              {parts.map((p) => (
                <option key={p.id} value={p.code}>
                  {p.data.name}
                </option>
              ))}
            </Choice>
          </div>
          <button type="submit" className="btn">
            Show it
          </button>
        </form>
        <nav aria-label="What is added up" className="no-print mt-3 flex flex-wrap gap-2">
          {mapped.map((w) => (
            <Link
              key={w}
              className={`btn ${w === what ? "pri" : ""}`}
              aria-current={w === what ? "page" : undefined}
              href={address({ what: w })}
            >
              {whatName[w]}
            </Link>
          ))}
        </nav>
        {!part || !map ? (
          <p className="ruled mt-3 py-3">No part is set up yet.</p>
        ) : (
          <>
            <h2 className="mt-5 mb-2">
              {part.data.name}: {whatName[what].toLowerCase()}, {days} days
            </h2>
            {map.cells.length === 0 && <p className="m-0 mb-3">{none[what]}</p>}
            <PartHeat
              faces={part.data.faces}
              cells={map.cells}
              href={(c) => `${address({ cell: `${c.face}-${c.column}-${c.row}` })}#racks`}
              chosen={asked.cell ?? null}
            />
            {map.notPlaced > 0 && (
              <p className="small soft mt-2">{countOf(map.notPlaced, "rack")} more had one that nobody placed.</p>
            )}
            {chosen && (
              <section className="mt-5 border-sorrel border-l-4 pl-4" id="racks" aria-label="Racks behind it">
                <h2>
                  {part.data.faces.find((f) => f.id === chosen.face)?.name ?? chosen.face}, here:{" "}
                  {countOf(chosen.racks.length, "rack")}
                  {chosen.share !== null && chosen.interval && (
                    <>
                      , {percent(chosen.share)} of those looked at (95 times in 100 between{" "}
                      {percent(chosen.interval[0])} and {percent(chosen.interval[1])})
                    </>
                  )}
                </h2>
                <p className="m-0 flex flex-wrap gap-x-5">
                  {chosen.racks.map((r) => (
                    <Link
                      key={r}
                      className="link fig inline-flex min-h-11 items-center"
                      href={`/racks/${encodeURIComponent(r)}/coat`}
                    >
                      {r}
                    </Link>
                  ))}
                </p>
                <Link className="link" href={address({})}>
                  Put the list away
                </Link>
              </section>
            )}
            {map.faces.length > 0 && (
              <section className="mt-6">
                <h2>Face by face, beside the {days} days before</h2>
                <div className="ruled">
                  {map.faces.map((f) => (
                    <div key={f.face} className="row grid-cols-[minmax(0,1fr)_150px_230px] items-center">
                      <span>{part.data.faces.find((x) => x.id === f.face)?.name ?? f.face}</span>
                      <span className="fig text-right">
                        <b>{f.racks}</b> of {countOf(f.looked, "rack")}
                      </span>
                      <span className="fig soft text-right">
                        before: {f.lookedBefore === 0 ? "none looked at" : `${f.racksBefore} of ${f.lookedBefore}`}
                      </span>
                    </div>
                  ))}
                </div>
              </section>
            )}
          </>
        )}
      </section>
      <Margin step="release">
        <MarginBlock title="How it is counted">
          <p className="small">
            Light places and bumps are those marked under the lamp before the oven; faults are those placed on the
            finished film. A rack counts once in a cell, whatever the number of its pieces. The share is of racks on
            which that face was looked at in the span; where a place keeps coming, look at the programme, the hook and
            the hand there.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
