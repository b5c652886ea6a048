import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { siteItemAt } from "@/server/setup/setup-data";
import { beginnings, shopBegun } from "@/server/shop/not-set-up";
import { figureChanges, versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Fold } from "@/ui/fields/fold";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Beginnings } from "@/ui/shop/beginnings";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { SiteForm } from "@/ui/shop/site-form";
import { figuresSaid, WhoChanged } from "@/ui/shop/who-changed";
import { keepSite } from "../actions";

export const metadata: Metadata = { title: "Shop" };

export default async function ShopPage() {
  const person = await personOnPage("release");
  const at = now();
  const [site, versions, begun, changes] = await Promise.all([
    siteItemAt(database(), at),
    versionsOfKind(database(), "site"),
    shopBegun(database()),
    figureChanges(database()),
  ]);
  const administers = may(person.role, "administer");
  const missing = beginnings.filter((what) => !begun.has[what] && (administers || what !== "people")).length;
  const zones = ["UTC", ...Intl.supportedValuesOf("timeZone").filter((zone) => zone !== "UTC")];
  return (
    <>
      <section className="bench">
        <PageHead above="What it is called, when it works, what it goes by" title={site.data.name} />
        <ShopTabs here="" people={administers} />
        {missing > 0 && (
          <section className="mt-4" aria-label="Not set up yet">
            <Fold summary={`${missing} not set up yet`}>
              <Beginnings has={begun.has} administers={administers} only="missing" />
            </Fold>
          </section>
        )}
        <SiteForm
          key={site.versionId}
          seen={site.versionId}
          site={site.data}
          zones={zones}
          changed={figuresSaid(changes, site.data.timeZone)}
          save={keepSite}
        />
      </section>
      <Margin step="shift">
        <MarginBlock title="What a change does">
          <p className="small">
            It holds from now on. What was judged before stays judged by the limits of its time; racks that stand on the
            line are held against the new ones.
          </p>
        </MarginBlock>
        <MarginBlock title="Elsewhere">
          <p className="small">
            Baths under Pretreat, powders and set-up sheets under Coat, ovens and what loads are planned to under Cure,
            upkeep under Upkeep.
          </p>
        </MarginBlock>
        <WhoChanged versions={versions} timeZone={site.data.timeZone} />
      </Margin>
    </>
  );
}
