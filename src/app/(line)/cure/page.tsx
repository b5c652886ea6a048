import type { Metadata } from "next";
import { loadSurveys } from "@/server/cure/oven-file";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { nextLoadNumber } from "@/server/line/next-load";
import { preferences } from "@/server/preferences";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { LoadForm } from "@/ui/cure/load-forms";
import { OpenLoads } from "@/ui/cure/open-loads";
import { withUnit } from "@/ui/format";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Cure" };

export default async function Page() {
  const person = await personOnPage();
  const line = await currentLine(person);
  const { units } = await preferences();
  const [ovens, nextLoad] = await Promise.all([
    setupAt(database(), "oven", line.at),
    nextLoadNumber(database(), line.at),
  ]);
  const mayLog = may(person.role, "log-line");
  const files = mayLog
    ? await Promise.all(
        [...ovens.values()]
          .filter((o) => o.data.places.length > 0)
          .map(async (oven) => ({ oven, survey: (await loadSurveys(database(), oven, line.at, 1))[0]?.survey })),
      )
    : [];
  return (
    <StagePage
      line={line}
      units={units}
      stage="cure"
      title="Cure"
      above="Ovens: racks and loads standing here"
      empty="No rack is in an oven."
      to="/cure"
      tabs={<CureTabs here="" />}
    >
      <OpenLoads bakes={line.bakes} now={line.at} timeZone={line.timeZone} mayPull={mayLog} />
      {mayLog && (
        <LoadForm
          key={nextLoad}
          ovens={[...ovens.values()].map((o) => o.code)}
          racks={line.racks.filter((r) => r.stage === "coat").map(({ number, part }) => ({ number, part }))}
          nextLoad={nextLoad}
          places={files.flatMap((f) =>
            f.oven.data.places.map((p) => {
              const off = f.survey?.places.find((s) => s.place.toLowerCase() === p.id.toLowerCase())?.offC;
              const cold = off !== undefined && off < -f.oven.data.spreadMostC / 2;
              return {
                oven: f.oven.code,
                id: p.id,
                note: cold
                  ? `${withUnit(Math.abs(off), "temperatureDifference", units)} colder than set, by the newest survey`
                  : "",
              };
            }),
          )}
        />
      )}
    </StagePage>
  );
}
