import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { partLibrary } from "@/server/plan/part-library";
import { preferences } from "@/server/preferences";
import { siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime, plainly, sides, withUnit } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade } from "@/ui/marks/verdict";
import { featureName, substrateName } from "@/ui/words/plan";

export const metadata: Metadata = { title: "Parts" };

export default async function PartsPage() {
  const person = await personOnPage();
  const at = now();
  const [parts, site, { units }] = await Promise.all([
    partLibrary(database(), person, at),
    siteAt(database(), at),
    preferences(),
  ]);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/plan">
              Plan
            </Link>
          }
          title="Parts"
        >
          <span className="small soft">{parts.length} in the library, each with its versions</span>
          {may(person.role, "release") && (
            <Link className="btn" href="/plan/parts/new">
              Draw a new part
            </Link>
          )}
        </PageHead>
        <div className="ruled mt-4">
          {parts.length === 0 && (
            <p className="py-2">No part yet. Draw one here, or receive work and its parts stand here.</p>
          )}
          {parts.map((p) => (
            <Fold
              key={p.id}
              id={p.id}
              className="border-b border-rule"
              summaryClassName="list-none grid min-h-[52px] grid-cols-[minmax(0,1fr)_minmax(0,330px)_90px] items-center gap-3 max-[700px]:grid-cols-1 w-full"
              summary={
                <>
                  <span>
                    <b>{p.name}</b> <span className="soft">{substrateName[p.substrate]}</span>
                  </span>
                  <span className="soft">
                    {p.measures
                      ? `${sides(p.measures.box, units)}, ${plainly(p.measures.massKg, "mass", units)}, ${withUnit(p.measures.areaM2, "area", units, 1)}`
                      : "never measured"}{" "}
                    {p.measures && p.measures.assumed.length > 0 && <Grade grade="assumed" />}
                  </span>
                  <span className="num">{countOf(p.jobs, "job")}</span>
                </>
              }
            >
              <p className="m-0 soft">
                {p.features.map((f) => featureName[f]).join(", ") || "nothing special on it"};{" "}
                {countOf(p.spots, "spot")} on {countOf(p.faces, "face")}; {countOf(p.marks, "place")} marked
              </p>
              {may(person.role, "release") && (
                <Link className="btn my-2" href={`/plan/parts/${encodeURIComponent(p.code)}`}>
                  Measure or draw it anew
                </Link>
              )}
              {p.versions.map((one) => (
                <div key={one.id} className="row grid-cols-[minmax(0,1fr)_auto]">
                  <span>{one.reason}</span>
                  <span className="faint small">
                    {one.by}, {dateAndTime(one.from, site.timeZone)}
                  </span>
                </div>
              ))}
            </Fold>
          ))}
        </div>
      </section>
      <Margin step="plan">
        <MarginBlock title="Versions">
          <p>A part measured anew gets a new version. What was judged by the old one keeps it.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
