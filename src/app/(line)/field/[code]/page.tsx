import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { loadKnowledge } from "@/core/diagnosis";
import { RATE_LEAST_DAYS } from "@/core/field";
import { database } from "@/server/database";
import { loadStructure } from "@/server/field/load-structure";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { StartCase } from "@/ui/causes/start-case";
import { CreepChart } from "@/ui/field/creep-chart";
import { VisitForm } from "@/ui/field/visit-form";
import { countOf, dateAndTime, span, withUnit } from "@/ui/format";
import { DefectForm } from "@/ui/forms/defect-form";
import { PhotoForm } from "@/ui/forms/photo-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { Photos } from "@/ui/plan/photos";
import { creepResult, rustResult } from "@/ui/words/field";
import { attachPhoto, startCase } from "../../actions";

export const metadata: Metadata = { title: "Structure" };

export default async function StructurePage({ params }: { params: Promise<{ code: string }> }) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const s = await loadStructure(database(), person, (await params).code, line.at);
  if (!s) notFound();
  const { units } = await preferences();
  const worst = s.zones.reduce<(typeof s.zones)[number] | null>(
    (w, z) => (!w || z.now.creepMm > w.now.creepMm ? z : w),
    null,
  );
  const racks = [...new Set(s.pieces.map((p) => p.number))];
  const rating = worst?.now.rating ?? null;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              {s.customer} · {s.site} · {countOf(s.pieces.length, "piece")} from rack{" "}
              {racks.map((r) => (
                <Link key={r} className="link fig" href={`/racks/${r}`}>
                  {r}
                </Link>
              ))}
              {s.coatedOn && <>, coated {span(line.at.getTime() - s.coatedOn.getTime())} ago</>}
            </>
          }
          title={s.name}
        >
          <Verdict result={creepResult(rating)}>
            {worst === null ? "Never measured" : `Protection: rating ${rating ?? "open"}`}
          </Verdict>
          <div className="small soft">{worst ? `worst at ${worst.zone}` : ""}</div>
        </PageHead>
        {s.zones.length > 0 && (
          <div className="mt-4 grid grid-cols-[minmax(0,1fr)_330px] gap-8 max-[1100px]:grid-cols-1">
            <div className="ruled">
              <h2>Creep by zone, newest visit</h2>
              <div className="overflow-x-auto">
                <table className="w-full border-collapse">
                  <thead>
                    <tr className="small soft text-left">
                      <th className="py-1 font-normal">zone</th>
                      <th className="num font-normal">creep</th>
                      <th className="num font-normal">rating</th>
                      <th className="num font-normal">a year</th>
                      <th className="num font-normal max-[560px]:hidden">before</th>
                    </tr>
                  </thead>
                  <tbody>
                    {s.zones.map((z) => (
                      <tr key={z.zone} className="border-t border-rule">
                        <td className="py-2">
                          <b>{z.zone}</b>{" "}
                          <span className="faint small">
                            {z.from === "area"
                              ? "from a scribe, by area"
                              : `from ${z.from}, ${z.now.widthsMm.length} widths`}
                          </span>
                        </td>
                        <td className="num text-[19px] font-bold max-[560px]:text-[15px]">
                          {withUnit(z.now.creepMm, "creep", units)}
                        </td>
                        <td className="num">{z.now.rating ?? "–"}</td>
                        <td className="num">
                          {z.rateMmPerYear === null ? (
                            "–"
                          ) : z.rateDays !== null && z.rateDays < RATE_LEAST_DAYS ? (
                            <span className="small soft">{z.rateDays} days: too short to say</span>
                          ) : (
                            withUnit(z.rateMmPerYear, "creep", units)
                          )}
                        </td>
                        <td className="num faint max-[560px]:hidden">
                          {z.before ? withUnit(z.before.creepMm, "creep", units) : "–"}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              <p className="small soft mt-1">
                After ISO 4628-8 and ASTM D1654; rating 10 is none. Rate since the visit before, or since coating.
              </p>
            </div>
            <CreepChart
              zones={s.zones
                .filter((z) => z.now.widthsMm.length > 0)
                .map((z) => ({ zone: z.zone, widthsMm: z.now.widthsMm, meanMm: z.now.creepMm }))}
              units={units}
            />
          </div>
        )}
        {s.rusting.length > 0 && (
          <section className="ruled mt-5 max-w-[640px]" aria-label="Rusting by zone">
            <h2>Rusting by zone, newest visit</h2>
            {s.rusting.map((r) => (
              <div key={r.zone} className="row grid-cols-[minmax(0,1fr)_90px_90px_130px]">
                <b>{r.zone}</b>
                <span className="num">{r.sharePercent} %</span>
                <span>
                  <Verdict result={rustResult(r.grade)}>Ri {r.grade}</Verdict>
                </span>
                <span className="faint small">{r.before === null ? "first time" : `${r.before} % before`}</span>
              </div>
            ))}
            <p className="small soft mt-1">Degree of rusting after ISO 4628-3; Ri 0 is none, Ri 5 over 8 %.</p>
          </section>
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
          </p>
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
        <MarginBlock title="Visits">
          {s.visits.length === 0 && <p className="soft">None yet.</p>}
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
