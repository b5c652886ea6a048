import type { Metadata } from "next";
import { blankMlOf, recipeOf, titrationFactor } from "@/core/bath";
import type { BathFile } from "@/server/baths/load-bath";
import { openSkips, type RoundSkip } from "@/server/baths/round-skips";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { type RoundBath, RoundForm } from "@/ui/bath/round-form";
import { clock, span, when } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { NoneSetUp } from "@/ui/shop/none-set-up";

export const metadata: Metadata = { title: "Round" };
/** Checks drawn beside each value. */
const SPARK_POINTS = 14;

function inRound(file: BathFile, skip: RoundSkip | undefined, now: Date, timeZone: string): RoundBath {
  const overdue = file.nextCheckBy !== null && file.nextCheckBy < now;
  return {
    code: file.bath.code,
    name: file.bath.data.name,
    due: !file.nextCheckBy
      ? "Never checked"
      : overdue
        ? `Overdue ${span(now.getTime() - file.nextCheckBy.getTime())}`
        : `Due by ${clock(file.nextCheckBy, timeZone)}`,
    dueResult: file.result === "out" ? "out" : !file.nextCheckBy ? "unknown" : overdue ? "watch" : "in",
    caution: file.bath.data.caution,
    leftOut: skip ? `${when(skip.at, now, timeZone)} left out by ${skip.by}: ${skip.reason}` : null,
    reaction: file.series.find((s) => s.reaction)?.reaction?.what ?? null,
    values: file.series.map((s) => {
      const last = s.points.at(-1);
      return {
        parameter: s.parameter,
        titrationFactor: titrationFactor(file.bath.data, s.parameter),
        blankMl: blankMlOf(file.bath.data, s.parameter),
        recipe: recipeOf(file.bath.data, s.parameter),
        window: s.window,
        points: s.points.slice(-SPARK_POINTS).map((p) => ({ atMs: p.at.getTime(), value: p.value, result: p.result })),
        lastWhen: last ? when(last.at, now, timeZone) : "",
      };
    }),
  };
}

export default async function RoundPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const skips = await openSkips(database(), line.at);
  // Walking order is the tanks' own: by their code.
  const baths = [...line.baths].sort((a, b) => a.bath.code.localeCompare(b.bath.code, "en", { numeric: true }));
  const due = baths.filter((b) => b.nextCheckBy === null || b.nextCheckBy < line.at).length;
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/pretreat">
              Pretreat
            </Link>
          }
          title="Round of the baths"
        >
          {baths.length > 0 && (
            <Verdict result={due > 0 ? "watch" : "in"}>{due > 0 ? `${due} due now` : "Nothing overdue"}</Verdict>
          )}
        </PageHead>
        {baths.length === 0 ? (
          <NoneSetUp what="bath" href="/pretreat/set-up" className="mt-2" />
        ) : may(person.role, "log-line") ? (
          <RoundForm baths={baths.map((b) => inRound(b, skips.get(b.bath.id), line.at, line.timeZone))} />
        ) : (
          <p className="mt-4">Whoever works on the line takes the round.</p>
        )}
      </section>
      <Margin step="pretreat">
        {baths.map((b) => (
          <MarginBlock key={b.bath.id} title={b.bath.code}>
            <p className="small">{b.bath.data.caution}</p>
          </MarginBlock>
        ))}
      </Margin>
    </>
  );
}
