import type { Metadata } from "next";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Test" };

export default async function Page() {
  const line = await currentLine(await personOnPage());
  const { units } = await preferences();
  return (
    <StagePage
      line={line}
      units={units}
      stage="test"
      title="Test"
      above="Racks out of the oven, to be read and tested"
      empty="Nothing waits to be tested."
      to="/thickness"
    />
  );
}
