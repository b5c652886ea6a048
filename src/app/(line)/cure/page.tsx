import type { Metadata } from "next";
import { hangingRacks } from "@/server/cure/open-load";
import { loadSurveys } from "@/server/cure/oven-file";
import { database } from "@/server/database";
import { currentLine } from "@/server/line/current-line";
import { nextLoadNumber } from "@/server/line/next-load";
import { racksToCure, showRacks } from "@/server/line/show-racks";
import { preferences } from "@/server/preferences";
import { setupAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { CureTabs } from "@/ui/cure/cure-tabs";
import { LoadForm } from "@/ui/cure/load-form";
import { OpenLoads } from "@/ui/cure/open-loads";
import { plannedStart } from "@/ui/cure/planned-start";
import { StagePage } from "@/ui/shift/stage-page";

export const metadata: Metadata = { title: "Cure" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const person = await personOnPage();
  const [line, { units }, search] = await Promise.all([currentLine(person), preferences(), searchParams]);
  const db = database();
  const mayLog = may(person.role, "log-line");
  const waiting = mayLog ? await racksToCure(db, person, line.at) : [];
  const list = await showRacks(db, person, search, line.at, "cure");
  const [ovens, nextLoad, hanging] = await Promise.all([
    setupAt(db, "oven", line.at),
    nextLoadNumber(db, line.at),
    mayLog
      ? hangingRacks(
          db,
          person,
          waiting.map((r) => r.number),
          line.at,
        )
      : [],
  ]);
  const floors = mayLog
    ? await Promise.all(
        [...ovens.values()]
          .sort(
            (a, b) => Number(a.data.type === "lamps") - Number(b.data.type === "lamps") || a.code.localeCompare(b.code),
          )
          .map(async (oven) => ({
            code: oven.code,
            lamps: oven.data.type === "lamps",
            places: oven.data.places,
            survey: oven.data.places.length > 0 ? ((await loadSurveys(db, oven, line.at, 1))[0]?.survey ?? null) : null,
            spreadMostC: oven.data.spreadMostC,
            inside: oven.data.insideMm,
          })),
      )
    : [];
  return (
    <StagePage
      line={line}
      units={units}
      stage="cure"
      title="Cure"
      above="Ovens: racks and loads standing here"
      list={list}
      path="/cure"
      empty="No rack is in an oven."
      tabs={<CureTabs here="" />}
    >
      <OpenLoads bakes={line.bakes} now={line.at} timeZone={line.timeZone} mayPull={mayLog} />
      {mayLog && (
        <LoadForm
          key={nextLoad}
          ovens={floors}
          racks={waiting.flatMap(({ number, part }) => {
            const known = hanging.find((h) => h.rack === number);
            return known
              ? [
                  {
                    number,
                    part,
                    metal: known.metal,
                    sectionMm: known.sectionMm,
                    hollow: known.hollow,
                    massKg: known.massKg,
                    faces: known.faces,
                  },
                ]
              : [];
          })}
          nextLoad={nextLoad}
          start={plannedStart(
            search,
            floors.map((f) => f.code),
          )}
        />
      )}
    </StagePage>
  );
}
