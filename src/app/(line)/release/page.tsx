import type { Metadata } from "next";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Release" };

export default async function Page() {
  const line = await currentLine(await personOnPage());
  const { units } = await preferences();
  return (
    <StagePage
      line={line}
      units={units}
      stage="release"
      title="Release"
      above="Racks that wait for a decision"
      empty="Nothing waits for a decision."
      to="/release"
    />
  );
}
