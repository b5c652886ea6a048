import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { Suspense } from "react";
import { loadKnowledge } from "@/core/diagnosis";
import { type Asked, explore, racksBehind, type Told } from "@/server/causes/explore";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { ContrastForm } from "@/ui/causes/contrast-form";
import { WhatDiffersTable } from "@/ui/causes/what-differs";
import { countOf, when } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { comparedFigure, comparedName } from "@/ui/words/differs";
import { failureText } from "@/ui/words/failures";

export const metadata: Metadata = { title: "What differs" };

const DAY_MS = 86_400_000;
/** Racks listed behind one value. */
const LISTED = 60;
type Search = Readonly<Record<string, string | undefined>>;
const isDay = (text: string | undefined): text is string => /^\d{4}-\d\d-\d\d$/.test(text ?? "");

/** Racks that show a defect against those that do not, over everything recorded: pick the defect, the part, the time, what to hold still. */
export default async function ContrastPage({ searchParams }: { searchParams: Promise<Search> }) {
  const person = await personOnPage();
  if (!may(person.role, "inspect")) notFound();
  const search = await searchParams;
  const line = await currentLine(person);
  const knowledge = loadKnowledge();
  const parts = await setupAt(database(), "part", line.at);
  const defect = knowledge.defects.has(search.defect ?? "") ? (search.defect as string) : "orange-peel";
  const part = [...parts.values()].find((p) => p.code === search.part);
  const to = isDay(search.to) ? new Date(`${search.to}T23:59:59Z`) : line.at;
  const from = isDay(search.from) ? new Date(`${search.from}T00:00:00Z`) : new Date(to.getTime() - 90 * DAY_MS);
  const [variable, value] = [search.variable?.slice(0, 120), search.value?.slice(0, 200)];
  const asked: Asked = {
    defect,
    partId: part?.id ?? null,
    from,
    to,
    where: variable && value ? { variable, value } : null,
    by: search.by?.slice(0, 120) || null,
  };
  const keep: Record<string, string> = {
    defect,
    ...(part ? { part: part.code } : {}),
    from: from.toISOString().slice(0, 10),
    to: to.toISOString().slice(0, 10),
    ...(asked.by ? { by: asked.by } : {}),
  };
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/causes">
              Causes
            </Link>
          }
          title={`What differs: ${knowledge.defects.get(defect)?.label.toLowerCase()}`}
        />
        <Suspense
          fallback={
            <p className="soft mt-4" role="status">
              Holding the racks that show it against those that do not …
            </p>
          }
          key={JSON.stringify(search)}
        >
          <Compared
            asked={asked}
            keep={keep}
            defects={[...knowledge.defects.values()].map((d) => [d.id, d.label])}
            parts={[...parts.values()].map((p) => [p.code, p.data.name])}
            timeZone={line.timeZone}
            at={line.at}
          />
        </Suspense>
      </section>
      <Margin step="causes">
        <MarginBlock title="How to read it">
          <p className="small">
            Filled above: racks that show it. Outlined below: those that do not. A bar holds the middle half, the line
            all but the ends, the stroke is the median.
          </p>
          <p className="small">
            “Chance” is the share of false finds among so many comparisons. What moved together is put in one frame:
            only changing one and leaving the rest tells them apart.
          </p>
          <p className="small">
            A name leads to the racks behind it: those of that value, or those within what the racks that show it had.
          </p>
          <p className="small">
            Hold a variable still to see what is left of the others within its values: a part that is always sprayed by
            one painter is no proof against the painter.
          </p>
          <p className="small">What goes together need not be cause.</p>
        </MarginBlock>
      </Margin>
    </>
  );
}

async function Compared({
  asked,
  keep,
  defects,
  parts,
  timeZone,
  at,
}: {
  asked: Asked;
  keep: Record<string, string>;
  defects: readonly (readonly [string, string])[];
  parts: readonly (readonly [string, string])[];
  timeZone: string;
  at: Date;
}) {
  const person = await personOnPage();
  const [found, { units }] = await Promise.all([explore(database(), person, asked, at), preferences()]);
  const behind = asked.where ? await racksBehind(database(), person, asked, at, LISTED) : null;
  const hrefOf = (told: Told) =>
    `/causes/contrast?${new URLSearchParams({
      ...keep,
      variable: told.difference.variable,
      value:
        told.difference.kind === "category"
          ? told.difference.value
          : told.spread.kind === "figure"
            ? told.spread.range.join("..")
            : "",
    })}`;
  const variables = found && !("failure" in found) ? found.variables : [];
  return (
    <>
      <ContrastForm
        now={{ ...keep, variable: asked.where?.variable ?? "", value: asked.where?.value ?? "" }}
        defects={defects}
        parts={parts}
        variables={variables.map((v) => [v, comparedName(v)])}
      />
      {behind && asked.where && (
        <section className="ruled mt-4" aria-label="Racks behind it">
          <h2>
            {comparedName(asked.where.variable)}:{" "}
            {behind.range
              ? [...new Set(behind.range.map((end) => comparedFigure(asked.where?.variable ?? "", end, units)))].join(
                  " to ",
                )
              : asked.where.value}
          </h2>
          <p className="soft m-0 mt-1">
            {countOf(behind.all, "rack")} of that time
            {behind.all > behind.racks.length ? `, the newest ${behind.racks.length} here` : ""}. The comparison below
            is of these alone.{" "}
            <Link className="link" href={`/causes/contrast?${new URLSearchParams(keep)}`}>
              All racks again
            </Link>
          </p>
          <div className="mt-1 grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-x-4">
            {behind.racks.map((r) => (
              <span key={r.number} className="row grid-cols-[56px_minmax(0,1fr)_auto]">
                <Link className="link fig" href={`/racks/${r.number}`}>
                  {r.number}
                </Link>
                <Verdict result={r.affected ? "out" : "unknown"}>{r.affected ? "shows it" : "not on record"}</Verdict>
                <span className="fig soft small">{when(r.hungAt, at, timeZone)}</span>
              </span>
            ))}
          </div>
        </section>
      )}
      <section className="ruled mt-4" aria-label="What differs">
        <h2>What differs</h2>
        {found && "failure" in found ? (
          <p className="text-out mt-1">{failureText(found.failure)}</p>
        ) : (
          <WhatDiffersTable
            found={found ? { ...found, from: asked.from, to: asked.to } : null}
            timeZone={timeZone}
            units={units}
            hrefOf={hrefOf}
          />
        )}
      </section>
    </>
  );
}
