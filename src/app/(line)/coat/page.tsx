import type { Metadata } from "next";
import Link from "next/link";
import { currentLine } from "@/server/line/current-line";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Coat" };

export default async function Page() {
  const person = await personOnPage();
  const line = await currentLine(person);
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
