import type { Metadata } from "next";
import { intakeLineOf, usualSchools } from "@/core/plan";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { measuredPart, placesOf } from "@/server/plan/load-plan";
import { shopHas } from "@/server/plan/shop-has";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { ReceiveForm } from "@/ui/plan/receive-form";
import { receiveDelivery } from "../../actions";

export const metadata: Metadata = { title: "Receive work" };

export default async function ReceivePage() {
  const person = await personOnPage();
  const at = now();
  const [customers, powders, parts, equipment, baths, site] = await Promise.all([
    setupAt(database(), "customer", at),
    setupAt(database(), "powder", at),
    setupAt(database(), "part", at),
    setupAt(database(), "equipment", at),
    setupAt(database(), "bath", at),
    siteAt(database(), at),
  ]);
  return (
    <>
      <section className="bench">
        <PageHead above="Plan" title="Receive work">
          <span className="small soft">each part becomes a job with a plan</span>
        </PageHead>
        {may(person.role, "release") ? (
          <ReceiveForm
            receive={receiveDelivery}
            asked={{ worstIso: site.crossCutWorstIso, cure: site.cureDecidedBy }}
            has={shopHas(equipment, baths, site)}
            schools={site.schools ?? usualSchools}
            places={placesOf(equipment.values())}
            rooms={{ marginMm: site.marginMm, gapMm: site.gapMm }}
            customers={[...customers.values()].map((c) => ({ id: c.id, label: c.data.name }))}
            powders={[...powders.values()]
              .filter((p) => !p.data.traits.includes("primer"))
              .map((p) => ({
                id: p.id,
                label: `${p.code} ${p.data.name}`,
                family: p.data.family,
                um: [p.data.minUm, p.data.maxUm] as const,
                flow: p.data.traits.includes("high-flow-powder")
                  ? ("high" as const)
                  : p.data.traits.includes("low-flow-powder")
                    ? ("low" as const)
                    : null,
              }))}
            known={[...parts.values()].flatMap((p) => {
              const part = measuredPart(p.data);
              return part ? [{ name: p.data.name, line: intakeLineOf({ ...part, name: p.data.name }) }] : [];
            })}
          />
        ) : (
          <p className="mt-4">A lead receives work.</p>
        )}
      </section>
      <Margin step="plan">
        <MarginBlock title="Before it is taken in">
          <p>
            Welding and grinding done. Rubber, seals and bushes out. No pressure left in tanks. Nothing that must stay
            bare without its mask.
          </p>
        </MarginBlock>
        <MarginBlock title="What a line may say">
          <p className="small soft">
            Metal: steel, sheet, cast alu, alu, cast iron, galvanised, stainless. Size in mm, or with cm, m, in. A range
            of sections: 2-8. Words: laser, plasma, sharp, hollow, no drain, recess, fit, threads, rubber, hinges,
            tumbled, frame, laps 2.4.
          </p>
          <p className="small soft">Mass and area left out are taken from the box, and said to be assumed.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}
