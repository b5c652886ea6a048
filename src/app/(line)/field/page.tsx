import type { Metadata } from "next";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { dateAndTime } from "@/ui/format";
import { StructureForm } from "@/ui/forms/make-forms";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { createStructure } from "../actions";

export const metadata: Metadata = { title: "Field" };

export default async function FieldPage() {
  const person = await personOnPage();
  const line = await currentLine(person);
  return (
    <>
      <section className="bench">
        <PageHead above="Structures, longest unseen first" title="Field" />
        <div className="ruled mt-3">
          {line.structuresDue.length === 0 && <p className="py-3">No structure stands on record for you yet.</p>}
          {line.structuresDue.map((s) => (
            <Link
              key={s.code}
              href={`/field/${s.code.toLowerCase()}`}
              className="row min-h-[56px] grid-cols-[minmax(0,1fr)_auto] items-center text-ink no-underline hover:bg-sorrel-tint"
            >
              <b className="text-[17px]">{s.name}</b>
              <span className="soft">
                {s.lastVisit ? `last visit ${dateAndTime(s.lastVisit, line.timeZone)}` : "never visited"}
              </span>
            </Link>
          ))}
        </div>
        {may(person.role, "inspect") && <StructureForm make={createStructure} />}
      </section>
      <Margin step="field">
        <MarginBlock title="On site">
          <p>
            Measure creep at six places or more along a scribe, or from a chip's edge. Photograph each zone. The piece's
            own history is one tap away.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
