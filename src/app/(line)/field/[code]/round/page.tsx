import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { loadStructure } from "@/server/field/load-structure";
import { roundOf } from "@/server/field/round-of";
import { zonesOf } from "@/server/field/zones-of";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { CaptureForm } from "@/ui/field/capture-form";
import { dayMonthYear } from "@/ui/format";
import { PhotoForm } from "@/ui/forms/photo-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { zoneFound, zonePlace } from "@/ui/words/field-zones";
import { attachPhoto } from "../../../actions";

export const metadata: Metadata = { title: "Round" };

/** A structure walked zone by zone, for one thumb: what was there last, what is there now, and on to the next. */
export default async function RoundPage({
  params,
  searchParams,
}: {
  params: Promise<{ code: string }>;
  searchParams: Promise<{ zone?: string }>;
}) {
  const person = await personOnPage("inspect");
  const line = await currentLine(person);
  const s = await loadStructure(database(), person, (await params).code, line.at);
  if (!s) notFound();
  const { units } = await preferences();
  const zones = await zonesOf(database(), s.id, s.since);
  const round = roundOf(zones, person, line.at);
  const base = `/field/${s.code.toLowerCase()}`;
  const at = (zone: string) => `${base}/round?zone=${encodeURIComponent(zone)}`;
  const asked = (await searchParams).zone;
  const zone = zones.find((z) => z.name === asked) ?? zones.find((z) => !round.done.has(z.name)) ?? null;
  const after = zone
    ? [...zones.slice(zones.indexOf(zone) + 1), ...zones].find((z) => z !== zone && !round.done.has(z.name))
    : undefined;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href={base}>
              {s.name}
            </Link>
          }
          title={zone ? zone.name : "Round"}
        >
          <div className="small soft">
            {round.done.size} of {zones.length} zones done
          </div>
        </PageHead>
        {zones.length === 0 && (
          <p className="mt-3">
            No zone is on record.{" "}
            <Link className="link" href={base}>
              Put its zones on record first
            </Link>
            : edges, seams, feet, a sheltered place to compare with.
          </p>
        )}
        <nav aria-label="Zones" className="mt-3 flex flex-wrap gap-2">
          {zones.map((z) => (
            <Link
              key={z.name}
              href={at(z.name)}
              aria-current={z === zone ? "page" : undefined}
              className={`btn ${z === zone ? "pri" : ""}`}
            >
              {z.name} <b className="fig">{round.done.has(z.name) ? "✓" : "–"}</b>
            </Link>
          ))}
        </nav>
        {zone ? (
          <div className="mt-4 max-w-[560px]">
            <p className="m-0">
              {zonePlace(zone)}.{" "}
              <span className="soft">Last: {zoneFound(zone, units, (m) => dayMonthYear(m, line.timeZone))}.</span>
            </p>
            <div className="mt-3">
              <CaptureForm
                key={`${zone.name} ${round.id}`}
                structure={s.code}
                zone={zone.name}
                round={round.id}
                seamMm={zone.lengthMm}
                next={after ? at(after.name) : base}
                attach={attachPhoto}
              />
            </div>
            <div className="mt-5">
              <PhotoForm
                of={{ structure: s.code }}
                zone={zone.name}
                attach={attachPhoto}
                title={`Photo of ${zone.name}`}
              />
            </div>
          </div>
        ) : (
          zones.length > 0 && (
            <p className="mt-4">
              Every zone is done.{" "}
              <Link className="link" href={base}>
                See how it stands
              </Link>
            </p>
          )
        )}
      </section>
      <Margin step="field">
        <MarginBlock title="On site">
          <p>
            Measure creep at six places or more along a scribe, or from a chip’s edge. Lift a flake and look at its
            back. Ladders, traffic, water: go with somebody, and leave what is out of reach.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
