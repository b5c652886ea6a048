import Link from "next/link";
import type { ReactNode } from "react";
import type { UnitSystem } from "@/core/units";
import type { Line, RailStage } from "@/server/line/load-line";
import { span } from "../format";
import { Margin, MarginBlock } from "../frame/margin";
import { PageHead } from "../frame/page-head";
import { Verdict } from "../marks/verdict";
import { UpkeepHere } from "../upkeep/upkeep-here";
import { dueList } from "./due-list";

const words: Record<string, string> = {
  held: "Held",
  "adhesion-out": "Adhesion out",
  defect: "Defect seen",
  "film-open": "Film in hand",
  "to-release": "To release",
  running: "Running",
  bare: "Bare metal",
  "to-recoat": "To scuff, recoat",
  "to-strip": "To strip",
};

/** One stage of the line: the racks standing there, what each waits for, and what is due. */
export function StagePage({
  line,
  units,
  stage,
  title,
  above,
  empty,
  to,
  tabs,
  children,
}: {
  line: Line;
  units: UnitSystem;
  stage: RailStage;
  title: string;
  above: string;
  empty: string;
  to: string;
  /** The other views of this stage. */
  tabs?: ReactNode;
  children?: ReactNode;
}) {
  const racks = line.racks.filter((r) => r.stage === stage);
  const mine = line.upkeep.filter((u) => u.item.data.stage === stage);
  const due = dueList(line, units).filter((item) => racks.some((r) => item.href.startsWith(`/racks/${r.number}`)));
  return (
    <>
      <section className="bench">
        <PageHead above={above} title={title} />
        {tabs}
        <div className="ruled mt-3">
          {racks.length === 0 && <p className="py-3">{empty}</p>}
          {racks.map((r) => (
            <Link
              key={r.number}
              href={`/racks/${r.number}${to}`}
              className="row min-h-[52px] grid-cols-[64px_minmax(0,1fr)_150px_110px_150px] items-center text-ink no-underline hover:bg-sorrel-tint max-[700px]:grid-cols-[64px_minmax(0,1fr)_auto]"
            >
              <b className="fig text-[17px]">{r.number}</b>
              <span>
                <b>{r.part}</b> <span className="soft">{r.customer}</span>
              </span>
              <span className="soft max-[700px]:hidden">
                {r.passage}
                {r.open ? "" : ", left"}
              </span>
              <span className="fig max-[700px]:hidden">{span(line.at.getTime() - r.since.getTime())}</span>
              <Verdict result={r.result}>{words[r.what]}</Verdict>
            </Link>
          ))}
        </div>
        {children}
      </section>
      <Margin step={stage}>
        <MarginBlock title="Due here">
          {due.length === 0 ? (
            <p className="soft">Nothing is due at this stage.</p>
          ) : (
            due.map((d) => (
              <div key={d.what} className="row grid-cols-[minmax(0,1fr)_auto]">
                <span>{d.why}</span>
                <Verdict result={d.result}>{d.word}</Verdict>
              </div>
            ))
          )}
        </MarginBlock>
        {mine.length > 0 && (
          <MarginBlock title="Upkeep">
            <UpkeepHere files={mine} now={line.at} timeZone={line.timeZone} />
          </MarginBlock>
        )}
      </Margin>
    </>
  );
}
