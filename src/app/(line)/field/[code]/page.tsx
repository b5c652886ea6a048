import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { loadKnowledge } from "@/core/diagnosis";
import { type EvidenceGrade, worstResult } from "@/core/verdict";
import { database } from "@/server/database";
import { ageingGroups } from "@/server/field/ageing";
import { loadStructure } from "@/server/field/load-structure";
import { madeDays } from "@/server/field/made-day";
import { roundsOf } from "@/server/field/round-of";
import { sitePlanOf } from "@/server/field/site-plan";
import { factOf, type StructureFact } from "@/server/field/structure-facts";
import { zonesOf } from "@/server/field/zones-of";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { StartCase } from "@/ui/causes/start-case";
import { CreepChart } from "@/ui/field/creep-chart";
import { FactForm } from "@/ui/field/fact-form";
import { MadeDays } from "@/ui/field/made-day";
import { VisitForm } from "@/ui/field/visit-form";
import { ZoneForm } from "@/ui/field/zone-form";
import { ZoneList } from "@/ui/field/zone-list";
import { countOf, dateAndTime, span } from "@/ui/format";
import { DefectForm } from "@/ui/forms/defect-form";
import { PhotoForm } from "@/ui/forms/photo-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Grade, Shape, Verdict } from "@/ui/marks/verdict";
import { Photos } from "@/ui/plan/photos";
import { attachPhoto, startCase } from "../../actions";

export const metadata: Metadata = { title: "Structure" };

/** Structures of the same site that are named; the plan has all. */
const MOST_BESIDE = 6;
const YEAR_MS = 365.25 * 86_400_000;

export default async function StructurePage({ params }: { params: Promise<{ code: string }> }) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const s = await loadStructure(database(), person, (await params).code, line.at);
  if (!s) notFound();
  const { units } = await preferences();
  const [zones, fact] = await Promise.all([zonesOf(database(), s.id, s.since), factOf(database(), s.id)]);
  const protection = worstResult(zones.map((z) => z.verdict.protection).filter((r) => r !== "unknown"));
  const appearance = worstResult(zones.map((z) => z.verdict.appearance).filter((r) => r !== "unknown"));
  const looked = (side: "protection" | "appearance") => zones.filter((z) => z.verdict[side] !== "unknown").length;
  const rounds = roundsOf(zones);
  // They are other customers' structures as well.
  const sisters = ofTheShop(person)
    ? (await ageingGroups(database())).find((g) => g.structures.some((x) => x.code === s.code))
    : undefined;
  const alike = new Set(sisters?.structures.map((x) => x.code));
  const beside = ((await sitePlanOf(database(), person, s.code))?.structures ?? []).filter(
    (x) => x.code !== s.code && !alike.has(x.code),
  );
  const said = { in: "good", watch: "to watch", out: "failed somewhere", unknown: "not looked at" } as const;
  const racks = [...new Set(s.pieces.map((p) => p.number))];
  const days = await madeDays(database(), person, racks, line.at);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {s.customer} ·{" "}
              <Link className="link" href={`/field/${s.code.toLowerCase()}/site`}>
                {s.site}
              </Link>{" "}
              ·{" "}
              {s.pieces.length === 0 ? (
                <Told fact={fact} />
              ) : (
                <>
                  {countOf(s.pieces.length, "piece")} from rack{" "}
                  {racks.map((r) => (
                    <Link key={r} className="link fig" href={`/racks/${r}`}>
                      {r}
                    </Link>
                  ))}
                </>
              )}
              {s.coatedOn && <>, coated {span(line.at.getTime() - s.coatedOn.getTime())} ago</>}
            </>
          }
          title={s.name}
        >
          {(
            [
              ["protection", "Protection", protection],
              ["appearance", "Appearance", appearance],
            ] as const
          ).map(([side, name, result]) => (
            <div key={side}>
              <Verdict result={looked(side) === 0 ? "unknown" : result}>
                {name}: {looked(side) === 0 ? "not looked at" : said[result]}
                {result === "in" && looked(side) > 0 && looked(side) < zones.length ? " where it was looked at" : ""}
              </Verdict>
              <span className="small soft">
                {" "}
                {looked(side)} of {zones.length} zones
              </span>
            </div>
          ))}
        </PageHead>
        <section className="mt-4" aria-label="Zones">
          <div className="flex flex-wrap items-center justify-between gap-3">
            <h2 className="m-0">Zones</h2>
            {may(person.role, "inspect") && zones.length > 0 && (
              <a className="btn pri no-print" href={`/round#${encodeURIComponent(s.code)}`}>
                Walk the round
              </a>
            )}
          </div>
          {zones.length === 0 ? (
            <p className="soft">
              No zone is on record yet: edges, seams, feet, where it is wet, and a sheltered place to compare with.
            </p>
          ) : (
            <ZoneList zones={zones} timeZone={line.timeZone} units={units} />
          )}
          <p className="small soft mt-1">
            Creep after ISO 4628-8 and ASTM D1654, rust 4628-3, blisters 4628-2, flaking 4628-5, tape ISO 2409. The
            worst of what was looked at stands; what was not looked at is not good. A rate is told from ninety days on,
            with the range that the readings leave.
          </p>
          {may(person.role, "inspect") && <ZoneForm structure={s.code} next={zones.length + 1} />}
        </section>
        {s.zones.some((z) => z.now.widthsMm.length > 0) && (
          <div className="mt-5 max-w-[420px]">
            <CreepChart
              zones={s.zones
                .filter((z) => z.now.widthsMm.length > 0)
                .map((z) => ({ zone: z.zone, widthsMm: z.now.widthsMm, meanMm: z.now.creepMm }))}
              units={units}
            />
          </div>
        )}
        {days.length > 0 && <MadeDays days={days} timeZone={line.timeZone} units={units} />}
        {s.pieces.length === 0 && (
          <p className="ruled mt-6 pt-3">
            <b>The day it was coated:</b> no record here. It was coated elsewhere, or before this record began; what is
            told of it stands above, with how that is known.
          </p>
        )}
        {s.cases.length > 0 && (
          <p className="mt-4">
            {s.cases.map((c) => (
              <Link key={c.number} className="btn mr-3" href={`/causes/${c.number}`}>
                Case {c.number}: {c.defect.replaceAll("-", " ")}
              </Link>
            ))}
          </p>
        )}
        {may(person.role, "inspect") && (
          <div className="mt-6 grid gap-7">
            <FactForm structure={s.code} known={fact} ours={s.pieces.length > 0} />
            <VisitForm structure={s.code} />
            <DefectForm
              on={{ structure: s.code }}
              defects={[...loadKnowledge().defects.values()].map(({ id, label, plain }) => ({ id, label, plain }))}
            />
            <PhotoForm of={{ structure: s.code }} attach={attachPhoto} />
          </div>
        )}
        {s.photos.length > 0 && (
          <Photos
            photos={s.photos.flatMap((p) =>
              p.file_id ? [{ id: p.file_id, caption: p.caption, when: dateAndTime(p.happened_at, line.timeZone) }] : [],
            )}
          />
        )}
      </section>
      <Margin step="field">
        <MarginBlock title="Where it lives">
          <p>
            {s.exposure.join(", ").replaceAll("-", " ")}
            {s.put_up_on ? `; put up ${s.put_up_on}` : ""}
            {fact?.road_m != null && `; ${fact.road_m} m to a salted road`}
            {fact?.salt_m != null && `; ${fact.salt_m} m to salt water`}
            {fact?.water_m != null && `; ${fact.water_m} m to standing water`}
            {fact?.latitude != null && fact.longitude != null && `; at ${fact.latitude}, ${fact.longitude}`}
          </p>
          {fact?.promised_years != null && (
            <p>
              Promised: {fact.promised_years} years.{" "}
              {zones.some((z) => z.verdict.protection === "out") && (
                <Verdict result="out">
                  It failed somewhere
                  {s.since ? ` by ${((line.at.getTime() - s.since.getTime()) / YEAR_MS).toFixed(1)} years` : ""}
                </Verdict>
              )}
            </p>
          )}
        </MarginBlock>
        {s.offered.length > 0 && (
          <MarginBlock title="Offered when it was made">
            {s.offered.map((o) => (
              <div key={`${o.job}${o.what}`} className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>
                  {o.what}
                  <span className="small soft block">
                    {o.risk}
                    {o.by ? `; ${o.by}, ${o.on}` : ""}
                  </span>
                </span>
                <Verdict result={o.state === "taken" ? "in" : o.state === "declined" ? "watch" : "unknown"}>
                  {o.state}
                </Verdict>
              </div>
            ))}
          </MarginBlock>
        )}
        {sisters && sisters.structures.length > 1 && (
          <MarginBlock title="The same system, standing the same way">
            <p className="m-0">
              {sisters.curve.failed} of {sisters.curve.n} have failed somewhere
              {sisters.curve.medianYears === null
                ? `; more than half stand after ${sisters.curve.longestYears.toFixed(1)} years.`
                : `; half by ${sisters.curve.medianYears.toFixed(1)} years.`}
            </p>
            {sisters.structures
              .filter((x) => x.code !== s.code)
              .map((x) => (
                <Link
                  key={x.code}
                  className="link mr-3 inline-flex min-h-11 items-center"
                  href={`/field/${x.code.toLowerCase()}`}
                >
                  {x.name} <Shape result={x.failed ? "out" : "in"} /> {x.years.toFixed(1)} y
                </Link>
              ))}
            <p className="m-0">
              <Link className="btn" href="/field/ageing">
                All systems
              </Link>
            </p>
          </MarginBlock>
        )}
        {beside.length > 0 && (
          <MarginBlock title={sisters ? "Beside it, coated otherwise" : "Beside it"}>
            {beside.slice(0, MOST_BESIDE).map((x) => (
              <Link
                key={x.code}
                className="link mr-3 inline-flex min-h-11 items-center gap-1.5"
                href={`/field/${x.code.toLowerCase()}`}
              >
                {x.name} <Shape result={x.trouble ? "out" : x.looked ? "in" : "unknown"} />
              </Link>
            ))}
            <p className="m-0">
              <Link className="btn" href={`/field/${s.code.toLowerCase()}/site`}>
                Plan of {s.site}
              </Link>
            </p>
          </MarginBlock>
        )}
        <MarginBlock title="On paper">
          <p className="m-0">
            <a
              className="link inline-flex min-h-11 items-center"
              href={`/api/structures/${encodeURIComponent(s.code)}/report.pdf`}
            >
              Report for its owner, PDF
            </a>
            <br />
            <a
              className="link inline-flex min-h-11 items-center"
              href={`/api/labels.pdf?of=structure&number=${encodeURIComponent(s.code)}`}
            >
              Codes for it and its zones, PDF
            </a>
            <br />
            <span className="small soft">How it stands, what is known of why, what to do.</span>
          </p>
        </MarginBlock>
        <MarginBlock title="Visits">
          {s.visits.length + rounds.length === 0 && <p className="soft">None yet.</p>}
          {rounds.map((r) => (
            <div key={`${r.at.getTime()} ${r.by}`} className="row">
              <span>
                <b>{dateAndTime(r.at, line.timeZone)}</b>, {r.by}, {countOf(r.zones, "zone")}
              </span>
            </div>
          ))}
          {s.visits.map((v) => (
            <div key={v.id} className="row">
              <span>
                <b>{dateAndTime(v.happened_at, line.timeZone)}</b>, {v.by_user}
                {v.weather ? `, ${v.weather}` : ""}
                <br />
                {v.note}
              </span>
            </div>
          ))}
        </MarginBlock>
        <MarginBlock title="Seen">
          {s.defects.length === 0 ? (
            <p className="soft">No defect on record.</p>
          ) : (
            s.defects.map((d) => (
              <div key={d.record_id} className="row">
                <p>
                  <b>{d.defect.replaceAll("-", " ")}</b>
                  {d.face ? `, ${d.face}` : ""}, {d.pieces_affected ?? "?"} of {d.pieces_seen ?? "?"} pieces. {d.note}
                </p>
                {may(person.role, "inspect") && (
                  <StartCase defectRecordId={d.record_id} zone={d.face ?? ""} start={startCase} />
                )}
              </div>
            ))
          )}
        </MarginBlock>
      </Margin>
    </>
  );
}

/** What is told of a coating that is not from here, each with how it is known. */
function Told({ fact }: { fact: StructureFact | null }) {
  const told = [
    [fact?.told_system, fact?.told_system_grade],
    [fact?.told_year == null ? null : `coated ${fact.told_year}`, fact?.told_year_grade],
    [fact?.told_coater ? `by ${fact.told_coater}` : null, fact?.told_coater_grade],
  ] as const;
  const known = told.filter(([what]) => what);
  if (known.length === 0) return <>coating of unknown origin</>;
  return (
    <>
      {known.map(([what, grade], i) => (
        <span key={what}>
          {i > 0 && ", "}
          {what} <Grade grade={(grade ?? "unknown") as EvidenceGrade} />
        </span>
      ))}
    </>
  );
}
