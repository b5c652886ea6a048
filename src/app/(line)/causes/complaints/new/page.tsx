import type { Metadata } from "next";
import { loadKnowledge } from "@/core/diagnosis";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { ComplaintForm } from "@/ui/complaints/complaint-form";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { takeComplaint } from "../../../actions";

export const metadata: Metadata = { title: "A complaint" };

export default async function NewComplaintPage({ searchParams }: { searchParams: Promise<{ rack?: string }> }) {
  await personOnPage("inspect");
  const { rack = "" } = await searchParams;
  const at = now();
  const { timeZone } = await siteAt(database(), at);
  const defects = [...loadKnowledge().defects.values()]
    .map(({ id, label }) => ({ id, label }))
    .sort((a, b) => a.label.localeCompare(b.label));
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/causes">
              Causes
            </Link>
          }
          title="A customer complains"
        />
        <ComplaintForm rack={rack.slice(0, 20)} today={dayIn(at, timeZone)} defects={defects} receive={takeComplaint} />
      </section>
      <Margin step="causes">
        <MarginBlock title="What comes of it">
          <p>
            It is kept as they said it, with the defect beside it, and a case is opened: what the record knows of that
            rack comes first. Photos of what came back are attached on the next page; the answer is written there too.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
