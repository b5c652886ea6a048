import type { Metadata } from "next";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { showRacks } from "@/server/line/show-racks";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import Link from "@/ui/link";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Test" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const person = await personOnPage();
  const [line, { units }, search] = await Promise.all([currentLine(person), preferences(), searchParams]);
  const list = await showRacks(database(), person, search, line.at, "test");
  return (
    <StagePage
      line={line}
      units={units}
      stage="test"
      title="Test"
      above="Racks out of the oven, to be read and tested"
      list={list}
      path="/test"
      empty="Nothing waits to be tested."
    >
      {ofTheShop(person) && (
        <p className="mt-4 flex flex-wrap gap-x-5">
          <Link className="link inline-flex min-h-11 items-center" href="/test/film">
            Film over time
          </Link>
          <Link className="link inline-flex min-h-11 items-center" href="/test/panels">
            Test panels
          </Link>
          {may(person.role, "inspect") && (
            <Link className="link inline-flex min-h-11 items-center" href="/test/gauges">
              Film gauges and their shims
            </Link>
          )}
        </p>
      )}
    </StagePage>
  );
}
