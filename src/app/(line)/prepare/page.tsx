import type { Metadata } from "next";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Prepare" };

export default async function Page() {
  const line = await currentLine(await personOnPage());
  const { units } = await preferences();
  return (
    <StagePage
      line={line}
      units={units}
      stage="prepare"
      title="Prepare"
      above="Blast, strip, wipe, outgassing bake: racks standing here"
      empty="No rack is being prepared. Scan one in: rack 1046 in blast"
      to="/prepare"
    />
  );
}
