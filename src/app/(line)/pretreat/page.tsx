import type { Metadata } from "next";
import { bathSlug } from "@/core/bath";
import { readinessByHour, washReadiness } from "@/server/baths/wash-readiness";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { recentDryOffs } from "@/server/line/dry-offs";
import { loadLineStops } from "@/server/line/line-stops";
import { preferences } from "@/server/preferences";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { BathVerdict, checkOverdue, ReadyNow, SeriesChart, SeriesWords } from "@/ui/bath/bath-panel";
import { DryOffsSection } from "@/ui/bath/dry-offs";
import { LineStopForm } from "@/ui/bath/line-stop-form";
import { LineStops } from "@/ui/bath/line-stops";
import { ReadinessChart } from "@/ui/bath/readiness-chart";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade } from "@/ui/marks/verdict";
import { StageRacks } from "@/ui/shift/stage-racks";
import { NoneSetUp } from "@/ui/shop/none-set-up";
import { UpkeepHere } from "@/ui/upkeep/upkeep-here";
import { bathValue, parameterName } from "@/ui/words/baths";

export const metadata: Metadata = { title: "Pretreat" };

export default async function PretreatPage() {
  const person = await personOnPage();
  const { units } = await preferences();
  const line = await currentLine(person);
  const [dryOffs, stops, lines] = await Promise.all([
    recentDryOffs(database(), person, line.at),
    loadLineStops(database(), person, line.at),
    setupAt(database(), "line", line.at),
  ]);
  const upkeep = line.upkeep.filter((u) => u.item.data.stage === "pretreat");
  const ready = washReadiness(line.baths, line.at);
  return (
    <>
      <section className="bench">
        <PageHead above="Baths and rinses, the next check first" title="Pretreat">
          <span className="flex flex-wrap items-center gap-4">
            <span>
              <ReadyNow index={ready.index} overdue={line.baths.filter((b) => checkOverdue(b, line.at)).length} />{" "}
              <Grade grade={ready.grade} />
            </span>
            {may(person.role, "log-line") && (
              <Link className="btn pri" href="/pretreat/round">
                Take the round
              </Link>
            )}
          </span>
        </PageHead>
        {ready.limiting && (
          <p className="m-0 mt-2">
            Held down by <b>{ready.limiting.bath}</b>, {parameterName[ready.limiting.parameter]}{" "}
            <b className="fig">{bathValue(ready.limiting.parameter, ready.limiting.value, units)}</b>
            {ready.unknown.length > 0 && (
              <span className="soft">; {ready.unknown.length} values never checked do not count</span>
            )}
          </p>
        )}
        {line.baths.length === 0 ? (
          <NoneSetUp what="bath" href="/pretreat/set-up" className="mt-2" />
        ) : (
          <div className="mt-2">
            <ReadinessChart hours={readinessByHour(line.baths, line.at)} timeZone={line.timeZone} />
          </div>
        )}
        {[...line.baths]
          .sort((a, b) => (a.nextCheckBy?.getTime() ?? 0) - (b.nextCheckBy?.getTime() ?? 0))
          .map((file) => {
            const series = file.series.find((s) => s.points.at(-1)?.result === file.result) ?? file.series[0];
            return (
              <div key={file.bath.id} className="ruled mt-5">
                <div className="flex flex-wrap items-baseline justify-between gap-3">
                  <Link className="link text-[17px] font-bold" href={`/pretreat/${bathSlug(file.bath.code)}`}>
                    {file.bath.data.name}
                  </Link>
                  <BathVerdict file={file} now={line.at} timeZone={line.timeZone} />
                </div>
                {series && (
                  <>
                    <h2 className="mt-2">{parameterName[series.parameter]}</h2>
                    <SeriesChart
                      series={series}
                      file={file}
                      now={line.at}
                      timeZone={line.timeZone}
                      units={units}
                      width={820}
                    />
                    <SeriesWords series={series} now={line.at} timeZone={line.timeZone} units={units} />
                  </>
                )}
              </div>
            );
          })}
        <section className="ruled mt-6" aria-label="Out of the dry-off">
          <h2>Out of the dry-off, and how humid the hall was</h2>
          <div className="mt-1">
            <DryOffsSection dryOffs={dryOffs} now={line.at} timeZone={line.timeZone} />
          </div>
        </section>
        <section className="ruled mt-6" aria-label="Line stops">
          <h2>Line stops, and what stood in the line</h2>
          <div className="mt-1">
            <LineStops stops={stops} now={line.at} timeZone={line.timeZone} mayLog={may(person.role, "log-line")} />
          </div>
        </section>
      </section>
      <Margin step="pretreat">
        <MarginBlock title="In the washer">
          <StageRacks
            racks={line.racks.filter((r) => r.stage === "pretreat")}
            now={line.at}
            empty="No rack is in the washer."
          />
        </MarginBlock>
        {may(person.role, "log-line") && (
          <MarginBlock title="The line stood">
            <LineStopForm lines={[...lines.values()].map((l) => l.code)} />
          </MarginBlock>
        )}
        {may(person.role, "release") && (
          <MarginBlock title="The wash">
            <p>
              <Link className="link" href="/pretreat/set-up">
                Tanks, windows and what is done when one is out
              </Link>
            </p>
          </MarginBlock>
        )}
        {upkeep.length > 0 && (
          <MarginBlock title="Upkeep">
            <UpkeepHere files={upkeep} now={line.at} timeZone={line.timeZone} />
          </MarginBlock>
        )}
        <MarginBlock title="By entry line">
          <p className="fig small">
            tank 3 ph 5.1 at 48C titr 8.4
            <br />
            tank 4 cond 62
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
