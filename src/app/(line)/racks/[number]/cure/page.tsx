import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { gelState, judgeBake, ovenSlug, thinTrace, traceFaults } from "@/core/cure";
import { layersOf } from "@/server/cure/layers";
import { likeBakes } from "@/server/cure/like-bakes";
import { loadLoad } from "@/server/cure/open-load";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { channelsOfRack, cureItem, scheduleOf } from "@/server/rack/judge-rack";
import { loadRack, newest } from "@/server/rack/load-rack";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { BakesOver } from "@/ui/charts/bakes-over";
import { ScheduleCurve } from "@/ui/charts/schedule-curve";
import { TraceView } from "@/ui/charts/trace-view";
import { Climbed, ClimbLine } from "@/ui/cure/climb";
import { LayerRows } from "@/ui/cure/layer-rows";
import { LoadNeeds } from "@/ui/cure/load-needs";
import { clock, minutesSeconds, when, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { gelStateWords, traceFaultWords } from "@/ui/words/cure";
import { failureText } from "@/ui/words/failures";
import { bakeInShort, bakeReason } from "@/ui/words/reasons";

export const metadata: Metadata = { title: "Cure" };

const spanS = (from: Date, to: Date): number => (to.getTime() - from.getTime()) / 1000;

/** Of a trace of many hours so many columns go to the page, each with its extremes: a shift at a sample a second is one every seven. */
const SENT_COLUMNS = 4000;

export default async function CurePage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const [line, { units }] = await Promise.all([currentLine(person), preferences()]);
  const item = cureItem(rack);
  const bake = newest(rack, "bake");
  const row = bake?.details.bake?.[0];
  const channels = bake ? channelsOfRack(rack, bake) : [];
  // A primer that is only to gel is held against its gel; the rack's own cure is still to come.
  const gel = bake ? rack.bakeSheets.get(bake.base.id) : undefined;
  const schedule = gel?.schedule ?? scheduleOf(rack);
  const gelled = gel?.gel
    ? judgeBake(channels, schedule, { pullS: row?.pulled_at ? spanS(row.door_closed_at, row.pulled_at) : null })
    : null;
  const verdict = gelled?.ok ? gelled.value : item.bake;
  const gelWord = gelled?.ok ? gelStateWords[gelState(gelled.value)] : null;
  const deciding = verdict?.channels.find((c) => c.name === verdict.decidingChannel);
  const decidingTrace = channels.find((c) => c.name === verdict?.decidingChannel)?.trace ?? null;
  const powder = (gel?.powder ?? rack.powder).data;
  const faults = channels.length > 0 ? traceFaults(channels, schedule) : [];
  const ovens = await setupAt(database(), "oven", line.at);
  const oven = row ? ovens.get(row.oven_id) : undefined;
  const [load, alike] = await Promise.all([
    row && oven ? loadLoad(database(), person, ovenSlug(oven.code), row.load_no, line.at, row.door_closed_at) : null,
    likeBakes(database(), person, rack, line.at),
  ]);
  const layers = layersOf(rack);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.powder.code} {rack.powder.data.name}
              {row ? ` · load ${row.load_no}, door closed ${clock(row.door_closed_at, line.timeZone)}` : ""}
            </>
          }
          title="Cure"
        >
          <Verdict result={gelWord?.result ?? item.result}>
            {gelWord
              ? gelWord.word
              : verdict
                ? row?.pulled_at === null
                  ? `In oven, index ${verdict.decidingIndex.toFixed(0)}`
                  : bakeInShort(verdict, units).word
                : "Not known"}
          </Verdict>
          <div className="small soft">
            decided by {rack.job.requirement.cureDecidedBy === "index" ? "cure index" : "hold at metal temperature"}
          </div>
        </PageHead>
        <RackTabs number={rack.number} here="cure" standing={rack.standing} />
        {!bake && (
          <p className="mt-6">
            No oven trace is on record for this rack. Import the recorder's file under Records, or record the load.
          </p>
        )}
        {item.failure && <p className="mt-6">{failureText(item.failure)}</p>}
        {row && oven && (
          <p className="m-0 mt-3">
            <Link
              className="link"
              href={`/cure/loads/${ovenSlug(oven.code)}/${encodeURIComponent(row.load_no)}?closed=${row.door_closed_at.getTime()}`}
            >
              All of load {row.load_no}, what was noted of it and what it needed
            </Link>
          </p>
        )}
        {load?.pulledAt && channels.length === 0 && (
          <LoadNeeds
            measured={[]}
            inS={(load.pulledAt.getTime() - load.closedAt.getTime()) / 1000}
            air={{
              startC: load.airAtDoorC,
              tauS: load.oven.data.emptyTauS,
              program: load.program,
            }}
            plannedIndex={load.plannedIndex}
            holdToo={load.holdToo}
            pieces={load.racks
              .filter((r) => r.rack === rack.number)
              .map((r) => ({ id: r.rack, tauS: r.tauS, bandS: r.tauBandS, schedule: r.schedule }))}
            units={units}
          />
        )}
        {faults.map((f) => (
          <p key={f.kind + ("channel" in f ? f.channel : "")} className="mt-3 border-watch border-l-4 pl-3">
            {traceFaultWords(f, units)}
          </p>
        ))}
        {verdict && (
          <>
            <div className="mt-4">
              <TraceView
                units={units}
                points={schedule.points}
                onsetC={verdict.onsetC}
                pullS={verdict.pullS}
                gaps={deciding?.gaps ?? []}
                crossings={(deciding?.holds ?? []).flatMap((h) => h.crossingsS.map((s) => ({ s, c: h.atC })))}
                channels={channels.map((c) => ({
                  name: c.name,
                  medium: c.medium,
                  ...thinTrace(c.trace, SENT_COLUMNS),
                  index: verdict.channels.find((j) => j.name === c.name)?.index ?? 0,
                  deciding: c.name === verdict.decidingChannel,
                  dead: verdict.channels.find((j) => j.name === c.name)?.deadFromS !== null,
                }))}
              />
            </div>
            <div className="mt-4 grid grid-cols-[minmax(0,5fr)_minmax(0,7fr)] gap-6 max-[1100px]:grid-cols-1">
              <div className="ruled">
                <h2>How it stands</h2>
                {verdict.reasons.map((reason) => {
                  const said = bakeReason(reason, units);
                  return (
                    <div key={`${said.word}${said.text}`} className="row grid-cols-[92px_minmax(0,1fr)_auto]">
                      <Verdict result={said.result}>{said.word}</Verdict>
                      <span>{said.text}</span>
                      <span className="num">{said.figure}</span>
                    </div>
                  );
                })}
                <ClimbLine channels={channels} bounds={powder.climbCPerMin} units={units} />
              </div>
              <div className="ruled">
                <h2>By channel</h2>
                <table className="w-full border-collapse text-[14px]">
                  <thead>
                    <tr className="small soft text-left">
                      <th className="py-1 font-normal">channel</th>
                      <th className="num font-normal">peak</th>
                      <th className="num font-normal">climb, a min</th>
                      <th className="num font-normal">index</th>
                      <th className="num font-normal">over-bake</th>
                      <th className="num font-normal">best hold</th>
                    </tr>
                  </thead>
                  <tbody>
                    {verdict.channels.map((c) => {
                      const best = c.holds.reduce((a, b) => (b.longestS / b.neededS > a.longestS / a.neededS ? b : a));
                      return (
                        <tr key={c.name} className="border-t border-rule">
                          <td className="py-1.5">
                            <b className={c.name === verdict.decidingChannel ? "text-sorrel" : ""}>{c.name}</b>{" "}
                            <span className="faint small">
                              {c.medium}
                              {c.deadFromS !== null ? `, dead from ${minutesSeconds(c.deadFromS)}` : ""}
                            </span>
                          </td>
                          <td className="num">{withUnit(c.peakC, "temperature", units)}</td>
                          <td className="num">
                            <Climbed
                              channel={channels.find((x) => x.name === c.name) as (typeof channels)[number]}
                              bounds={powder.climbCPerMin}
                              units={units}
                            />
                          </td>
                          <td className="num">{c.index.toFixed(0)}</td>
                          <td className="num">{c.overbakeIndex === null ? "–" : c.overbakeIndex.toFixed(0)}</td>
                          <td className="num">
                            {(best.longestS / 60).toFixed(1)} of {best.neededS / 60} min
                          </td>
                        </tr>
                      );
                    })}
                  </tbody>
                </table>
              </div>
            </div>
          </>
        )}
        {(layers.length > 1 || layers.some((l) => l.gel !== null)) && <LayerRows layers={layers} />}
        {alike.length > 0 && (
          <div className="ruled mt-5">
            <h2>Other bakes of this part in this powder</h2>
            <BakesOver
              own={decidingTrace ? { name: rack.number, trace: decidingTrace } : null}
              others={alike.map((b) => ({ name: b.rack, trace: b.trace }))}
              sheetC={powder.schedule.map((p) => p.metalC)}
              units={units}
            />
            {alike.map((b) => (
              <Link
                key={b.recordId + b.rack}
                href={`/racks/${b.rack}/cure`}
                className="row min-h-11 grid-cols-[110px_64px_minmax(0,1fr)_110px_110px] items-center text-ink no-underline hover:bg-sorrel-tint max-[700px]:grid-cols-[110px_64px_minmax(0,1fr)]"
              >
                <span className="fig soft">{when(b.at, line.at, line.timeZone)}</span>
                <b className="fig">{b.rack}</b>
                <span className="soft">
                  load {b.load}, place {b.place}
                </span>
                <span className="num max-[700px]:hidden">
                  {b.minutes === null ? "–" : `${b.minutes.toFixed(0)} min`}
                </span>
                <span className="num">
                  index <b>{b.index.toFixed(0)}</b>
                </span>
              </Link>
            ))}
          </div>
        )}
      </section>
      <Margin step="cure">
        <MarginBlock title="The sheet">
          <ScheduleCurve schedule={schedule} units={units} />
          {gel?.gel && <p className="small soft mt-1">{gel.powder.code}: gelled only, before its top coat.</p>}
          {schedule.points.map((p) => (
            <div key={p.metalC} className="row grid-cols-2">
              <span className="fig">{withUnit(p.metalC, "temperature", units)}</span>
              <span className="num">{Math.round(10 * p.minutes) / 10} min</span>
            </div>
          ))}
          <p className="small soft mt-1">
            Metal temperature. Over-bake:{" "}
            {(schedule.overbake ?? [])
              .map((p) => `${withUnit(p.metalC, "temperature", units)} for ${p.minutes} min`)
              .join(", ") || "no limit on the sheet"}
            .
          </p>
        </MarginBlock>
        {row && (
          <MarginBlock title="How it was timed">
            <p>
              {row.timing.replaceAll("-", " ")}{" "}
              <Grade grade={row.timing === "metal-at-temperature" ? "measured" : "by-procedure"} />
            </p>
            <p className="small soft">{bake?.details.bake_place?.map((p) => `place ${p.place}`).join(", ")}</p>
          </MarginBlock>
        )}
        <MarginBlock title="What decides">
          <p>The live metal channel with the lowest index. Air and dead channels never decide; a gap adds nothing.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
