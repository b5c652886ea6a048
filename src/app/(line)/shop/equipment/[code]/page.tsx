import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { ovenSlug } from "@/core/cure";
import { equipmentFacts, wantsStripping } from "@/core/site";
import { database } from "@/server/database";
import { loadEquipment } from "@/server/equipment/load-equipment";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { loadUpkeep } from "@/server/upkeep/load-upkeep";
import { EquipmentChart } from "@/ui/charts/equipment-chart";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime, plainly, sides } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { EquipmentForm } from "@/ui/shop/equipment-form";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { UpkeepSetupForm } from "@/ui/upkeep/upkeep-setup-form";
import { equipmentRoleName } from "@/ui/words/people";
import { upkeepResultName, upkeepWord } from "@/ui/words/upkeep";
import { keepEquipment, keepUpkeep } from "../../../actions";

export const metadata: Metadata = { title: "Equipment" };

const stageOf = { booth: "coat", oven: "cure", washer: "pretreat", "blast-room": "prepare", gun: "coat" } as const;

export default async function OneEquipmentPage({ params }: { params: Promise<{ code: string }> }) {
  const person = await personOnPage("release");
  const at = now();
  const db = database();
  const site = await siteAt(db, at);
  const [file, upkeep, ovens, { units }] = await Promise.all([
    loadEquipment(db, decodeURIComponent((await params).code), site.timeZone, at),
    loadUpkeep(db, at, { history: 12 }),
    setupAt(db, "oven", at),
    preferences(),
  ]);
  if (!file) notFound();
  const { item, versions, coated } = file;
  const { data, code } = item;
  const mine = upkeep.filter((u) => u.item.data.equipment?.toLowerCase() === code.toLowerCase());
  const oven =
    data.role === "oven"
      ? [...ovens.values()].find((o) => [o.code, o.data.name].some((n) => n.toLowerCase() === data.name.toLowerCase()))
      : undefined;
  const racks = coated?.reduce((n, w) => n + w.racks, 0) ?? 0;
  const thin = coated?.reduce((n, w) => n + w.thin, 0) ?? 0;
  const facts = equipmentFacts[data.role].flatMap((f) =>
    data.facts[f.name] === undefined ? [] : [{ ...f, value: data.facts[f.name] }],
  );
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/shop/equipment">
              Equipment
            </Link>
          }
          title={data.name}
        >
          <span className="soft">
            {code}, {equipmentRoleName[data.role]}
            {data.retired && ", no longer used"}
          </span>
          {wantsStripping(data.facts) && <Verdict result="watch">strip it before it hangs again</Verdict>}
        </PageHead>
        <ShopTabs here="equipment" people={may(person.role, "administer")} />
        <section className="ruled mt-4" aria-label="What it is">
          <h2>What it is</h2>
          {data.insideMm && (
            <div className="row grid-cols-[260px_minmax(0,1fr)] max-[700px]:grid-cols-2">
              <span className="soft">Inside</span>
              <span className="fig">{sides(data.insideMm, units)}</span>
            </div>
          )}
          {data.mostKg !== null && (
            <div className="row grid-cols-[260px_minmax(0,1fr)] max-[700px]:grid-cols-2">
              <span className="soft">Carries at most</span>
              <span className="fig">{plainly(data.mostKg, "mass", units)}</span>
            </div>
          )}
          {facts.map((f) => (
            <div key={f.name} className="row grid-cols-[260px_minmax(0,1fr)] max-[700px]:grid-cols-2">
              <span className="soft">{f.label}</span>
              <span className={f.bounds ? "fig" : ""}>
                {f.value} {f.unit}
              </span>
            </div>
          ))}
          {facts.length === 0 && !data.insideMm && data.mostKg === null && (
            <p className="m-0 py-2">Nothing is noted of it but its name. Add what you know below.</p>
          )}
          {oven && (
            <p className="m-0 py-2">
              <Link className="link" href={`/cure/ovens/${ovenSlug(oven.code)}`}>
                {oven.data.name}: its places, surveys and what its bakes taught
              </Link>
            </p>
          )}
          <Fold summary="Change what is noted of it">
            <EquipmentForm key={item.versionId} known={{ code, seen: item.versionId, ...data }} save={keepEquipment} />
          </Fold>
        </section>
        {coated !== null && (
          <section className="ruled mt-5" aria-label="What was coated with it">
            <h2>What was coated with it, half a year</h2>
            {racks === 0 ? (
              <p className="m-0 py-2">
                No coat on record names it. A coat names its {data.role} as {data.name} or {code}.
              </p>
            ) : (
              <>
                <p className="m-0">
                  {countOf(racks, "rack")}; {thin === 0 ? "none" : thin} of those read had a spot under its powder’s
                  least film.
                </p>
                <EquipmentChart weeks={coated} timeZone={site.timeZone} />
              </>
            )}
          </section>
        )}
        <section className="ruled mt-5" aria-label="Upkeep of it">
          <h2>Upkeep</h2>
          {mine.length === 0 && <p className="m-0 py-2">Nothing is kept up of it on record yet.</p>}
          {mine.map(({ item: one, done, standing }) => (
            <div key={one.id} className="border-rule border-b py-1">
              <Link
                href={`/upkeep#${one.code}`}
                className="row min-h-11 grid-cols-[minmax(0,1fr)_190px] items-center border-0 text-ink no-underline hover:bg-sorrel-tint"
              >
                <b>{one.data.what}</b>
                <Verdict result={standing.result}>{upkeepWord(standing, at.getTime(), site.timeZone)}</Verdict>
              </Link>
              {done.map((d) => (
                <p key={d.recordId} className="small soft m-0">
                  {dateAndTime(d.at, site.timeZone)}: {upkeepResultName[d.result]}
                  {d.value !== null && ` ${d.value} ${d.unit ?? ""}`}, {d.by}
                  {d.note && `. ${d.note}`}
                </p>
              ))}
            </div>
          ))}
          <Fold summary="Keep something of it up">
            <UpkeepSetupForm
              code={null}
              seen={null}
              equipment={code}
              plan={{
                what: "",
                stage: (stageOf as Record<string, "coat" | "cure" | "pretreat" | "prepare">)[data.role] ?? "coat",
                everyDays: 30,
                look: "",
                leadsTo: "",
                caution: "",
                hands: "line",
                measure: null,
                retired: false,
              }}
              save={keepUpkeep}
            />
          </Fold>
        </section>
      </section>
      <Margin step="shift">
        <MarginBlock title="Its history">
          {versions.map((one) => (
            <p key={one.id} className="small m-0 mb-1">
              {one.reason}{" "}
              <span className="faint">
                {one.by}, {dateAndTime(one.at, site.timeZone)}
              </span>
            </p>
          ))}
        </MarginBlock>
      </Margin>
    </>
  );
}
