import type { Metadata } from "next";
import { washTemplates } from "@/core/bath";
import { lineTemplates } from "@/core/site";
import { database } from "@/server/database";
import { shopBegun } from "@/server/shop/not-set-up";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { BeginLineForm } from "@/ui/shop/begin-line-form";
import { Beginnings } from "@/ui/shop/beginnings";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { equipmentRoleName } from "@/ui/words/people";
import { beginWholeLine } from "../../actions";

export const metadata: Metadata = { title: "Begin a line" };

export default async function BeginLinePage() {
  const person = await personOnPage("release");
  const begun = await shopBegun(database());
  const templates = lineTemplates.map((t) => ({
    id: t.id,
    name: t.name,
    tanks: washTemplates.find((w) => w.id === t.wash)?.baths.map((b, i) => `${i + 1}  ${b.name}`) ?? [],
    things: [
      ...t.equipment.map((e) => `${e.name}, ${equipmentRoleName[e.role]}`),
      ...t.ovens.map((o) => `${o.name}, as it heats`),
      ...(t.conveyor ? ["Washer, its stages along the way"] : []),
      "Usual upkeep of its stages",
    ],
  }));
  return (
    <>
      <section className="bench">
        <PageHead above="All of a line at once, to be put right after" title="Begin a line" />
        <ShopTabs here="" people={may(person.role, "administer")} />
        <BeginLineForm templates={templates} begin={beginWholeLine} />
        <section className="ruled mt-6" aria-label="Step by step">
          <h2>Or step by step</h2>
          <Beginnings has={begun.has} administers={may(person.role, "administer")} />
        </section>
      </section>
      <Margin step="shift">
        <MarginBlock title="What is there stays">
          <p className="small">
            Nothing that is on record is changed or taken off. A second line is added beside the first: its tanks take
            the next numbers.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
