import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { ovenSlug } from "@/core/cure";
import { loadOvenFile } from "@/server/cure/oven-file";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { ForetoldChart } from "@/ui/charts/foretold-chart";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { OvenDrawing } from "@/ui/cure/oven-drawing";
import { OvenUpkeep } from "@/ui/cure/oven-upkeep";
import { SurveyForm } from "@/ui/cure/survey-form";
import { Fold } from "@/ui/fields/fold";
import { dateAndTime, dayMonth, plainly, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Verdict } from "@/ui/marks/verdict";
import { heatName } from "@/ui/words/cure";

export const metadata: Metadata = { title: "Oven" };

export default async function OvenPage({ params }: { params: Promise<{ oven: string }> }) {
  const person = await personOnPage();
  const { oven: slug } = await params;
  const line = await currentLine(person);
  const [file, { units }] = await Promise.all([loadOvenFile(database(), slug, line.at), preferences()]);
  if (!file) notFound();
  const { oven, learnt, surveys } = file;
  const newest = surveys[0];
  const compared = learnt.bakes.flatMap((b) =>
    b.foretoldS !== null && b.measuredS !== null
      ? [
          {
            foretoldS: b.foretoldS,
            measuredS: b.measuredS,
            // Whose rack it was is the shop's to know.
            label: `${ofTheShop(person) ? `load ${b.load}, rack ${b.rack}, ` : ""}${plainly(b.sectionMm, "size", units)}: foretold ${(b.foretoldS / 60).toFixed(1)} min, measured ${(b.measuredS / 60).toFixed(1)} min`,
          },
        ]
      : [],
  );
  return (
    <>
      <section className="bench">
        <PageHead above={`${oven.code} · ${heatName[oven.data.heat]}`} title={oven.data.name}>
          {newest ? (
            <Verdict result={newest.result}>
              spread {withUnit(newest.survey.spreadC, "temperatureDifference", units)}
            </Verdict>
          ) : (
            oven.data.type === "batch" && <Verdict result="unknown">Never surveyed</Verdict>
          )}
        </PageHead>
        <CureTabs here="ovens" />
        {oven.data.type === "batch" && (
          <div className="mt-3 grid grid-cols-[430px_minmax(0,1fr)] gap-8 max-[900px]:grid-cols-1">
            <div>
              <OvenDrawing
                places={oven.data.places}
                survey={newest?.survey ?? null}
                spreadMostC={oven.data.spreadMostC}
                inside={oven.data.insideMm}
                units={units}
              />
              <p className="small soft m-0">
                {units === "us" ? "°F" : "°C"} off the set point at the hold, newest survey. Places may differ by{" "}
                {withUnit(oven.data.spreadMostC, "temperatureDifference", units)}.
              </p>
            </div>
            <div className="ruled">
              <h2>Surveys</h2>
              {surveys.length === 0 && (
                <p className="soft">
                  None on record. Where it is cold is not known: put probes at the places and keep one.
                </p>
              )}
              {surveys.map((s) => (
                <div
                  key={s.recordId}
                  className="row grid-cols-[86px_minmax(0,1fr)_120px] items-center max-[700px]:grid-cols-[86px_minmax(0,1fr)]"
                >
                  <span className="fig">{dayMonth(s.at, line.timeZone)}</span>
                  <span>
                    coldest <b>{s.survey.coldest}</b>, hottest <b>{s.survey.hottest}</b>
                    {s.survey.recoveryS !== null && (
                      <span className="soft">, back {(s.survey.recoveryS / 60).toFixed(1)} min after the door</span>
                    )}
                  </span>
                  <Verdict result={s.result}>{withUnit(s.survey.spreadC, "temperatureDifference", units)}</Verdict>
                </div>
              ))}
            </div>
          </div>
        )}
        {oven.data.zones.length > 0 && (
          <div className="ruled mt-4">
            <h2>Zones in order of travel</h2>
            {oven.data.zones.map((z) => (
              <div key={z.name} className="row grid-cols-[150px_120px_120px_minmax(0,1fr)]">
                <b>{z.name}</b>
                <span className="num">{withUnit(z.lengthM, "length", units)}</span>
                <span className="num">{withUnit(z.airC, "temperature", units)}</span>
                <span className="soft">{z.heat === "infrared" ? "infrared, counted as hot air" : "hot air"}</span>
              </div>
            ))}
            <Link className="link min-h-11 content-center" href="/cure/conveyor">
              What speed for which part
            </Link>
          </div>
        )}
        {oven.data.type === "batch" && (
          <div className="mt-6 grid grid-cols-[minmax(0,1fr)_310px] gap-8 max-[900px]:grid-cols-1">
            <div className="ruled">
              <h2>What its bakes taught</h2>
              <table className="w-full border-collapse text-[14px]">
                <thead>
                  <tr className="small soft text-left">
                    <th className="py-1 font-normal">section</th>
                    <th className="num font-normal">heat transfer</th>
                    <th className="num font-normal">mean within</th>
                    <th className="num font-normal">next bake within</th>
                    <th className="num font-normal">bakes</th>
                    <th className="font-normal" />
                  </tr>
                </thead>
                <tbody>
                  {learnt.sections.map(({ section, learnt: l }) => (
                    <tr key={section} className="border-t border-rule">
                      <td className="py-1.5">{section}</td>
                      <td className="num">
                        <b>{l.hWPerM2K.toFixed(1)}</b> W/(m² K)
                      </td>
                      <td className="num">
                        {l.interval ? `${l.interval[0].toFixed(1)}–${l.interval[1].toFixed(1)}` : "–"}
                      </td>
                      <td className="num">
                        {l.band[0].toFixed(1)}–{l.band[1].toFixed(1)}
                      </td>
                      <td className="num">{l.bakes}</td>
                      <td className="pl-3">
                        <Grade grade={l.grade} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <p className="small soft">
                From bakes with a probe on the rack; until five of a section are on record the usual figure stands.
              </p>
            </div>
            <div>
              <h2>Kept honest</h2>
              {compared.length > 0 && learnt.within5Percent ? (
                <>
                  <ForetoldChart points={compared} />
                  <p className="m-0">
                    <b className="fig">
                      {learnt.within5Percent.within} of {learnt.within5Percent.of}
                    </b>{" "}
                    within 5 %, each foretold from the bakes before it.
                  </p>
                </>
              ) : (
                <p className="soft">No bake with a probe to compare yet.</p>
              )}
            </div>
          </div>
        )}
        {may(person.role, "inspect") && oven.data.type === "batch" && (
          <Fold className="mt-6" summary="Keep a survey">
            <SurveyForm oven={oven.code} setPointC={oven.data.usualSetPointC} />
          </Fold>
        )}
      </section>
      <Margin step="cure">
        <OvenUpkeep files={line.upkeep} now={line.at} timeZone={line.timeZone} />
        <MarginBlock title="As it is set up">
          <p>
            {oven.data.type === "batch" && (
              <>
                Its air follows with {(oven.data.emptyTauS / 60).toFixed(1)} min empty,{" "}
                {(oven.data.fullTauS / 60).toFixed(1)} min with {withUnit(oven.data.fullKgSteel, "mass", units)} of
                steel in it. Losing {oven.data.idleKw} kW while it is shut.{" "}
              </>
            )}
            {oven.data.habits}
          </p>
          <p className="small soft">
            Version of {dateAndTime(oven.validFrom, line.timeZone)}.{" "}
            {may(person.role, "release") && (
              <Link className="link" href={`/cure/ovens/${ovenSlug(oven.code)}/set-up`}>
                Change it
              </Link>
            )}
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
