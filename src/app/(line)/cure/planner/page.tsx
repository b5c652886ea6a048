import type { Metadata } from "next";
import { sectionClasses } from "@/core/cure";
import { learnOven } from "@/server/cure/learn-oven";
import { racksToBake } from "@/server/cure/open-load";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { racksToCure } from "@/server/line/show-racks";
import { scheduleOfPowder, setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { LoadPlanner } from "@/ui/cure/load-planner";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";

export const metadata: Metadata = { title: "Load planner" };

export default async function PlannerPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const db = database();
  const [ovens, powders, site] = await Promise.all([
    setupAt(db, "oven", line.at),
    setupAt(db, "powder", line.at),
    siteAt(db, line.at),
  ]);
  const batch = [...ovens.values()].filter((o) => o.data.type === "batch");
  const waiting = (await racksToCure(database(), person, line.at)).map((r) => r.number);
  const [learnt, racks] = await Promise.all([
    Promise.all(batch.map(async (oven) => ({ oven, learnt: await learnOven(db, oven, line.at) }))),
    batch[0] ? racksToBake(db, person, waiting, batch[0], line.at) : [],
  ]);
  return (
    <>
      <section className="bench">
        <PageHead above="Cure: mixed masses in one oven" title="Load planner" />
        <CureTabs here="planner" />
        <LoadPlanner
          ovens={learnt.map(({ oven: o, learnt: own }) => ({
            code: o.code,
            usualSetPointC: o.data.usualSetPointC,
            mostSetPointC: o.data.mostSetPointC,
            airAtDoorC: o.data.airAtDoorC,
            emptyTauS: o.data.emptyTauS,
            fullTauS: o.data.fullTauS,
            fullKgSteel: o.data.fullKgSteel,
            idleKw: o.data.idleKw,
            efficiency: o.data.efficiency,
            learnt: [false, true].flatMap((hollow) =>
              sectionClasses.map((c) => {
                const mostMm = Math.min(c.mostMm, 1e6);
                const { hWPerM2K, band, bakes, grade } = own.forSection(mostMm, hollow);
                return { mostMm, hollow, hWPerM2K, band, bakes, grade };
              }),
            ),
          }))}
          racks={racks.map((r) => ({
            id: r.rack,
            what: r.part,
            metal: r.metal,
            sectionMm: r.sectionMm,
            hollow: r.hollow,
            massKg: r.massKg,
            powder: r.powder,
            schedule: r.schedule,
            rack: r.rack,
          }))}
          powders={[...powders.values()].map((p) => ({
            name: `${p.code} ${p.data.name}`,
            schedule: scheduleOfPowder(p.data),
          }))}
          plannedIndex={site.plannedIndex}
          holdToo={site.planHoldToo}
        />
      </section>
      <Margin step="cure">
        <MarginBlock title="How it is worked out">
          <p>
            Each piece warms as one lump toward the air; the air goes to its set point the slower the more metal hangs
            in it. Cure counts up to the pull, over-bake with the cooling after it. Cured is planned as index{" "}
            {site.plannedIndex}
            {site.planHoldToo && ", and a hold of the sheet met"}.
          </p>
          <p className="mt-2">
            What this oven does to each section is learnt from its bakes with a probe; until five are on record the
            usual figure stands and the plan says so.
          </p>
        </MarginBlock>
        <MarginBlock title="Heavy pieces">
          <p>
            A heavy piece can go in first, warm, or alone. Type its metal temperature under “in at” to see what
            preheating wins.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
