import type { Metadata } from "next";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Test" };

export default async function Page() {
  const line = await currentLine(await personOnPage());
  return (
    <StagePage
      line={line}
      stage="test"
      title="Test"
      above="Racks out of the oven, to be read and tested"
      empty="Nothing waits to be tested."
      to="/thickness"
    />
  );
}
