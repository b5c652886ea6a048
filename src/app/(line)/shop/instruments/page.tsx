import type { Metadata } from "next";
import { verificationStanding } from "@/core/site";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { now } from "@/server/now";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Fold } from "@/ui/fields/fold";
import { Margin } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { InstrumentForm } from "@/ui/shop/instrument-form";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { WhoChanged } from "@/ui/shop/who-changed";
import { instrumentKindName, verificationSaid } from "@/ui/words/people";
import { keepInstrument } from "../../actions";

function Verified({ data, today }: { data: Parameters<typeof verificationStanding>[0]; today: string }) {
  const { result, words } = verificationSaid(verificationStanding(data, today));
  return <Verdict result={result}>{words}</Verdict>;
}

export const metadata: Metadata = { title: "Instruments" };

export default async function InstrumentsPage() {
  const person = await personOnPage("release");
  const at = now();
  const [all, site, versions] = await Promise.all([
    setupAt(database(), "instrument", at),
    siteAt(database(), at),
    versionsOfKind(database(), "instrument"),
  ]);
  const today = dayIn(at, site.timeZone);
  const inOrder = [...all.values()].sort((a, b) => a.data.name.localeCompare(b.data.name, "en", { numeric: true }));
  return (
    <>
      <section className="bench">
        <PageHead above="What film, ovens and baths are read with" title="Instruments" />
        <ShopTabs here="instruments" people={may(person.role, "administer")} />
        <div className="ruled mt-3">
          {inOrder.length === 0 && (
            <p className="py-2">
              No instrument yet. Put the film gauge on record below: it is then checked on its shims, and each reading
              says which gauge it is of.
            </p>
          )}
          {inOrder.map((item) => (
            <Fold
              key={item.id}
              id={item.code}
              className="border-rule border-b"
              summaryClassName="row min-h-[52px] list-none grid-cols-[90px_minmax(0,1fr)_120px_100px_minmax(0,230px)] max-[700px]:grid-cols-[80px_minmax(0,1fr)] items-center border-0 hover:bg-sorrel-tint w-full"
              summary={
                <>
                  <b className="fig">{item.code}</b>
                  <span>{item.data.name}</span>
                  <span className="soft max-[700px]:hidden">
                    {instrumentKindName[item.data.kind] ?? item.data.kind}
                  </span>
                  <span className="fig soft max-[700px]:hidden">{item.data.serial}</span>
                  <span className="max-[700px]:col-span-2">
                    {item.data.retired ? (
                      <span className="soft">no longer used</span>
                    ) : (
                      <Verified data={item.data} today={today} />
                    )}
                  </span>
                </>
              }
            >
              <InstrumentForm
                key={item.versionId}
                known={{ code: item.code, seen: item.versionId, ...item.data }}
                save={keepInstrument}
              />
            </Fold>
          ))}
        </div>
        <section className="ruled mt-6" aria-label="One more">
          <h2 className="mb-2">One more</h2>
          <InstrumentForm known={null} save={keepInstrument} />
        </section>
      </section>
      <Margin step="shift">
        <WhoChanged versions={versions} timeZone={site.timeZone} />
      </Margin>
    </>
  );
}
