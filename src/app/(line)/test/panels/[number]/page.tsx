import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { loadPanel } from "@/server/bench/panels";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { PanelCreep } from "@/ui/bench/panel-creep";
import { PanelFilmForm } from "@/ui/bench/panel-film-form";
import { PanelReadingForm } from "@/ui/bench/panel-reading-form";
import { dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { recordSentence } from "@/ui/kinds";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";

export async function generateMetadata({ params }: { params: Promise<{ number: string }> }): Promise<Metadata> {
  return { title: `Panel ${decodeURIComponent((await params).number)}` };
}

export default async function PanelPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const number = decodeURIComponent((await params).number);
  const panel = await loadPanel(database(), person, number);
  if (!panel) notFound();
  const [line, { units }] = await Promise.all([currentLine(person), preferences()]);
  const readings = panel.tests.flatMap((r) => r.details.panel_reading ?? []);
  const newest = readings.reduce<(typeof readings)[number] | null>((a, b) => (!a || b.hours >= a.hours ? b : a), null);
  const points = readings.flatMap((r) => (r.creep_mm === null ? [] : [{ hours: r.hours, creepMm: r.creep_mm }]));
  const over = newest !== null && newest.next_hours === null;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/test/panels">
              Test panels
            </Link>
          }
          title={`Panel ${panel.number}`}
        >
          {panel.due.map((d) => (
            <Verdict key={d.cabinet} result={d.dueAt <= line.at ? "watch" : "in"}>
              {d.dueAt <= line.at ? "to be read since " : "read next "}
              {dateAndTime(d.dueAt, line.timeZone)}
            </Verdict>
          ))}
        </PageHead>
        <p className="mt-3">
          {panel.metal.replaceAll("-", " ")}
          {panel.madeFrom ? `, ${panel.madeFrom}` : ""}
          {panel.hungAt ? `, hung ${panel.hungAt}` : ""}. Stands for{" "}
          {panel.racks.map((r, i) => (
            <span key={r}>
              {i > 0 && ", "}
              <Link className="link fig" href={`/racks/${encodeURIComponent(r)}/bench`}>
                rack {r}
              </Link>
            </span>
          ))}
          . {panel.note}
        </p>
        {points.length > 0 && (
          <section className="mt-4" aria-label="Creep over hours">
            <h2>Creep from the scribe</h2>
            <PanelCreep points={points} nextHours={newest?.next_hours ?? null} />
          </section>
        )}
        {may(person.role, "inspect") &&
          (over ? (
            <p className="mt-4 soft">It came out for good at {newest.hours} h.</p>
          ) : (
            <div className="mt-5">
              <PanelReadingForm
                key={newest?.hours ?? "first"}
                panel={panel.number}
                cabinet={newest?.cabinet === "humidity" ? "humidity" : "salt-spray"}
                had={newest?.hours ?? null}
                next={newest?.next_hours ?? null}
                scribeMm={readings.findLast((r) => r.scribe_mm !== null)?.scribe_mm ?? null}
              />
            </div>
          ))}
        {may(person.role, "inspect") && (
          <div className="mt-6">
            <PanelFilmForm panel={panel.number} />
          </div>
        )}
        <section className="ruled mt-6" aria-label="Done to it">
          <h2>Done to it</h2>
          {panel.tests.length === 0 && (
            <p className="soft">Nothing yet: choose it as “done on” where its rack is tested.</p>
          )}
          {panel.tests.map((r) => (
            <div key={r.base.id} className="row grid-cols-[minmax(0,170px)_minmax(0,1fr)_auto]">
              <span className="fig small">{dateAndTime(r.base.happened_at, line.timeZone)}</span>
              <span>{recordSentence(r.base.kind, r.details, { units, name: () => "", count: () => 0 })}</span>
              <span className="small faint">{r.by}</span>
            </div>
          ))}
        </section>
      </section>
      <Margin step="test">
        <MarginBlock title="On record">
          <p>
            {dateAndTime(panel.at, line.timeZone)}, {panel.by}
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
