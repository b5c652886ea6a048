import type { Metadata } from "next";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { showRacks } from "@/server/line/show-racks";
import { personOnPage } from "@/server/sign-in/person";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { RackList } from "@/ui/shift/rack-list";

export const metadata: Metadata = { title: "Racks" };

export default async function RacksPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const person = await personOnPage();
  const [line, search] = await Promise.all([currentLine(person), searchParams]);
  const list = await showRacks(database(), person, search, line.at);
  return (
    <>
      <section className="bench">
        <PageHead above="What is out or held first, then what has waited longest" title="Racks on the line" />
        <RackList
          {...list}
          path="/racks"
          line={line}
          now={line.at}
          empty="No rack is on the line. Hang one under its job."
        />
      </section>
      <Margin step="shift">
        <MarginBlock title="When a rack leaves">
          <p>
            A rack is here until a lead has decided on it: accepted, conceded or scrapped. Neither its age nor how many
            others there are takes it off.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
