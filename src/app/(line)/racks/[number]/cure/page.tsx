import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { channelsOf, judgeRack } from "@/server/rack/judge-rack";
import { loadRack, newest } from "@/server/rack/load-rack";
import { personOnPage } from "@/server/sign-in/person";
import { TraceChart } from "@/ui/charts/trace-chart";
import { clock, minutesSeconds, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { RackTabs } from "@/ui/rack/rack-tabs";
import { failureText } from "@/ui/words/failures";
import { bakeInShort, bakeReason } from "@/ui/words/reasons";

export const metadata: Metadata = { title: "Cure" };

export default async function CurePage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const { number } = await params;
  const rack = await loadRack(database(), person, number);
  if (!rack) notFound();
  const [line, { units }] = await Promise.all([currentLine(person), preferences()]);
  const item = judgeRack(rack, { passages: [], baths: [] }).items.find((i) => i.item === "cure");
  const bake = newest(rack, "bake");
  const row = bake?.details.bake?.[0];
  const verdict = item?.item === "cure" ? item.bake : null;
  const channels = channelsOf(bake?.details.bake_channel ?? []);
  const deciding = verdict?.channels.find((c) => c.name === verdict.decidingChannel);
  const powder = rack.powder.data;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              Rack {rack.number} · {rack.powder.code} {powder.name}
              {row ? ` · load ${row.load_no}, door closed ${clock(row.door_closed_at, line.timeZone)}` : ""}
            </>
          }
          title="Cure"
        >
          {item?.item === "cure" && (
            <Verdict result={item.result}>
              {verdict
                ? row?.pulled_at === null
                  ? `In oven, index ${verdict.decidingIndex.toFixed(0)}`
                  : bakeInShort(verdict, units).word
                : "Not known"}
            </Verdict>
          )}
          <div className="small soft">
            decided by {rack.job.requirement.cureDecidedBy === "index" ? "cure index" : "hold at metal temperature"}
          </div>
        </PageHead>
        <RackTabs number={rack.number} here="cure" />
        {!bake && (
          <p className="mt-6">
            No oven trace is on record for this rack. Import the recorder's file under Records, or record the load.
          </p>
        )}
        {item?.item === "cure" && item.failure && <p className="mt-6">{failureText(item.failure)}</p>}
        {verdict && (
          <>
            <div className="mt-4">
              <TraceChart
                units={units}
                points={powder.schedule}
                onsetC={verdict.onsetC}
                pullS={verdict.pullS}
                gaps={deciding?.gaps ?? []}
                crossings={(deciding?.holds ?? []).flatMap((h) => h.crossingsS.map((s) => ({ s, c: h.atC })))}
                channels={channels.map((c) => ({
                  name: c.name,
                  medium: c.medium,
                  timeS: c.trace.timeS,
                  tempC: c.trace.tempC,
                  index: verdict.channels.find((j) => j.name === c.name)?.index ?? 0,
                  deciding: c.name === verdict.decidingChannel,
                  dead: verdict.channels.find((j) => j.name === c.name)?.deadFromS !== null,
                }))}
              />
            </div>
            <div className="mt-4 grid grid-cols-2 gap-8 max-[820px]:grid-cols-1">
              <div className="ruled">
                <h2>How it stands</h2>
                {verdict.reasons.map((reason) => {
                  const said = bakeReason(reason, units);
                  return (
                    <div key={`${said.word}${said.text}`} className="row grid-cols-[110px_minmax(0,1fr)_auto]">
                      <Verdict result={said.result}>{said.word}</Verdict>
                      <span>{said.text}</span>
                      <span className="num">{said.figure}</span>
                    </div>
                  );
                })}
              </div>
              <div className="ruled">
                <h2>By channel</h2>
                <table className="w-full border-collapse text-[14px]">
                  <thead>
                    <tr className="small soft text-left">
                      <th className="py-1 font-normal">channel</th>
                      <th className="num font-normal">peak</th>
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
      </section>
      <Margin step="cure">
        <MarginBlock title="The sheet">
          {powder.schedule.map((p) => (
            <div key={p.metalC} className="row grid-cols-2">
              <span className="fig">{withUnit(p.metalC, "temperature", units)}</span>
              <span className="num">{p.minutes} min</span>
            </div>
          ))}
          <p className="small soft mt-1">
            Metal temperature. Over-bake:{" "}
            {powder.overbake
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
