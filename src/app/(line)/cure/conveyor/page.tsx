import type { Metadata } from "next";
import { forPerson } from "@/db/queries/for-person";
import { heatsAs, metalOf } from "@/server/cure/metal-of";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { scheduleOfPowder, setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { ConveyorPlanner } from "@/ui/cure/conveyor-planner";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";

export const metadata: Metadata = { title: "Conveyor oven" };

export default async function ConveyorPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const db = database();
  const [ovens, parts, powders, site] = await Promise.all([
    setupAt(db, "oven", line.at),
    setupAt(db, "part", line.at),
    setupAt(db, "powder", line.at),
    siteAt(db, line.at),
  ]);
  // Each part that is on order, in the powder of its newest job.
  const jobs = await db
    .selectFrom("job")
    .select(["part_id", "powder_id"])
    .distinctOn("part_id")
    .where(forPerson(person, "customer_id"))
    .orderBy("part_id")
    .orderBy("number", "desc")
    .execute();
  const work = jobs.flatMap((j) => {
    const part = parts.get(j.part_id);
    const powder = powders.get(j.powder_id);
    return part && powder
      ? [
          {
            id: part.code,
            what: part.data.name,
            metal: metalOf[part.data.substrate],
            sectionMm: heatsAs(part.data).plateMm,
            hollow: heatsAs(part.data).hollow,
            schedule: scheduleOfPowder(powder.data),
          },
        ]
      : [];
  });
  return (
    <>
      <section className="bench">
        <PageHead above="Cure: zones, speed, and what a stop does" title="Conveyor oven" />
        <CureTabs here="conveyor" />
        <ConveyorPlanner
          ovens={[...ovens.values()]
            .filter((o) => o.data.type === "conveyor" && o.data.zones.length > 0)
            .map((o) => ({
              code: o.code,
              name: o.data.name,
              zones: o.data.zones,
              usualSpeedMPerMin: o.data.usualSpeedMPerMin,
              pitchM: o.data.pitchM,
            }))}
          work={work.slice(0, 24)}
          plannedIndex={site.plannedIndex}
        />
      </section>
      <Margin step="cure">
        <MarginBlock title="How it is worked out">
          <p>
            Each zone is steady air with its own heat transfer; an infrared zone counts as hot air, set from a logger
            run. The index falls as the line goes faster, so the band’s two ends are where the heaviest is just cured
            and the lightest just not over-baked.
          </p>
        </MarginBlock>
        <MarginBlock title="What it leaves out">
          <p>
            Colour and shape change how infrared heats. Prove a new part once with a logger before its speed is trusted{" "}
            <span className="soft">(assumed until then)</span>.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
