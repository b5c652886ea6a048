import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import {
  doorOpenS,
  gelState,
  infraredDoubt,
  infraredHold,
  judgeBake,
  ovenSlug,
  ownChannels,
  traceFaults,
} from "@/core/cure";
import { type LoadFile, loadLoad } from "@/server/cure/open-load";
import { sectionReadingsOf } from "@/server/cure/section-readings";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { BakeEventForm } from "@/ui/cure/bake-event-form";
import { LampLoad } from "@/ui/cure/lamp-load";
import { LiveLoad } from "@/ui/cure/live-load";
import { LoadNeeds } from "@/ui/cure/load-needs";
import { OvenDrawing } from "@/ui/cure/oven-drawing";
import { clock, minutesSeconds, when, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { aimName, bakeEventName, doubtWords, gelStateWords, traceFaultWords } from "@/ui/words/cure";
import { failureText } from "@/ui/words/failures";
import { bakeInShort } from "@/ui/words/reasons";

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
  const plugsIn = file.racks.reduce<number | null>(
    (sum, r) => (r.plugsIn === null ? sum : (sum ?? 0) + r.plugsIn),
    null,
  );
  const relied = file.events.filter((e) => {
    if (e.event !== "infrared" || e.valueC === null) return false;
    const doubt = infraredDoubt(readingOf(e));
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
            air={{ startC: file.oven.data.airAtDoorC, tauS: file.oven.data.emptyTauS }}
            racks={file.racks.map((r) => ({
              rack: r.rack,
              part: r.part,
              place: r.place,
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
        {mayLog && file.pulledAt !== null && (
          <div className="ruled no-print mt-6">
            <h2>As it cools</h2>
            <p className="soft m-0">
              Cool in still air at room temperature; take down and pack under{" "}
              {withUnit(file.handleBelowC, "temperature", units)} of the metal, and read film near room temperature.
            </p>
            <div className="mt-2">
              <BakeEventForm oven={file.oven.code} load={file.loadNo} plugsIn={plugsIn} pulled />
            </div>
          </div>
        )}
      </section>
      <Margin step="cure">
        <MarginBlock title="Noted of this load">
          {file.events.length === 0 && <p className="soft">Nothing yet. The melt, the door and readings go here.</p>}
          {file.events.map((e) => (
            <div key={e.recordId} className="row grid-cols-[52px_minmax(0,1fr)]">
              <span className="fig soft">{clock(e.at, line.timeZone)}</span>
              <span>
                {bakeEventName[e.event]}
                {e.valueC !== null && (
                  <>
                    {" "}
                    <b className="fig">{withUnit(e.valueC, "temperature", units)}</b>
                  </>
                )}
                {e.section && <> {e.section}</>}
                {e.aim && <span className="soft"> on {aimName[e.aim as keyof typeof aimName]}</span>}
                {e.count !== null && (
                  <span className={e.asked !== null && e.count !== e.asked ? "text-out" : "text-in"}>
                    {" "}
                    {e.count}
                    {e.asked !== null && ` of ${e.asked} in`}
                  </span>
                )}{" "}
                {e.event === "infrared" && <DoubtOf event={e} />}
                {e.event === "cool" && e.valueC !== null && (
                  <Verdict result={e.valueC <= file.handleBelowC ? "in" : "watch"}>
                    {e.valueC <= file.handleBelowC ? "May be taken down" : "Still too warm"}
                  </Verdict>
                )}
              </span>
            </div>
          ))}
          <InfraredProof file={file} units={units} />
          <MeltBeside file={file} />
        </MarginBlock>
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
        <MarginBlock title="What is known of its heat">
          {file.racks.map((r) => (
            <p key={r.rack} className="m-0 mt-1">
              <b className="fig">{r.rack}</b> {r.metal.replaceAll("-", " ")}, {r.sectionMm} mm: time constant{" "}
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
      </Margin>
    </>
  );
}

/** Minutes at heat that the door took: while it stood open, and until the oven was back each time. */
function lostToDoor(file: LoadFile, inS: number): number {
  const opened = file.events.filter((e) => e.event === "door-opened").length;
  return Math.min(inS, doorOpenS(file.events, 0, inS) + opened * (file.recoveryS ?? 0));
}

type Noted = LoadFile["events"][number];
const readingOf = (e: Noted) => ({
  atS: e.atS,
  metalC: e.valueC ?? 0,
  emissivity: e.emissivity ?? 0.95,
  aim: (e.aim ?? "coated-part") as "coated-part",
});

function DoubtOf({ event }: { event: Noted }) {
  const doubt = infraredDoubt(readingOf(event));
  return doubt.ok && doubt.value ? <span className="small text-watch">{doubtWords[doubt.value]}</span> : null;
}

/** The melt beside what is usual for the section: late says the oven or the load is not as usual. */
function MeltBeside({ file }: { file: LoadFile }) {
  const melt = file.events.find((e) => e.event === "melted");
  const usual = file.usualMelt;
  if (!melt) return null;
  if (!usual)
    return <p className="small soft mt-2">No three loads of like sections with a melt on record to compare with.</p>;
  const far = Math.abs(melt.atS - usual.meanS) > 2 * usual.sdS;
  return (
    <p className="mt-2">
      Melted after <b className="fig">{(melt.atS / 60).toFixed(1)} min</b>; usual for the section{" "}
      {(usual.meanS / 60).toFixed(1)} ± {(usual.sdS / 60).toFixed(1)} min ({usual.loads} loads){" "}
      {far && <Verdict result="watch">{melt.atS > usual.meanS ? "Late" : "Early"}</Verdict>}
    </p>
  );
}

/** What the spot readings alone would prove. */
function InfraredProof({ file, units }: { file: LoadFile; units: "metric" | "us" }) {
  const readings = file.events.filter((e) => e.event === "infrared" && e.valueC !== null).map(readingOf);
  if (readings.length < 2) return null;
  const lowest = Math.min(...file.racks.flatMap((r) => r.schedule.points.map((p) => p.metalC)));
  const hold = infraredHold(readings, lowest);
  if (!hold.ok) return <p className="small text-watch">{failureText(hold.error)}</p>;
  return (
    <p className="mt-2">
      By these readings alone <b className="fig">{minutesSeconds(hold.value.longestS)}</b> at{" "}
      {withUnit(lowest, "temperature", units)} or over, from {hold.value.used} relied on{" "}
      <Grade grade={hold.value.grade} />
    </p>
  );
}

/** Each section of a piece under lamps with its index; null where it was not read. */
function verdicts(file: LoadFile): { name: string; index: number | null }[] {
  const rack = file.racks[0];
  const judged =
    rack && file.channels.length > 0 ? judgeBake(file.channels, rack.schedule, { sections: file.sections }) : null;
  return (file.sections ?? []).map((name) => ({
    name,
    index: judged?.ok ? (judged.value.channels.find((c) => c.name === name)?.index ?? null) : null,
  }));
}

/** A load that was pulled: how each rack's cure stands, what is wrong with its channels, and what it would have needed. */
function PulledLoad({ file, units }: { file: LoadFile; units: "metric" | "us" }) {
  const inS = ((file.pulledAt?.getTime() ?? 0) - file.closedAt.getTime()) / 1000;
  const faults = file.channels.length > 0 ? traceFaults(file.channels, file.racks[0]?.schedule ?? null) : [];
  return (
    <>
      <div className="ruled mt-3">
        {file.racks.map((r) => {
          const verdict =
            file.channels.length > 0
              ? judgeBake(ownChannels(file.channels, r.rack, r.channel, file.racksInLoad), r.schedule, {
                  pullS: inS,
                  sections: file.sections,
                })
              : null;
          return (
            <Link
              key={r.rack}
              href={`/racks/${r.rack}/cure`}
              className="row min-h-[52px] grid-cols-[64px_minmax(0,1fr)_220px_170px] items-center text-ink no-underline hover:bg-sorrel-tint max-[820px]:grid-cols-[64px_minmax(0,1fr)]"
            >
              <b className="fig text-[17px]">{r.rack}</b>
              <span>
                <b>{r.part}</b>{" "}
                <span className="soft">
                  place {r.place}
                  {r.gel && `, ${r.powder} to gel`}
                </span>
              </span>
              <span className="num">
                {verdict?.ok ? (
                  <>
                    index <b>{verdict.value.decidingIndex.toFixed(0)}</b> on {verdict.value.decidingChannel}
                  </>
                ) : (
                  "no trace"
                )}
              </span>
              {verdict?.ok ? (
                <Verdict result={r.gel ? gelStateWords[gelState(verdict.value)].result : verdict.value.result}>
                  {r.gel ? gelStateWords[gelState(verdict.value)].word : bakeInShort(verdict.value, units).word}
                </Verdict>
              ) : (
                <Verdict result="unknown">By procedure</Verdict>
              )}
            </Link>
          );
        })}
      </div>
      {faults.map((f) => (
        <p key={f.kind + ("channel" in f ? f.channel : "")} className="mt-2 border-watch border-l-4 pl-3">
          {traceFaultWords(f, units)}
        </p>
      ))}
      {file.sections &&
        verdicts(file).map((s) => (
          <div key={s.name} className="row grid-cols-[minmax(0,1fr)_130px_170px] items-center">
            <b>{s.name}</b>
            <span className="num">
              {s.index === null ? (
                "not read"
              ) : (
                <>
                  index <b>{s.index.toFixed(0)}</b>
                </>
              )}
            </span>
            <Verdict result={s.index === null ? "unknown" : s.index >= 100 ? "in" : "out"}>
              {s.index === null ? "Not known" : s.index >= 100 ? "Cured" : "Short"}
            </Verdict>
          </div>
        ))}
      {!file.sections && (
        <LoadNeeds
          measured={file.channels.map((c) => ({ ...c }))}
          inS={inS}
          air={{
            startC: file.oven.data.airAtDoorC,
            tauS: file.oven.data.emptyTauS,
            program: file.program,
          }}
          plannedIndex={file.plannedIndex}
          holdToo={file.holdToo}
          lostS={lostToDoor(file, inS)}
          pieces={file.racks.map((r) => ({ id: r.rack, tauS: r.tauS, bandS: r.tauBandS, schedule: r.schedule }))}
          units={units}
        />
      )}
    </>
  );
}
