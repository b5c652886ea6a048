import { infraredDoubt, infraredHold, infraredReading, isHardCooling } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import type { LoadFile } from "@/server/cure/open-load";
import { clock, minutesSeconds, withUnit } from "../format";
import { MarginBlock } from "../frame/margin";
import { Grade, Verdict } from "../marks/verdict";
import { aimName, bakeEventName, coolingName, doubtWords } from "../words/cure";
import { failureText } from "../words/failures";

/** What was noted of a load, in order; under lamps the readings of each section in a line. */
export function LoadNoted({ file, units, timeZone }: { file: LoadFile; units: UnitSystem; timeZone: string }) {
  return (
    <MarginBlock title="Noted of this load">
      {file.events.length === 0 && <p className="soft">Nothing yet. The melt, the door and readings go here.</p>}
      {file.sections?.map((section) => (
        <SectionNoted key={section} file={file} section={section} units={units} timeZone={timeZone} />
      ))}
      {file.events
        .filter((e) => e.section === null)
        .map((e) => (
          <div key={e.recordId} className="row grid-cols-[52px_minmax(0,1fr)]">
            <span className="fig soft">{clock(e.at, timeZone)}</span>
            <span>
              {bakeEventName[e.event]}
              {e.valueC !== null && (
                <>
                  {" "}
                  <b className="fig">{withUnit(e.valueC, "temperature", units)}</b>
                </>
              )}
              {e.aim && <span className="soft"> on {aimName[e.aim as keyof typeof aimName]}</span>}
              {e.count !== null && (
                <span className={e.asked !== null && e.count !== e.asked ? "text-out" : "text-in"}>
                  {" "}
                  {e.count}
                  {e.asked !== null && ` of ${e.asked} in`}
                </span>
              )}{" "}
              {e.method && (
                <>
                  <span className="soft">{coolingName[e.method]}</span>{" "}
                  {isHardCooling(e.method) && <Verdict result="watch">Look at its finish</Verdict>}
                </>
              )}
              {e.event === "infrared" && <DoubtOf event={e} />}
              {e.event === "cool" && e.rack && file.racksInLoad > 1 && <span className="soft">on {e.rack} </span>}
              {e.event === "cool" && e.valueC !== null && (
                <Verdict result={e.valueC <= file.handleBelowC ? "in" : "watch"}>
                  {e.valueC <= file.handleBelowC ? "May be taken down" : "Still too warm"}
                </Verdict>
              )}
            </span>
          </div>
        ))}
      {!file.sections && <InfraredProof file={file} units={units} />}
      <MeltBeside file={file} />
    </MarginBlock>
  );
}

type Noted = LoadFile["events"][number];

function DoubtOf({ event }: { event: Noted }) {
  const doubt = infraredDoubt(infraredReading(event));
  return doubt.ok && doubt.value ? <span className="small text-watch">{doubtWords[doubt.value]}</span> : null;
}

/** The melt beside what is usual for the section: late says the oven or the load is not as usual. */
function MeltBeside({ file }: { file: LoadFile }) {
  const melt = file.events.find((e) => e.event === "melted");
  const usual = file.usualMelt;
  if (!melt) return null;
  if (!usual)
    return <p className="small soft mt-2">No three loads of like sections with a melt on record to compare with.</p>;
  const far = Math.abs(melt.atS - usual.meanS) > 2 * usual.sdS;
  return (
    <p className="mt-2">
      Melted after <b className="fig">{(melt.atS / 60).toFixed(1)} min</b>; usual for the section{" "}
      {(usual.meanS / 60).toFixed(1)} ± {(usual.sdS / 60).toFixed(1)} min ({usual.loads} loads){" "}
      {far && <Verdict result="watch">{melt.atS > usual.meanS ? "Late" : "Early"}</Verdict>}
    </p>
  );
}

/** The readings of one section in a line: how many, from when to when, between what. */
function SectionNoted({
  file,
  section,
  units,
  timeZone,
}: {
  file: LoadFile;
  section: string;
  units: UnitSystem;
  timeZone: string;
}) {
  const own = file.events.filter((e) => e.section === section && e.valueC !== null);
  const [first, last] = [own[0], own.at(-1)];
  const heat = own.map((e) => e.valueC ?? 0);
  return (
    <div className="row grid-cols-[minmax(0,1fr)_auto]">
      <b>{section}</b>
      <span className="num">
        {first && last ? `${own.length} ${own.length === 1 ? "reading" : "readings"}` : "not read"}
      </span>
      {first && last && (
        <span className="small soft">
          {clock(first.at, timeZone)}–{clock(last.at, timeZone)}, {withUnit(Math.min(...heat), "temperature", units)} to{" "}
          {withUnit(Math.max(...heat), "temperature", units)}
        </span>
      )}
    </div>
  );
}

/** What the spot readings alone would prove. */
function InfraredProof({ file, units }: { file: LoadFile; units: UnitSystem }) {
  const readings = file.events.filter((e) => e.event === "infrared" && e.valueC !== null).map(infraredReading);
  if (readings.length < 2) return null;
  const lowest = Math.min(...file.racks.flatMap((r) => r.schedule.points.map((p) => p.metalC)));
  const hold = infraredHold(readings, lowest);
  if (!hold.ok) return <p className="small text-watch">{failureText(hold.error)}</p>;
  return (
    <p className="mt-2">
      By these readings alone <b className="fig">{minutesSeconds(hold.value.longestS)}</b> at{" "}
      {withUnit(lowest, "temperature", units)} or over, from {hold.value.used} relied on{" "}
      <Grade grade={hold.value.grade} />
    </p>
  );
}
