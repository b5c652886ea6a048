import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { bathParameters, bathSlug, codeOfSlug } from "@/core/bath";
import { findBath } from "@/server/baths/find-bath";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { BathHistoryView } from "@/ui/bath/bath-history-view";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { parameterName } from "@/ui/words/baths";

export const metadata: Metadata = { title: "History of a bath" };

export default async function BathHistoryPage({
  params,
  searchParams,
}: {
  params: Promise<{ bath: string }>;
  searchParams: Promise<{ value?: string; against?: string }>;
}) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const bath = await findBath(database(), codeOfSlug((await params).bath), line.at);
  if (!bath) notFound();
  const watched = bathParameters.filter((p) => bath.data.windows[p] !== undefined);
  const { value, against } = await searchParams;
  const shown = watched.find((p) => p === value) ?? watched[0];
  if (!shown) notFound();
  const beside = watched.find((p) => p === against && p !== shown) ?? null;
  const at = `/pretreat/${bathSlug(bath.code)}`;
  const choice = (href: string, label: string, here: boolean) => (
    <Link
      key={href}
      className={`btn ${here ? "pri" : ""}`}
      href={href}
      aria-current={here ? "true" : undefined}
      scroll={false}
    >
      {label}
    </Link>
  );
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href={at}>
              {bath.data.name}
            </Link>
          }
          title={`${parameterName[shown]}, all there is`}
        />
        <nav className="mt-3 flex flex-wrap gap-2" aria-label="Value">
          {watched.map((p) => choice(`${at}/history?value=${p}`, parameterName[p] ?? p, p === shown))}
        </nav>
        <BathHistoryView
          key={`${shown}/${beside}`}
          bath={bathSlug(bath.code)}
          name={bath.data.name}
          parameter={shown}
          against={beside}
          timeZone={line.timeZone}
        />
        {watched.length > 1 && (
          <nav className="mt-5 flex flex-wrap items-center gap-2" aria-label="Against another value">
            <span className="soft">Against</span>
            {watched
              .filter((p) => p !== shown)
              .map((p) =>
                choice(
                  p === beside ? `${at}/history?value=${shown}` : `${at}/history?value=${shown}&against=${p}`,
                  parameterName[p] ?? p,
                  p === beside,
                ),
              )}
          </nav>
        )}
      </section>
      <Margin step="pretreat">
        <MarginBlock title="Reading it">
          <p className="small">
            Drag to move in time, hold Ctrl and turn the wheel to look closer, or use the keys below the chart. The band
            is the window as it stood then. However far out you look, the lowest and highest check of every moment is
            drawn.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
