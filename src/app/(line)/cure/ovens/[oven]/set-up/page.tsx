import type { Metadata } from "next";
import { notFound } from "next/navigation";
import * as v from "valibot";
import { findOven } from "@/server/cure/oven-file";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { setupSchemas } from "@/server/setup/setup-schemas";
import { personOnPage } from "@/server/sign-in/person";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { OvenSetupForm } from "@/ui/cure/oven-setup-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { keepOven } from "../../../../actions";

export const metadata: Metadata = { title: "Oven, set-up" };

/** `new` is an oven that is not there yet. */
export default async function OvenSetupPage({ params }: { params: Promise<{ oven: string }> }) {
  await personOnPage("release");
  const { oven: slug } = await params;
  const oven = slug === "new" ? null : await findOven(database(), slug, now());
  if (slug !== "new" && !oven) notFound();
  return (
    <>
      <section className="bench">
        <PageHead above={oven ? oven.code : "Cure"} title={oven ? `${oven.data.name}: set-up` : "An oven, new"} />
        <CureTabs here="ovens" />
        <OvenSetupForm
          code={oven?.code ?? ""}
          seen={oven?.versionId ?? null}
          data={oven?.data ?? v.parse(setupSchemas.oven, { name: "" })}
          keep={keepOven}
        />
      </section>
      <Margin step="cure">
        <MarginBlock title="What it is for">
          <p>
            Places and their spread come from surveys; time constants from a logger run empty and full. A change holds
            from now on: bakes before keep the oven of their time.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
