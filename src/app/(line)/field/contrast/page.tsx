import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { contrastStructures } from "@/server/field/contrast-structures";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";
import { Differences } from "@/ui/causes/what-differs";
import { countOf } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";

export const metadata: Metadata = { title: "What failed, what did not" };

/** What is different about what failed in the field, over all structures. */
export default async function FieldContrastPage() {
  const person = await personOnPage();
  // It goes over all customers' work.
  if (!ofTheShop(person)) notFound();
  const [found, { units }] = await Promise.all([contrastStructures(database()), preferences()]);
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/field">
              Field
            </Link>
          }
          title="What failed, what did not"
        />
        {(
          [
            ["Structures", found.structures, "structure"],
            ["Zones", found.zones, "zone"],
          ] as const
        ).map(([name, contrast, one]) => (
          <section key={name} className="ruled mt-5">
            <h2>{name}</h2>
            <p className="soft m-0 mt-1">
              {countOf(contrast.affected, `${one} has failed`, `${one}s have failed`)}, {contrast.others} not.{" "}
              {countOf(contrast.tried, "comparison")} made.
            </p>
            <Differences contrast={contrast} units={units} />
          </section>
        ))}
      </section>
      <Margin step="field">
        <MarginBlock title="How to read it">
          <p className="small">
            Each reading stands until it was read again; what nobody looked at is on neither side. Fisher’s exact test,
            Mann–Whitney, share of false finds after Benjamini and Hochberg.
          </p>
          <p className="small">
            What is older has had longer to fail, and what stands by the sea is made otherwise: what goes together need
            not be cause. Zones of one structure go together, so their chances are told too small.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
