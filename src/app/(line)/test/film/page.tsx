import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { filmTrends, trendGroups } from "@/server/film/film-trends";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop, seesCost, seesPainters } from "@/server/sign-in/roles";
import { FilmGroups } from "@/ui/charts/film-groups";
import { SubgroupChart } from "@/ui/charts/subgroup-chart";
import { Fold } from "@/ui/fields/fold";
import { countOf, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { TrendFilter } from "@/ui/thickness/trend-filter";
import { money } from "@/ui/words/plan";

export const metadata: Metadata = { title: "Film over time" };

const spans = [7, 30, 90, 365] as const;
const groupName = {
  painter: "By painter",
  gun: "By gun",
  part: "By part",
  face: "By face",
  "oven-place": "By place in the oven",
  hour: "By hour read",
} as const;
/** Ppk from here on is usually asked for; under 1 some of the film is out. */
const PPK_ASKED = 1.33;

/** A share as so many of a hundred, or of a thousand where it is small. */
const inHundred = (share: number): string =>
  share < 0.01
    ? `${countOf(Math.max(1, Math.round(1000 * share)), "spot")} in 1,000`
    : `${countOf(Math.round(100 * share), "spot")} in 100`;

export default async function FilmTrendsPage({
  searchParams,
}: {
  searchParams: Promise<{ days?: string; powder?: string; part?: string }>;
}) {
  const person = await personOnPage();
  // Trends go over all customers' work.
  if (!ofTheShop(person)) notFound();
  const asked = await searchParams;
  const at = now();
  const [powders, parts, site, { units }] = await Promise.all([
    setupAt(database(), "powder", at),
    setupAt(database(), "part", at),
    siteAt(database(), at),
    preferences(),
  ]);
  const days = spans.find((s) => String(s) === asked.days) ?? 30;
  const powder = [...powders.values()].find((p) => p.code === asked.powder) ?? null;
  const part = [...parts.values()].find((p) => p.code === asked.part) ?? null;
  const trends = await filmTrends(database(), person, at, {
    days,
    powderId: powder?.id ?? null,
    partId: part?.id ?? null,
  });
  const means = trends.rows.flatMap((r) => [
    r.summary.mean - (r.summary.sampleSd ?? 0),
    r.summary.mean + (r.summary.sampleSd ?? 0),
  ]);
  const ends = [...means, ...(trends.limits ? [trends.limits.minUm, trends.limits.maxUm] : [])];
  const domain: [number, number] = ends.length > 0 ? [Math.min(...ends) - 2, Math.max(...ends) + 2] : [0, 1];
  const { capability, over } = trends;
  const film = (um: number) => withUnit(um, "thickness", units);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/test">
              Test
            </Link>
          }
          title="Film over time"
        >
          <span className="small soft">
            {countOf(trends.sets, "rack")}, {trends.readings.toLocaleString("en-GB")} readings in {countOf(days, "day")}
          </span>
        </PageHead>
        <TrendFilter
          days={days}
          powder={powder?.code ?? null}
          part={part?.code ?? null}
          spans={spans}
          powders={[...powders.values()].map((x) => ({ code: x.code, name: x.data.name }))}
          parts={[...parts.values()].map((x) => ({ code: x.code, name: x.data.name }))}
        />
        {trends.all === null ? (
          <p className="ruled mt-3 py-3">
            No film was read in this span. Choose a longer one, or another powder or part.
          </p>
        ) : (
          <>
            <div className="ruled mt-3 flex flex-wrap items-baseline gap-x-8 gap-y-2">
              <span>
                <span className="small soft block">film, on the mean of the racks</span>
                <b className="fig text-[28px]">{film(trends.all.mean)}</b>
              </span>
              {capability && trends.limits ? (
                <p className="m-0 max-w-[420px]">
                  <Verdict result={capability.ppkInterval[1] < 1 ? "out" : capability.ppk < PPK_ASKED ? "watch" : "in"}>
                    {capability.shareBelow === null || capability.shareBelow < 0.0005
                      ? `Hardly a spot comes out under ${film(trends.limits.minUm)}`
                      : `About ${inHundred(capability.shareBelow)} come out under ${film(trends.limits.minUm)}`}
                  </Verdict>{" "}
                  <span className="soft">if the work goes on as it went in this span.</span>
                </p>
              ) : (
                <span className="soft">
                  {powder
                    ? "Too few spots to say how many of the next would be thin (25 wanted)."
                    : "Choose a powder: each has a range of its own to be held against."}
                </span>
              )}
              {over && seesCost(person) && (
                <span>
                  <span className="small soft block">
                    laid on above {film(over.targetUm)}, {withUnit(over.areaM2, "area", units)} coated
                  </span>
                  <b className="fig text-[28px]">{withUnit(over.kg, "mass", units)}</b>
                  {over.money !== null && <span className="fig"> {money(over.money, site.rates?.currency ?? "")}</span>}
                </span>
              )}
            </div>
            <Fold summary="How sure that is">
              {trends.all.interval && (
                <p className="m-0">
                  The mean lies between <b className="fig">{film(trends.all.interval[0])}</b> and{" "}
                  <b className="fig">{film(trends.all.interval[1])}</b>, 95 times in 100.
                </p>
              )}
              {trends.all.sdBetween !== null && trends.all.sdWithin !== null && (
                <p className="m-0">
                  Racks differ by {film(trends.all.sdBetween)}, spots of one rack by {film(trends.all.sdWithin)}{" "}
                  (standard deviations).
                </p>
              )}
              {capability && trends.limits && (
                <p className="m-0">
                  Ppk <b className="fig">{capability.ppk.toFixed(2)}</b>, 95 % between{" "}
                  {capability.ppkInterval[0].toFixed(2)} and {capability.ppkInterval[1].toFixed(2)}, against{" "}
                  {film(trends.limits.minUm)} to{" "}
                  {trends.limits.maxUm === null ? "no upper limit" : film(trends.limits.maxUm)}; {PPK_ASKED} asked.
                </p>
              )}
            </Fold>
            {trends.chart && (
              <section className="ruled mt-5" aria-label="Rack by rack">
                <h2>
                  Rack by rack, {countOf(trends.chart.chart.size, "spot")} of face {trends.chart.face} each
                </h2>
                <SubgroupChart chart={trends.chart.chart} names={trends.chart.racks} units={units} />
              </section>
            )}
            {trendGroups.map((group) => {
              const rows = trends.rows.filter((r) => r.group === group);
              if (rows.length === 0) return null;
              return (
                <section key={group} className="ruled mt-5" aria-label={groupName[group]}>
                  <h2>{group === "painter" && !seesPainters(person) ? "What you coated" : groupName[group]}</h2>
                  <FilmGroups
                    label={groupName[group]}
                    rows={rows.map((r) => ({
                      name: group === "hour" ? `${r.name}:00` : r.name,
                      racks: r.racks,
                      meanUm: r.summary.mean,
                      sdUm: r.summary.sampleSd,
                      interval: r.summary.interval,
                    }))}
                    domain={domain}
                    limits={trends.limits}
                    units={units}
                  />
                </section>
              );
            })}
          </>
        )}
      </section>
      <Margin step="test">
        <MarginBlock title="How to read it">
          <p className="small">
            The stroke is the mean of the racks, the bar its 95 % interval, the line one standard deviation of a spot;
            the shade is the range of the powder’s sheet. Spots of one rack are alike, so it is racks that tell the
            mean: one alone has no interval. Groups differ where their bars stand apart: a difference is no cause. Spots
            count, not single readings; over-build is powder above the middle of the range, transfer taken from the
            shop’s rates.
          </p>
        </MarginBlock>
        <MarginBlock title="Elsewhere">
          <p>
            <Link className="link" href="/test/gauges">
              Film gauges and their shims
            </Link>
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
