import type { Metadata } from "next";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Coat" };

export default async function Page() {
  const line = await currentLine(await personOnPage());
  const { units } = await preferences();
  return (
    <StagePage
      line={line}
      units={units}
      stage="coat"
      title="Coat"
      above="Booths: racks standing here"
      empty="No rack is in a booth. Scan one in: rack 1046 in booth"
      to="/coat"
    />
  );
}
