import type { Metadata } from "next";
import Link from "next/link";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { BathVerdict, SeriesChart, SeriesWords } from "@/ui/bath/bath-panel";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { StageRacks } from "@/ui/shift/stage-racks";
import { parameterName } from "@/ui/words/baths";

export const metadata: Metadata = { title: "Pretreat" };

export default async function PretreatPage() {
  const person = await personOnPage();
  const { units } = await preferences();
  const line = await currentLine(person);
  return (
    <>
      <section className="bench">
        <PageHead above="Baths and rinses, the next check first" title="Pretreat" />
        {[...line.baths]
          .sort((a, b) => (a.nextCheckBy?.getTime() ?? 0) - (b.nextCheckBy?.getTime() ?? 0))
          .map((file) => {
            const series = file.series.find((s) => s.points.at(-1)?.result === file.result) ?? file.series[0];
            return (
              <div key={file.bath.id} className="ruled mt-5">
                <div className="flex flex-wrap items-baseline justify-between gap-3">
                  <Link
                    className="link text-[17px] font-bold"
                    href={`/pretreat/${file.bath.code.toLowerCase().replace(" ", "-")}`}
                  >
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
                    <SeriesWords series={series} timeZone={line.timeZone} units={units} />
                  </>
                )}
              </div>
            );
          })}
      </section>
      <Margin step="pretreat">
        <MarginBlock title="In the washer">
          <StageRacks
            racks={line.racks.filter((r) => r.stage === "pretreat")}
            now={line.at}
            empty="No rack is in the washer."
          />
        </MarginBlock>
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
