import { Suspense } from "react";
import { candidates, lookedInto, passedLike, type RiskPlace, riskPlaces } from "@/server/causes/containment";
import type { CaseFile } from "@/server/causes/load-case";
import { database } from "@/server/database";
import { may, type Person } from "@/server/sign-in/roles";
import { HoldForm } from "@/ui/causes/hold-form";
import { Fold } from "@/ui/fields/fold";
import { countOf, when } from "@/ui/format";
import Link from "@/ui/link";
import { Verdict } from "@/ui/marks/verdict";
import { causeShort } from "@/ui/words/causes";
import { riskPlaceDo, riskPlaceName } from "@/ui/words/risk";
import { holdRacks } from "../../actions";

type Props = { person: Person; file: CaseFile; cause: string; at: Date; timeZone: string };
const SHOWN = 12;

/** What else passed like this: how many may have, at once; where they are and what to do about each, as it is found. */
export async function AtRisk(props: Props) {
  const { person, file, cause, at } = props;
  if (!file.rack) return null;
  const found = await candidates(
    database(),
    person,
    { rackId: file.rack.id, defect: file.defect, established: file.established },
    cause,
    at,
  );
  const label = file.known.knowledge.causes.get(cause)?.label ?? cause;
  return (
    <section className="ruled mt-6" id="at-risk" aria-label="What else passed like this">
      <h2>What else passed like this</h2>
      {found.shared.length === 0 ? (
        <p className="soft mt-1">
          Nothing that is on record of this rack speaks for {causeShort(label)}: there is no condition to look for on
          others.
        </p>
      ) : (
        <>
          <p className="mt-1">
            Looked for, of {countOf(found.among, "other rack")} on record:{" "}
            {found.shared.map((s) => causeShort(s.label)).join("; ")}.{" "}
            <b>{found.ids.length === 0 ? "None" : countOf(found.ids.length, "rack")}</b> may have passed like it
            {found.byColumns.length < found.shared.length && found.ids.length > 0 ? ", before each is looked into" : ""}
            .
          </p>
          {found.ids.length > 0 && (
            <Suspense
              fallback={
                <p className="soft" role="status">
                  Looking into{" "}
                  {lookedInto(found).left > 0 ? `the nearest ${lookedInto(found).ids.length} of them` : "each of them"}{" "}
                  …
                </p>
              }
            >
              <Places {...props} found={found} />
            </Suspense>
          )}
        </>
      )}
    </section>
  );
}

async function Places({
  person,
  file,
  cause,
  at,
  timeZone,
  found,
}: Props & { found: Awaited<ReturnType<typeof candidates>> }) {
  const { ids, left } = lookedInto(found);
  const racks = await passedLike(database(), person, ids, found, file.defect, at);
  const pieces = racks.reduce((n, r) => n + r.pieces, 0);
  const holdable = racks.filter((r) => (r.place === "stoppable" || r.place === "in-shop") && !r.onHold);
  const of = (place: RiskPlace) => racks.filter((r) => r.place === place);
  const customers = new Map(
    racks.filter((r) => r.place === "shipped" || r.place === "in-field").map((r) => [r.customerId, r.customer]),
  );
  const label = causeShort(file.known.knowledge.causes.get(cause)?.label ?? cause);
  return (
    <>
      <p className="m-0">
        <b>
          {countOf(racks.length, "rack")}, {countOf(pieces, "piece")}
        </b>{" "}
        passed under all of it{left > 0 ? `; ${left} further off in time were not looked into` : ""}.
      </p>
      {riskPlaces.map((place) => {
        const mine = of(place);
        if (mine.length === 0) return null;
        const row = (r: (typeof mine)[0]) => (
          <div
            key={r.number}
            className="row grid-cols-[76px_120px_minmax(0,1fr)_auto] items-center max-[700px]:grid-cols-[76px_minmax(0,1fr)]"
          >
            <Link className="link fig font-bold" href={`/racks/${r.number}`}>
              {r.number}
            </Link>
            <span className="soft small fig">{when(r.hungAt, at, timeZone)}</span>
            <span>
              {r.part}, {countOf(r.pieces, "piece")}
              {r.structures.length > 0 ? `, in ${r.structures.join(", ")}` : ""}
              <span className="soft"> {r.customer}</span>
            </span>
            <Verdict result={r.showsIt ? "out" : r.onHold ? "watch" : "unknown"}>
              {r.showsIt ? "shows it" : r.onHold ? "on hold" : "not on record"}
            </Verdict>
          </div>
        );
        return (
          <div key={place} className="mt-3">
            <h3 className="m-0 font-bold text-[15px]">
              {riskPlaceName[place]}: {countOf(mine.length, "rack")},{" "}
              {countOf(
                mine.reduce((n, r) => n + r.pieces, 0),
                "piece",
              )}
            </h3>
            <p className="soft small m-0">{riskPlaceDo[place]}</p>
            {mine.slice(0, SHOWN).map(row)}
            {mine.length > SHOWN && (
              <Fold summaryClassName="min-h-11 soft" summary={`${mine.length - SHOWN} more`}>
                {mine.slice(SHOWN).map(row)}
              </Fold>
            )}
          </div>
        );
      })}
      {may(person.role, "release") && (
        <HoldForm
          key={holdable.length}
          caseNumber={file.number}
          racks={holdable.map((r) => r.number)}
          because={`passed like rack ${file.rack?.number ?? ""}: ${label}`}
          hold={holdRacks}
        />
      )}
      {customers.size > 0 && may(person.role, "inspect") && (
        <p className="no-print mt-3 flex flex-wrap gap-2">
          {[...customers].map(([id, name]) => (
            <Link key={id} className="btn" href={`/causes/${file.number}/message?customer=${id}`}>
              Message for {name}
            </Link>
          ))}
        </p>
      )}
    </>
  );
}
