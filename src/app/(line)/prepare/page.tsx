import type { Metadata } from "next";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { showRacks } from "@/server/line/show-racks";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Prepare" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const person = await personOnPage();
  const [line, { units }, search] = await Promise.all([currentLine(person), preferences(), searchParams]);
  const list = await showRacks(database(), person, search, line.at, "prepare");
  return (
    <StagePage
      line={line}
      units={units}
      stage="prepare"
      title="Prepare"
      above="Blast, strip, wipe, outgassing bake: racks standing here"
      list={list}
      path="/prepare"
      empty="No rack is being prepared. Scan one in: rack 1046 in blast"
    />
  );
}
