import type { Metadata } from "next";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { showRacks } from "@/server/line/show-racks";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";
import Link from "@/ui/link";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Coat" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const person = await personOnPage();
  const [line, { units }, search] = await Promise.all([currentLine(person), preferences(), searchParams]);
  const list = await showRacks(database(), person, search, line.at, "coat");
  return (
    <StagePage
      line={line}
      units={units}
      stage="coat"
      title="Coat"
      above="Booths: racks standing here"
      list={list}
      path="/coat"
      empty="No rack is in a booth. Scan one in: rack 1046 in booth"
    >
      {ofTheShop(person) && (
        <p className="mt-4 flex flex-wrap gap-x-5">
          <Link className="link inline-flex min-h-11 items-center" href="/coat/powders">
            Powders and lots
          </Link>
          <Link className="link inline-flex min-h-11 items-center" href="/coat/sheets">
            Set-up sheets
          </Link>
        </p>
      )}
    </StagePage>
  );
}
