import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { partVersions } from "@/server/plan/part-library";
import { byCode } from "@/server/setup/by-code";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { PartForm } from "@/ui/plan/part-form";
import { keepPart } from "../../../actions";

export const metadata: Metadata = { title: "Part" };

/** A part to draw and measure: a new one, or a new version of one there is. */
export default async function PartPage({ params }: { params: Promise<{ part: string }> }) {
  await personOnPage("release");
  const code = decodeURIComponent((await params).part);
  const at = now();
  const db = database();
  const [parts, site] = await Promise.all([setupAt(db, "part", at), siteAt(db, at)]);
  const part = code === "new" ? null : byCode(parts.values(), code);
  if (part === undefined) notFound();
  const versions = part ? await partVersions(db, part.id, at) : [];
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/plan/parts">
              Parts
            </Link>
          }
          title={part?.data.name ?? "A new part"}
        />
        <PartForm
          key={part?.versionId ?? "new"}
          known={part && { id: part.id, seen: part.versionId, ...part.data }}
          save={keepPart}
        />
      </section>
      <Margin step="plan">
        <MarginBlock title="The sketch">
          <p>
            Each face is drawn as it is looked at. Spots are where film is read; places on edges and in recesses are
            read too where the part has them. Zones say how closely a place is looked at; what stays bare is masked or
            plugged.
          </p>
        </MarginBlock>
        {versions.length > 0 && (
          <MarginBlock title="Versions">
            {versions.map((one) => (
              <p key={one.id} className="small m-0 mb-1">
                {one.reason}{" "}
                <span className="faint">
                  {one.by}, {dateAndTime(one.from, site.timeZone)}
                </span>
              </p>
            ))}
          </MarginBlock>
        )}
      </Margin>
    </>
  );
}
