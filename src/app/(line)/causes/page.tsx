import type { Metadata } from "next";
import { listCases } from "@/server/causes/list-cases";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { when } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";

export const metadata: Metadata = { title: "Causes" };

export default async function CausesPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const { cases, defects } = await listCases(database(), person);
  return (
    <>
      <section className="bench">
        <PageHead above="Root-cause cases and the defects behind them" title="Causes" />
        <div className="ruled mt-3">
          <h2>Cases</h2>
          {cases.length === 0 && <p className="py-2">No case yet. Open one from a defect on a rack's release page.</p>}
          {cases.map((c) => (
            <Link
              key={c.number}
              href={`/causes/${c.number}`}
              className="row min-h-[52px] grid-cols-[72px_minmax(0,1fr)_170px] items-center text-ink no-underline hover:bg-sorrel-tint"
            >
              <b className="fig text-[17px]">{c.number}</b>
              <span>
                <b>{c.defect.replaceAll("-", " ")}</b>, {c.zone}{" "}
                <span className="soft">{c.rack ? `rack ${c.rack}` : (c.structure ?? "")}</span>
              </span>
              {c.cause ? (
                <Verdict result="in">{c.cause.replaceAll("-", " ")}</Verdict>
              ) : (
                <Verdict result="watch">Not confirmed</Verdict>
              )}
            </Link>
          ))}
        </div>
        <div className="ruled mt-6">
          <h2>Defects without a case, newest first</h2>
          {defects.length === 0 && <p className="py-2">None.</p>}
          {defects.map((d) => (
            <Link
              key={d.id}
              href={d.rack ? `/racks/${d.rack}/release` : `/field/${d.structure?.toLowerCase()}`}
              className="row grid-cols-[110px_130px_minmax(0,1fr)_110px] text-ink no-underline hover:bg-sorrel-tint"
            >
              <span className="fig faint small">{when(d.at, line.at, line.timeZone)}</span>
              <b>{d.defect.replaceAll("-", " ")}</b>
              <span>{d.note}</span>
              <span className="soft">{d.rack ? `rack ${d.rack}` : d.structure}</span>
            </Link>
          ))}
        </div>
      </section>
      <Margin step="causes">
        <MarginBlock title="How it reasons">
          <p>
            Findings the record establishes come first, each with its source; the rest are asked. Several causes may act
            together. Unknown moves nothing. A person confirms.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
