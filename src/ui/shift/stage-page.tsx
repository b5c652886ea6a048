import type { ReactNode } from "react";
import type { UnitSystem } from "@/core/units";
import type { Line, RailStage } from "@/server/line/load-line";
import type { showRacks } from "@/server/line/show-racks";
import { Margin, MarginBlock } from "../frame/margin";
import { PageHead } from "../frame/page-head";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { UpkeepHere } from "../upkeep/upkeep-here";
import { dueList } from "./due-list";
import { RackList } from "./rack-list";

/** One stage of the line: the racks standing there, what each waits for, and what is due. */
export function StagePage({
  line,
  units,
  stage,
  title,
  above,
  list,
  path,
  empty,
  tabs,
  children,
}: {
  line: Line;
  units: UnitSystem;
  stage: RailStage;
  title: string;
  above: string;
  /** The racks that stand here, and what they were asked for by. */
  list: Awaited<ReturnType<typeof showRacks>>;
  path: string;
  empty: string;
  /** The other views of this stage. */
  tabs?: ReactNode;
  children?: ReactNode;
}) {
  const mine = line.upkeep.filter((u) => u.item.data.stage === stage);
  const due = dueList(line, units).filter((item) => item.stage === stage);
  return (
    <>
      <section className="bench">
        <PageHead above={above} title={title} />
        {tabs}
        <RackList {...list} path={path} now={line.at} empty={empty} line={line} stageFixed />
        {children}
      </section>
      <Margin step={stage}>
        <MarginBlock title="Due here">
          {due.length === 0 ? (
            <p className="soft">Nothing is due at this stage.</p>
          ) : (
            due.map((d) => (
              <Link
                key={d.what}
                href={d.href}
                className="row grid-cols-[minmax(0,1fr)_auto] text-ink no-underline hover:bg-sorrel-tint"
              >
                <span>
                  <b>{d.what.split(",")[0]}</b> {d.why}
                </span>
                <Verdict result={d.result}>{d.word}</Verdict>
              </Link>
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
