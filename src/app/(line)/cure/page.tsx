import type { Metadata } from "next";
import { currentLine } from "@/server/line/current-line";
import { personOnPage } from "@/server/sign-in/person";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Cure" };

export default async function Page() {
  const line = await currentLine(await personOnPage());
  return (
    <StagePage
      line={line}
      stage="cure"
      title="Cure"
      above="Ovens: racks and loads standing here"
      empty="No load is in an oven. Scan one in: rack 1046 in oven"
      to="/cure"
    />
  );
}
