import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { bathHref, bathVersions } from "@/server/setup/save-bath";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { BathSetupForm } from "@/ui/bath/bath-setup-form";
import { dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { keepBath } from "../../../actions";

export const metadata: Metadata = { title: "Set up a bath" };

export default async function BathSetUpPage({ params }: { params: Promise<{ bath: string }> }) {
  const person = await personOnPage();
  const at = now();
  const { bath: slug } = await params;
  const [baths, site] = await Promise.all([setupAt(database(), "bath", at), siteAt(database(), at)]);
  const bath = [...baths.values()].find((b) => bathHref(b.code) === `/pretreat/${slug.toLowerCase()}`);
  if (!bath) notFound();
  const versions = await bathVersions(database(), bath.id);
  const { retired, ...data } = bath.data;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <>
              <Link className="link" href="/pretreat/set-up">
                The wash
              </Link>{" "}
              ·{" "}
              <Link className="link" href={bathHref(bath.code)}>
                {bath.code}, its checks
              </Link>
            </>
          }
          title={`${bath.code} as it is set up`}
        >
          <Verdict result={retired ? "unknown" : "in"}>{retired ? "Out of use" : "In use"}</Verdict>
        </PageHead>
        {may(person.role, "release") ? (
          <BathSetupForm
            key={bath.versionId}
            code={bath.code}
            seen={bath.versionId}
            bath={data}
            retired={retired}
            save={keepBath}
          />
        ) : (
          <p className="mt-4">A lead or administrator sets up the wash.</p>
        )}
      </section>
      <Margin step="pretreat">
        <MarginBlock title={`${versions.length} version${versions.length === 1 ? "" : "s"}`}>
          {versions.map((version) => (
            <div key={version.at.getTime()} className="row">
              <span>
                <b className="fig small">{dateAndTime(version.at, site.timeZone)}</b> {version.by}
                <span className="small soft block">{version.reason}</span>
              </span>
            </div>
          ))}
        </MarginBlock>
      </Margin>
    </>
  );
}
