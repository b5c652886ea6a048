import type { Metadata } from "next";
import { database } from "@/server/database";
import { gaugeChecks, readingsInQuestion } from "@/server/film/gauge-checks";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { countOf, dateAndTime, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { List } from "@/ui/lists/list";
import { Verdict } from "@/ui/marks/verdict";
import { NoneSetUp } from "@/ui/shop/none-set-up";
import { GaugeCheckForm } from "@/ui/thickness/gauge-check-form";

export const metadata: Metadata = { title: "Film gauges and their shims" };

const columns = [
  { key: "at", head: "at", width: "minmax(0,170px)", look: "fig small" },
  { key: "result", head: "result", width: "110px" },
  { key: "shims", head: "shims", width: "minmax(0,1fr)", wide: true, look: "fig small" },
  { key: "by", head: "by", width: "70px", wide: true, look: "small faint" },
];

export default async function GaugesPage() {
  const person = await personOnPage("inspect");
  const at = now();
  const [instruments, site, { units }] = await Promise.all([
    setupAt(database(), "instrument", at),
    siteAt(database(), at),
    preferences(),
  ]);
  const gauges = await Promise.all(
    [...instruments.values()]
      .filter((i) => i.data.kind === "film-gauge")
      .map(async (gauge) => {
        const checks = await gaugeChecks(database(), gauge.id, at, 12);
        return { gauge, checks, doubted: await readingsInQuestion(database(), gauge.id, checks) };
      }),
  );
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/test">
              Test
            </Link>
          }
          title="Film gauges and their shims"
        />
        {gauges.length === 0 && <NoneSetUp what="film gauge" href="/shop/instruments" />}
        {gauges.map(({ gauge, checks, doubted }) => {
          const [newest] = checks;
          return (
            <section key={gauge.id} className="ruled mt-4" aria-label={gauge.data.name}>
              <div className="flex flex-wrap items-baseline justify-between gap-3">
                <h2>
                  {gauge.data.name}, serial {gauge.data.serial}
                </h2>
                <Verdict result={!newest ? "unknown" : newest.holds ? "in" : "out"}>
                  {!newest ? "never checked on record" : newest.holds ? "holds" : "failed its shims"}
                </Verdict>
              </div>
              {doubted.length > 0 && (
                <div role="status" className="mt-2 border-out border-l-4 pl-3">
                  <p className="m-0">
                    <b>
                      {countOf(
                        doubted.reduce((n, d) => n + d.readings, 0),
                        "reading",
                      )}{" "}
                      on {countOf(new Set(doubted.map((d) => d.rack)).size, "rack")} in question
                    </b>
                    : read since the last good check. Set the gauge right, check it, and read these again:
                  </p>
                  <p className="m-0 mt-1 flex flex-wrap gap-x-3">
                    {doubted.slice(0, 40).map((d) => (
                      <Link
                        key={d.recordId}
                        className="link fig inline-flex min-h-11 items-center"
                        href={`/racks/${d.rack}/thickness`}
                      >
                        {d.rack}
                      </Link>
                    ))}
                    {doubted.length > 40 && <span className="soft">and {doubted.length - 40} more</span>}
                  </p>
                </div>
              )}
              {may(person.role, "inspect") && (
                <div className="mt-2">
                  <GaugeCheckForm
                    key={newest?.recordId ?? "first"}
                    gauge={gauge.code}
                    tolerance={site.gaugeTolerance}
                    shims={(newest?.shims ?? []).map((s) => ({
                      certifiedUm: s.certifiedUm,
                      toleranceUm: s.toleranceUm,
                    }))}
                  />
                </div>
              )}
              <h3 className="mt-4 mb-0">On record</h3>
              <List
                name={`Checks of ${gauge.data.name}`}
                empty="No check yet. Read a certified shim with it, and what it reads is judged from then on."
                heads={false}
                columns={columns}
                rows={checks.map((c) => {
                  const shims = c.shims
                    .map(
                      (s) =>
                        `${withUnit(s.certifiedUm, "thickness", units)} read ${withUnit(s.meanUm, "thickness", units)}`,
                    )
                    .join("; ");
                  return {
                    key: c.recordId,
                    cells: {
                      at: dateAndTime(c.at, site.timeZone),
                      result: <Verdict result={c.holds ? "in" : "out"}>{c.holds ? "holds" : "fails"}</Verdict>,
                      shims: [shims, c.note].filter(Boolean).join(" · "),
                    },
                    values: { at: c.at.toISOString(), result: c.holds ? "holds" : "fails", shims, by: c.by },
                  };
                })}
              />
            </section>
          );
        })}
      </section>
      <Margin step="test">
        <MarginBlock title="When a shim fails">
          <p className="small">
            A shim holds where its mean reading lies within the root of the gauge’s and the shim’s tolerance squared
            (this site: {site.gaugeTolerance.um} µm and {site.gaugeTolerance.percent} % of the reading). Every reading
            since the last good check is then in question, and stays so until it is read again.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
