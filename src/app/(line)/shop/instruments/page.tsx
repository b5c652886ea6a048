import type { Metadata } from "next";
import { verificationStanding } from "@/core/site";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { now } from "@/server/now";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Verdict } from "@/ui/marks/verdict";
import { InstrumentForm } from "@/ui/shop/instrument-form";
import { SetupList } from "@/ui/shop/setup-list";
import { instrumentKindName, verificationSaid } from "@/ui/words/people";
import { keepInstrument } from "../../actions";

function Verified({ data, today }: { data: Parameters<typeof verificationStanding>[0]; today: string }) {
  const { result, words } = verificationSaid(verificationStanding(data, today));
  return <Verdict result={result}>{words}</Verdict>;
}

export const metadata: Metadata = { title: "Instruments" };

export default async function InstrumentsPage() {
  const person = await personOnPage("release");
  const at = now();
  const [all, { timeZone }, versions] = await Promise.all([
    setupAt(database(), "instrument", at),
    siteAt(database(), at),
    versionsOfKind(database(), "instrument"),
  ]);
  const today = dayIn(at, timeZone);
  return (
    <SetupList
      here="instruments"
      title="Instruments"
      above="What film, ovens and baths are read with"
      people={may(person.role, "administer")}
      empty="No instrument yet. Put the film gauge on record below: it is then checked on its shims, and each reading says which gauge it is of."
      items={all.values()}
      grid="grid-cols-[90px_minmax(0,1fr)_120px_100px_minmax(0,230px)] max-[700px]:grid-cols-[80px_minmax(0,1fr)]"
      line={({ data }) => (
        <>
          <span>{data.name}</span>
          <span className="soft max-[700px]:hidden">{instrumentKindName[data.kind] ?? data.kind}</span>
          <span className="fig soft max-[700px]:hidden">{data.serial}</span>
          <span className="max-[700px]:col-span-2">
            {data.retired ? <span className="soft">no longer used</span> : <Verified data={data} today={today} />}
          </span>
        </>
      )}
      open={(item) => (
        <InstrumentForm
          key={item.versionId}
          known={{ code: item.code, seen: item.versionId, ...item.data }}
          save={keepInstrument}
        />
      )}
      more={<InstrumentForm known={null} save={keepInstrument} />}
      changed={{ versions, timeZone }}
    />
  );
}
