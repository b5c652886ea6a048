import type { Metadata } from "next";
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
import { RoomForm } from "@/ui/shop/setup-forms";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { WhoChanged } from "@/ui/shop/who-changed";
import { roomRoleName } from "@/ui/words/people";
import { keepRoom } from "../../actions";

export const metadata: Metadata = { title: "Places" };

export default async function PlacesPage() {
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
        <PageHead above="Where a part must fit, and what carries it" title="Places" />
        <ShopTabs here="rooms" people={may(person.role, "administer")} />
        <div className="ruled mt-3">
          {inOrder.length === 0 && (
            <p className="py-2">
              No place yet. Put booth, washer and oven on record below with their room: a part that fits nowhere is then
              known before it is taken in.
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
                  <span className="soft max-[700px]:hidden">{roomRoleName[item.data.role]}</span>
                  <span className="fig soft max-[700px]:hidden">
                    {item.data.insideMm
                      ? sides(item.data.insideMm, units)
                      : item.data.mostKg === null
                        ? "not sized"
                        : `carries ${plainly(item.data.mostKg, "mass", units)}`}
                  </span>
                </>
              }
            >
              <RoomForm
                key={item.versionId}
                known={{ code: item.code, seen: item.versionId, ...item.data }}
                save={keepRoom}
              />
            </Fold>
          ))}
        </div>
        <section className="ruled mt-6" aria-label="One more">
          <h2 className="mb-2">One more</h2>
          <RoomForm known={null} save={keepRoom} />
        </section>
      </section>
      <Margin step="shift">
        <WhoChanged versions={versions} timeZone={site.timeZone} />
      </Margin>
    </>
  );
}
