import { headers } from "next/headers";
import type { ReactNode } from "react";
import { currentLine } from "@/server/line/current-line";
import { railFacts } from "@/server/line/rail-facts";
import { preferences } from "@/server/preferences";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { tourOf } from "@/server/tour";
import { clock } from "@/ui/format";
import { EarlyPresses } from "@/ui/frame/early-presses";
import { Rail } from "@/ui/frame/rail";
import { ShellProvider } from "@/ui/frame/shell";
import { PreferencesProvider } from "@/ui/preferences-context";
import { tourSteps } from "@/ui/tour/steps";
import { TourBar } from "@/ui/tour/tour-bar";
import { choose, findPlaces, pull, save, saveShorthand, signOut, tour } from "../actions";

export const dynamic = "force-dynamic";

export default async function LineLayout({ children }: { children: ReactNode }) {
  const person = await personOnPage();
  const [line, chosen, head, tourAt] = await Promise.all([
    currentLine(person),
    preferences(),
    headers(),
    tourOf(person),
  ]);
  const steps = tourSteps.filter((s) => may(person.role, s.may));
  const step = tourAt === null ? undefined : steps[tourAt];
  const clockText = clock(line.at, line.timeZone);
  return (
    <PreferencesProvider
      value={{
        ...chosen,
        timeZone: line.timeZone,
        who: person.id,
        administers: may(person.role, "administer"),
        setsUp: may(person.role, "release"),
      }}
    >
      <EarlyPresses nonce={head.get("x-nonce") ?? ""} />
      <a className="skip-link btn" href="#bench">
        Past the line, to the page
      </a>
      <div className="frame">
        <ShellProvider
          actions={{ save, saveShorthand, findPlaces, pull, choose, signOut, tour }}
          nonce={head.get("x-nonce") ?? ""}
        >
          <Rail
            facts={railFacts(line, (at) => clock(at, line.timeZone))}
            person={person}
            clockText={clockText}
            shift={line.shift.name}
          />
          <main className="body" id="bench" tabIndex={-1}>
            {step && <TourBar step={step} at={tourAt ?? 0} of={steps.length} keep={tour} />}
            {children}
          </main>
        </ShellProvider>
      </div>
    </PreferencesProvider>
  );
}
