import type { Metadata } from "next";
import { notFound } from "next/navigation";
import type { VerdictResult } from "@/core/verdict";
import { database } from "@/server/database";
import { sitePlanOf } from "@/server/field/site-plan";
import type { StructureLine } from "@/server/field/structure-facts";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { PlanDrawing, PlanEditor } from "@/ui/field/site-plan";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime, dayMonthYear } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";

export const metadata: Metadata = { title: "Site plan" };

/** Trouble that nobody read again, else not looked at for whether it keeps the metal, else overdue, else looked at and without trouble. */
const resultOf = (s: StructureLine, now: Date): VerdictResult =>
  s.trouble ? "out" : !s.looked ? "unknown" : s.due.at <= now ? "watch" : "in";
const word = { out: "trouble", watch: "overdue", unknown: "not looked at for rust", in: "no trouble seen" } as const;

export default async function SitePage({ params }: { params: Promise<{ code: string }> }) {
  const person = await personOnPage();
  const line = await currentLine(person);
  const { code } = await params;
  const file = await sitePlanOf(database(), person, code);
  if (!file) notFound();
  const structures = file.structures.map((s) => ({ code: s.code, name: s.name, result: resultOf(s, line.at) }));
  const placed = new Set(file.plan?.document.marks.map((m) => m.structure));
  const none = { lines: [], words: [], marks: [] };
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/field">
              Field
            </Link>
          }
          title={file.site}
        >
          <span className="small soft">
            {countOf(file.structures.length, "structure")}, {structures.filter((s) => placed.has(s.code)).length} placed
          </span>
        </PageHead>
        {file.plan ? (
          <div className="mt-3">
            <PlanDrawing
              document={file.plan.document}
              fileId={file.plan.picture?.fileId ?? null}
              structures={structures}
              label={`Plan of ${file.site}`}
            />
            <p className="small soft m-0">
              Drawn by {file.plan.by}, {dateAndTime(file.plan.at, line.timeZone)}. Not to scale. Square: trouble;
              triangle: overdue; disc: no trouble seen; dashed: not looked at for rust.
            </p>
          </div>
        ) : (
          <p className="mt-3">No plan is drawn yet{may(person.role, "inspect") ? ": draw it below" : ""}.</p>
        )}
        {may(person.role, "inspect") && (
          <Fold summary={file.plan ? "Draw it anew" : "Draw the plan"} open={!file.plan} summaryClassName="min-h-11">
            <PlanEditor
              structure={code}
              structures={structures}
              pictures={file.pictures.map((p) => ({
                recordId: p.recordId,
                fileId: p.fileId,
                caption: `${p.caption}, ${dayMonthYear(p.at, line.timeZone)}`,
              }))}
              begun={file.plan?.document ?? none}
              beganOver={file.plan?.picture?.recordId ?? ""}
            />
          </Fold>
        )}
        <div className="ruled mt-5">
          <h2>What stands here</h2>
          {file.structures.map((s) => (
            <Link
              key={s.code}
              href={`/field/${s.code.toLowerCase()}`}
              className="row min-h-11 grid-cols-[minmax(0,1fr)_auto] items-center text-ink no-underline hover:bg-sorrel-tint"
            >
              <span>
                <b>{s.name}</b> <span className="small soft">{placed.has(s.code) ? "" : "not on the plan"}</span>
              </span>
              <Verdict result={resultOf(s, line.at)}>{word[resultOf(s, line.at) as keyof typeof word]}</Verdict>
            </Link>
          ))}
        </div>
      </section>
      <Margin step="field">
        <MarginBlock title="On site">
          <p>
            Draw where the road, the water and the entrances are, and where each structure stands: whoever comes next
            finds it, and sees what stands nearest to salt.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
