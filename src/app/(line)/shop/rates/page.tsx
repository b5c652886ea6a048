import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { siteItemAt } from "@/server/setup/setup-data";
import { figureChanges } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { RatesForm } from "@/ui/shop/rates-form";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { figuresSaid } from "@/ui/shop/who-changed";
import { keepRates } from "../../actions";

export const metadata: Metadata = { title: "Rates" };

export default async function RatesPage() {
  const person = await personOnPage("release");
  const [site, changes] = await Promise.all([siteItemAt(database(), now()), figureChanges(database())]);
  return (
    <>
      <section className="bench">
        <PageHead above="What a price is made of" title="Rates" />
        <ShopTabs here="rates" people={may(person.role, "administer")} />
        <RatesForm
          key={site.versionId}
          seen={site.versionId}
          rates={site.data.rates as Parameters<typeof RatesForm>[0]["rates"]}
          changed={figuresSaid(changes, site.data.timeZone)}
          save={keepRates}
        />
      </section>
      <Margin step="shift">
        <MarginBlock title="Whose figures">
          <p className="small">
            Usual figures are to begin with. Offers made before a change keep the rates of their day.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
