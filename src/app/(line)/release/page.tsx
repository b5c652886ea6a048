import type { Metadata } from "next";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { showRacks } from "@/server/line/show-racks";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";
import Link from "@/ui/link";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Release" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const person = await personOnPage();
  const [line, { units }, search] = await Promise.all([currentLine(person), preferences(), searchParams]);
  const list = await showRacks(database(), person, search, line.at, "release");
  return (
    <StagePage
      line={line}
      units={units}
      stage="release"
      title="Release"
      above="Racks that wait for a decision"
      list={list}
      path="/release"
      empty="Nothing waits for a decision."
    >
      {ofTheShop(person) && (
        <p className="mt-4">
          <Link className="link inline-flex min-h-11 items-center" href="/release/yield">
            Yield: how many racks passed the first time
          </Link>
        </p>
      )}
    </StagePage>
  );
}
