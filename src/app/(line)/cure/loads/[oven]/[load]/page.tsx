import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { infraredDoubt, infraredReading, ovenSlug } from "@/core/cure";
import { sectionReadingsOf } from "@/server/bake/section-readings";
import { loadLoad } from "@/server/cure/open-load";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { BakeEventForm, LampLoad } from "@/ui/cure/later";
import { LiveLoad } from "@/ui/cure/live-load";
import { LoadNoted } from "@/ui/cure/load-noted";
import { OvenDrawing } from "@/ui/cure/oven-drawing";
import { PulledLoad } from "@/ui/cure/pulled-load";
import { TouchedWhere } from "@/ui/cure/touched-where";
import { clock, minutesSeconds, when, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade } from "@/ui/marks/verdict";
import { sectionWords } from "@/ui/words/cure";

export const metadata: Metadata = { title: "Load" };

export default async function LoadPage({
  params,
  searchParams,
}: {
  params: Promise<{ oven: string; load: string }>;
  searchParams: Promise<{ closed?: string | string[] }>;
}) {
  const person = await personOnPage();
  const [{ oven, load }, { closed }] = await Promise.all([params, searchParams]);
  const closedMs = typeof closed === "string" && /^\d{1,15}$/.test(closed) ? Number(closed) : null;
  const line = await currentLine(person);
  const [file, { units }] = await Promise.all([
    loadLoad(
      database(),
      person,
      oven,
      decodeURIComponent(load),
      line.at,
      closedMs === null ? null : new Date(closedMs),
    ),
    preferences(),
  ]);
  if (!file) notFound();
  const mayLog = may(person.role, "log-line");
  // What cools slowest is read first: when it is cool, the others are.
  const slowestFirst = [...file.racks].sort((a, b) => b.sectionMm - a.sectionMm).map((r) => r.rack);
  const plugsIn = file.racks.reduce<number | null>(
    (sum, r) => (r.plugsIn === null ? sum : (sum ?? 0) + r.plugsIn),
    null,
  );
  const relied = file.events.filter((e) => {
    if (e.event !== "infrared" || e.valueC === null) return false;
    const doubt = infraredDoubt(infraredReading(e));
    return doubt.ok && doubt.value === null;
  });
  const newest = relied.at(-1);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              <Link className="link" href={`/cure/ovens/${ovenSlug(file.oven.code)}`}>
                {file.oven.data.name}
              </Link>{" "}
              · {file.sections ? "begun" : `set to ${withUnit(file.setPointC, "temperature", units)} · door closed`}{" "}
              {when(file.closedAt, line.at, line.timeZone)}, timed {file.timing.replaceAll("-", " ")}
            </>
          }
          title={`Load ${file.loadNo}`}
        >
          {file.pulledAt && (
            <span className="soft">
              pulled {clock(file.pulledAt, line.timeZone)}, in for{" "}
              {minutesSeconds((file.pulledAt.getTime() - file.closedAt.getTime()) / 1000)}
            </span>
          )}
        </PageHead>
        {file.pulledAt === null && file.sections ? (
          <LampLoad
            recordId={file.recordId}
            oven={file.oven.code}
            load={file.loadNo}
            rack={file.racks[0]?.rack ?? ""}
            closedAtMs={file.closedAt.getTime()}
            sections={file.sections}
            readings={sectionReadingsOf(file.events, file.sections)}
            schedule={file.racks[0]?.schedule ?? { points: [] }}
            plannedIndex={file.plannedIndex}
            units={units}
            mayLog={mayLog}
          />
        ) : file.pulledAt === null ? (
          <LiveLoad
            recordId={file.recordId}
            oven={file.oven.code}
            load={file.loadNo}
            plugsIn={plugsIn}
            closedAtMs={file.closedAt.getTime()}
            program={file.program}
            air={{ startC: file.airAtDoorC, tauS: file.oven.data.emptyTauS }}
            timing={file.timing}
            racks={file.racks.map((r) => ({
              rack: r.rack,
              part: r.part,
              place: r.place,
              placeOffC: r.placeOffC,
              channel: r.channel,
              sectionMm: r.sectionMm,
              tauS: r.tauS,
              tauBandS: r.tauBandS,
              learntFrom: r.learnt.bakes,
              lumpedHolds: r.lumpedHolds,
              schedule: r.schedule,
              gel: r.gel,
            }))}
            events={file.events.map(({ event, atS }) => ({ event, atS }))}
            infrared={newest?.valueC != null ? { atS: newest.atS, metalC: newest.valueC } : null}
            stored={file.channels}
            plannedIndex={file.plannedIndex}
            holdToo={file.holdToo}
            timeZone={line.timeZone}
            units={units}
            mayLog={mayLog}
          />
        ) : (
          <PulledLoad file={file} units={units} />
        )}
        {mayLog && file.pulledAt === null && !file.sections && (
          <div className="no-print mt-4">
            <TouchedWhere
              oven={file.oven.code}
              load={file.loadNo}
              racks={file.racks.map((r) => ({ rack: r.rack, faces: r.faces }))}
            />
          </div>
        )}
        {mayLog && file.pulledAt !== null && (
          <div className="ruled no-print mt-6">
            <h2>As it cools</h2>
            <p className="soft m-0">
              Cool in still air at room temperature; take down and pack under{" "}
              {withUnit(file.handleBelowC, "temperature", units)} of the metal, and read film near room temperature.
            </p>
            <div className="mt-2">
              <BakeEventForm oven={file.oven.code} load={file.loadNo} plugsIn={plugsIn} pulled racks={slowestFirst} />
            </div>
          </div>
        )}
      </section>
      <Margin step="cure">
        <LoadNoted file={file} units={units} timeZone={line.timeZone} />
        {file.oven.data.places.length > 0 && (
          <MarginBlock title="Where it hangs">
            <OvenDrawing
              places={file.oven.data.places}
              survey={null}
              racks={file.racks.map((r) => ({ rack: r.rack, place: r.place }))}
              spreadMostC={file.oven.data.spreadMostC}
              inside={null}
              units={units}
            />
          </MarginBlock>
        )}
        {file.sections && (
          <MarginBlock title="Under lamps">
            <p>
              Read each section every two minutes, on the coated metal. Between readings no more than five minutes apart
              its heat counts; across a longer wait it does not.
            </p>
            <p className="caution mt-2">
              Lamps burn and dazzle: nothing that burns near them, nobody alone with them, eyes and hands away.
            </p>
          </MarginBlock>
        )}
        {!file.sections && (
          <MarginBlock title="What is known of its heat">
            {file.racks.map((r) => (
              <p key={r.rack} className="m-0 mt-1">
                <b className="fig">{r.rack}</b> {r.metal.replaceAll("-", " ")}, {sectionWords(r, units)}: time constant{" "}
                <b className="fig">{(r.tauS / 60).toFixed(1)} min</b>{" "}
                <span className="soft">
                  ({(r.tauBandS[0] / 60).toFixed(1)}–{(r.tauBandS[1] / 60).toFixed(1)}) from {r.learnt.bakes} bakes
                </span>{" "}
                <Grade grade={r.learnt.grade} />
                {!r.lumpedHolds && (
                  <span className="text-watch"> too thick to be of one temperature: its core lags.</span>
                )}
              </p>
            ))}
          </MarginBlock>
        )}
      </Margin>
    </>
  );
}
