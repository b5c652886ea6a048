import type { OutStretch } from "@/core/bath";
import type { UnitSystem } from "@/core/units";
import type { Exposure, HowFar } from "@/server/baths/exposure";
import { Fold } from "../fields/fold";
import { when } from "../format";
import { List } from "../lists/list";
import { Verdict } from "../marks/verdict";
import { bathValue, parameterName } from "../words/baths";
import { passageName } from "../words/preparation";

const howFarWord: Record<HowFar, string> = {
  "still-here": "Still here",
  released: "Released",
  "in-the-field": "In the field",
  scrapped: "Scrapped",
};
const howFarResult = { "still-here": "watch", released: "out", "in-the-field": "out", scrapped: "unknown" } as const;

const columns = [
  { key: "rack", head: "rack", width: "56px", look: "fig font-bold" },
  { key: "part", head: "part", width: "minmax(0,1fr)" },
  { key: "passed", head: "passed", width: "120px", wide: true, look: "small faint" },
  { key: "far", head: "now", width: "minmax(110px,170px)" },
];

/** A time out of window with the racks that passed in it, and how far each has got: what can still be stopped comes first. */
export function ExposureList({
  parameter,
  stretch,
  exposure,
  now,
  timeZone,
  units,
}: {
  parameter: string;
  stretch: OutStretch;
  exposure: Exposure;
  now: Date;
  timeZone: string;
  units: UnitSystem;
}) {
  const time = (ms: number) => when(new Date(ms), now, timeZone);
  const counts = (Object.entries(exposure.byHowFar) as [HowFar, number][]).filter(([, n]) => n > 0);
  const inOrder = [...exposure.racks].sort(
    (a, b) => Number(b.howFar === "still-here") - Number(a.howFar === "still-here"),
  );
  return (
    <Fold
      className="ruled mt-2"
      summaryClassName="list-none flex min-h-11 flex-wrap items-center gap-x-4 gap-y-1 w-full"
      summary={
        <>
          <b>
            {parameterName[parameter]} out, {time(stretch.firstOutMs)} to{" "}
            {stretch.toMs === null ? "now" : time(stretch.toMs)}
          </b>
          <span className="soft">
            up to {bathValue(parameter, stretch.worst, units)}, {stretch.checksOut} check
            {stretch.checksOut === 1 ? "" : "s"}
          </span>
          <span className="ml-auto flex flex-wrap gap-x-4">
            {exposure.total === 0 ? (
              <Verdict result="in">No rack passed</Verdict>
            ) : (
              counts.map(([howFar, n]) => (
                <Verdict key={howFar} result={howFarResult[howFar]}>
                  {n} {howFarWord[howFar].toLowerCase()}
                </Verdict>
              ))
            )}
          </span>
        </>
      }
    >
      <p className="small soft m-0">
        Counted from the last good check, {time(stretch.fromMs)}: it left its window unseen after that.
      </p>
      <List
        name={`Racks that passed while ${parameterName[parameter]} was out`}
        empty="No rack passed."
        part={exposure.total > exposure.racks.length}
        columns={columns}
        rows={inOrder.map((rack) => {
          const whole =
            rack.howFar === "still-here" && rack.stage
              ? `Last at ${(passageName[rack.stage] ?? rack.stage).toLowerCase()}`
              : howFarWord[rack.howFar];
          const far = rack.parted && rack.howFar !== "released" ? `${whole}; some pieces released` : whole;
          return {
            key: rack.number,
            href: `/racks/${rack.number}`,
            cells: {
              passed: time(rack.enteredAt.getTime()),
              far: <Verdict result={rack.parted ? "out" : howFarResult[rack.howFar]}>{far}</Verdict>,
            },
            values: { rack: rack.number, part: rack.part, passed: rack.enteredAt.toISOString(), far },
          };
        })}
      />
      {exposure.total > exposure.racks.length && (
        <p className="small soft m-0">
          The newest {exposure.racks.length} of {exposure.total} are listed.
        </p>
      )}
    </Fold>
  );
}
