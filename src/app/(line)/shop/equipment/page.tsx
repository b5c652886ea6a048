import type { Metadata } from "next";
import { isPlace, wantsStripping } from "@/core/site";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Fold } from "@/ui/fields/fold";
import { plainly, sides } from "@/ui/format";
import { Margin } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { EquipmentForm } from "@/ui/shop/equipment-form";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { WhoChanged } from "@/ui/shop/who-changed";
import { equipmentRoleName } from "@/ui/words/people";
import { keepEquipment } from "../../actions";

export const metadata: Metadata = { title: "Equipment" };

export default async function EquipmentPage() {
  const person = await personOnPage("release");
  const at = now();
  const [all, site, versions, { units }] = await Promise.all([
    setupAt(database(), "equipment", at),
    siteAt(database(), at),
    versionsOfKind(database(), "equipment"),
    preferences(),
  ]);
  const inOrder = [...all.values()].sort((a, b) => a.data.name.localeCompare(b.data.name, "en", { numeric: true }));
  return (
    <>
      <section className="bench">
        <PageHead above="Where a part must fit, what carries it, what powder is put on with" title="Equipment" />
        <ShopTabs here="equipment" people={may(person.role, "administer")} />
        <div className="ruled mt-3">
          {inOrder.length === 0 && (
            <p className="py-2">
              Nothing yet. Put booth, washer and oven on record below with their room: a part that fits nowhere is then
              known before it is taken in. Guns, hooks and air have their upkeep and history here too.
            </p>
          )}
          {inOrder.map((item) => (
            <Fold
              key={item.id}
              id={item.code}
              className="border-rule border-b"
              summaryClassName="row min-h-[52px] list-none grid-cols-[110px_minmax(0,1fr)_110px_220px] max-[700px]:grid-cols-[96px_minmax(0,1fr)] items-center border-0 hover:bg-sorrel-tint w-full"
              summary={
                <>
                  <b className="fig">{item.code}</b>
                  <span>{item.data.name}</span>
                  <span className="soft max-[700px]:hidden">{equipmentRoleName[item.data.role]}</span>
                  <span className="fig soft max-[700px]:hidden">
                    {item.data.insideMm
                      ? sides(item.data.insideMm, units)
                      : item.data.mostKg !== null
                        ? `carries ${plainly(item.data.mostKg, "mass", units)}`
                        : isPlace(item.data.role)
                          ? "not sized"
                          : ""}
                    {item.data.retired && " no longer used"}
                    {wantsStripping(item.data.facts) && <Verdict result="watch">strip it</Verdict>}
                  </span>
                </>
              }
            >
              <Link className="btn my-2" href={`/shop/equipment/${encodeURIComponent(item.code)}`}>
                Its page: upkeep, history, what went through it
              </Link>
              <EquipmentForm
                key={item.versionId}
                known={{ code: item.code, seen: item.versionId, ...item.data }}
                save={keepEquipment}
              />
            </Fold>
          ))}
        </div>
        <section className="ruled mt-6" aria-label="One more">
          <h2 className="mb-2">One more</h2>
          <EquipmentForm known={null} save={keepEquipment} />
        </section>
      </section>
      <Margin step="shift">
        <WhoChanged versions={versions} timeZone={site.timeZone} />
      </Margin>
    </>
  );
}
