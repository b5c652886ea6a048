import type { Metadata } from "next";
import { ovenSlug } from "@/core/cure";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { OvenUpkeep } from "@/ui/cure/oven-upkeep";
import { withUnit } from "@/ui/format";
import { Margin } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { NoneSetUp } from "@/ui/shop/none-set-up";
import { heatName } from "@/ui/words/cure";

export const metadata: Metadata = { title: "Ovens" };

export default async function OvensPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const [ovens, { units }] = await Promise.all([setupAt(database(), "oven", line.at), preferences()]);
  return (
    <>
      <section className="bench">
        <PageHead above="Cure" title="Ovens" />
        <CureTabs here="ovens" />
        <div className="ruled mt-3">
          {ovens.size === 0 && <NoneSetUp what="oven" href="/cure/ovens/new/set-up" />}
          {[...ovens.values()].map((o) => (
            <Link
              key={o.id}
              href={`/cure/ovens/${ovenSlug(o.code)}`}
              className="row min-h-[52px] grid-cols-[90px_minmax(0,1fr)_150px_170px] items-center text-ink no-underline hover:bg-sorrel-tint max-[700px]:grid-cols-[90px_minmax(0,1fr)]"
            >
              <b>{o.code}</b>
              <span>{o.data.name}</span>
              <span className="soft">{heatName[o.data.heat]}</span>
              <span className="num">
                {o.data.type === "conveyor"
                  ? `${o.data.zones.length} zones, ${o.data.zones.reduce((sum, z) => sum + z.lengthM, 0)} m`
                  : o.data.type === "lamps"
                    ? "section by section"
                    : `set to ${withUnit(o.data.usualSetPointC, "temperature", units)}`}
              </span>
            </Link>
          ))}
        </div>
        {may(person.role, "release") && (
          <p className="mt-3">
            <Link className="link min-h-11 content-center" href="/cure/ovens/new/set-up">
              Set up another oven
            </Link>
          </p>
        )}
      </section>
      <Margin step="cure">
        <OvenUpkeep files={line.upkeep} now={line.at} timeZone={line.timeZone} />
      </Margin>
    </>
  );
}
