import type { Metadata } from "next";
import { schoolTexts } from "@/core/site";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { siteItemAt } from "@/server/setup/setup-data";
import { figureChanges } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { SchoolsForm } from "@/ui/shop/schools-form";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { figuresSaid } from "@/ui/shop/who-changed";
import { keepSchools } from "../../actions";

export const metadata: Metadata = { title: "Schools" };

export default async function SchoolsPage() {
  const person = await personOnPage("release");
  const [site, changes] = await Promise.all([siteItemAt(database(), now()), figureChanges(database())]);
  return (
    <>
      <section className="bench">
        <PageHead above="Which way the shop does what good shops do differently" title="Schools" />
        <ShopTabs here="schools" people={may(person.role, "administer")} />
        <SchoolsForm
          key={site.versionId}
          seen={site.versionId}
          schools={schoolTexts(site.data.schools)}
          changed={figuresSaid(changes, site.data.timeZone)}
          save={keepSchools}
        />
      </section>
      <Margin step="shift">
        <MarginBlock title="Two good ways">
          <p className="small">
            Good shops differ here. What is advised, and what a route card asks, follows what stands here; plans made
            before keep theirs, and a single job can be planned otherwise.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
