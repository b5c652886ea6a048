import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { type AgeingGroup, ageingGroups } from "@/server/field/ageing";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";
import { AgeingChart } from "@/ui/field/ageing-chart";
import { Fold } from "@/ui/fields/fold";
import { countOf, percent } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { wearName } from "@/ui/words/field-zones";
import { systemText } from "@/ui/words/plan";

export const metadata: Metadata = { title: "How long it stands" };

const systemOf = (g: AgeingGroup): string => ("told" in g.system ? g.system.told : systemText(g.system.planned));

/** How long coatings keep the metal, by system and by what wears them: this shop's own evidence. */
export default async function AgeingPage() {
  const person = await personOnPage();
  // It goes over all customers' work.
  if (!ofTheShop(person)) notFound();
  const groups = await ageingGroups(database());
  const years = Math.max(1, ...groups.map((g) => Math.ceil(g.curve.longestYears)));
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/field">
              Field
            </Link>
          }
          title="How long it stands"
        />
        {groups.length === 0 && (
          <p className="ruled mt-3 py-3">
            Nothing is followed yet: visit structures of which it is known since when they stand and with what they are
            coated.
          </p>
        )}
        {groups.map((g) => (
          <section key={`${systemOf(g)} ${g.wear}`} className="ruled mt-5">
            <h2>
              {wearName[g.wear]}: {systemOf(g)}
            </h2>
            <div className="grid grid-cols-[minmax(0,440px)_minmax(0,1fr)] gap-6 max-[900px]:grid-cols-1">
              <AgeingChart curve={g.curve} followed={g.structures} years={years} />
              <div>
                <p className="m-0">
                  <b className="fig">{g.curve.n}</b> followed, <b className="fig">{g.curve.failed}</b> failed somewhere,{" "}
                  <b className="fig">{g.curve.censored}</b> stood when they were seen last.
                </p>
                <p className="m-0 mt-1">
                  {g.curve.medianYears === null
                    ? `More than half stand after ${g.curve.longestYears.toFixed(1)} years, the longest any was followed.`
                    : `Half have failed somewhere after ${g.curve.medianYears.toFixed(1)} years.`}
                </p>
                {(g.curve.steps.at(-1)?.stands ?? 0) > 0 && (
                  <p className="small soft m-0 mt-1">
                    {percent(g.curve.steps.at(-1)?.stands ?? 1)} stand at the end, 95 times in 100 between{" "}
                    {percent(g.curve.steps.at(-1)?.interval[0] ?? 1)} and{" "}
                    {percent(g.curve.steps.at(-1)?.interval[1] ?? 1)}.
                  </p>
                )}
                {g.curve.n < 5 && <p className="small m-0 mt-1">So few say little yet.</p>}
                {g.beyond.length > 0 && (
                  <p className="m-0 mt-2">
                    <Verdict result="watch">Promised for longer than the evidence</Verdict>{" "}
                    {g.beyond.map((b, i) => (
                      <span key={b.code}>
                        {i > 0 && ", "}
                        <Link className="link fig" href={`/field/${b.code.toLowerCase()}`}>
                          {b.code}
                        </Link>{" "}
                        ({b.promisedYears} years)
                      </span>
                    ))}
                  </p>
                )}
                <Fold summary={countOf(g.structures.length, "structure")} summaryClassName="min-h-11">
                  {g.structures.map((s) => (
                    <Link
                      key={s.code}
                      className="row min-h-11 grid-cols-[minmax(0,1fr)_auto] items-center text-ink no-underline hover:bg-sorrel-tint"
                      href={`/field/${s.code.toLowerCase()}`}
                    >
                      <span>
                        <b className="fig">{s.code}</b> {s.name}
                      </span>
                      <Verdict result={s.failed ? "out" : "in"}>
                        {s.failed ? "failed by" : "stood at"} {s.years.toFixed(1)} years
                      </Verdict>
                    </Link>
                  ))}
                </Fold>
              </div>
            </div>
          </section>
        ))}
      </section>
      <Margin step="field">
        <MarginBlock title="How it is counted">
          <p className="small">
            Every structure is followed from when it was put up until the visit at which a zone no longer kept the
            metal, or until it was seen last (Kaplan–Meier; the band is 95 % by Greenwood). A ring is one that stood
            when it was seen last. A failure is dated to the visit that found it, so a curve stands a little late.
            Fading and chalk are not in it.
          </p>
          <p className="small">
            Structures are not dealt out by lot: what stands by the sea is made otherwise than what stands inland. Ask
            what else differs before one system is called better.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
