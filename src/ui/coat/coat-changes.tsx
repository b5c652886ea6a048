import type { UnitSystem } from "@/core/units";
import type { CoatCompared, SettingMoved } from "@/server/coat/compare-coat";
import { dayMonth, withUnit } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { comparedName, comparedValue, saysName } from "../words/coating";

/** What differs from the last good rack, the most unusual first; and what past changes of a setting did to the film. */
export function CoatChanges({
  compared,
  moved,
  units,
  timeZone,
}: {
  compared: CoatCompared;
  moved: readonly SettingMoved[];
  units: UnitSystem;
  timeZone: string;
}) {
  const { good, changes, same, notKnown } = compared;
  return (
    <>
      {!good && (
        <p className="soft m-0">No rack of this part and powder was accepted before: nothing to hold it against.</p>
      )}
      {good && (
        <>
          <p className="m-0">
            Against rack{" "}
            <Link className="link fig font-bold" href={`/racks/${good.rack}`}>
              {good.rack}
            </Link>
            , the last accepted before it{changes.length === 0 ? ": nothing that is on record differs." : "."}
          </p>
          {changes.slice(0, 8).map((c) => (
            <div
              key={c.name}
              className="row grid-cols-[minmax(0,1fr)_120px_120px_minmax(0,1.2fr)] items-center max-[700px]:grid-cols-[minmax(0,1fr)_90px_90px]"
            >
              <b>{comparedName(c.name)}</b>
              <span className="num soft">{comparedValue(c.name, c.good, units)}</span>
              <span className="num">
                <b>{comparedValue(c.name, c.now, units)}</b>
              </span>
              <span className="max-[700px]:col-span-3">
                <Verdict
                  result={c.among < 4 ? "unknown" : c.unusual >= 0.95 ? "out" : c.unusual >= 0.75 ? "watch" : "in"}
                >
                  {c.among < 4
                    ? "too few past racks to say"
                    : c.unusual >= 0.995
                      ? `not seen in ${c.among} racks`
                      : `more unusual than ${Math.round(c.unusual * 100)} % of ${c.among}`}
                </Verdict>
              </span>
            </div>
          ))}
          <p className="small soft m-0 mt-1">
            {same} the same
            {notKnown.length > 0 && `; not on record for one of the two: ${notKnown.map(comparedName).join(", ")}`}.
            Unusual is not the cause: change one thing and read again.
          </p>
        </>
      )}
      {moved.length > 0 && (
        <div className="mt-4">
          <h3 className="m-0">What past changes did to the film</h3>
          {moved.map((m) => (
            <div
              key={m.setting}
              className="row grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)_auto] items-center max-[700px]:grid-cols-1"
            >
              <span>
                <b>{comparedName(m.setting)}</b>{" "}
                <span className="soft">
                  {comparedValue(m.setting, m.from, units)} → {comparedValue(m.setting, m.to, units)},{" "}
                  {dayMonth(m.since, timeZone)}
                </span>
              </span>
              <span className="fig">
                {m.film.difference >= 0 ? "+" : "−"}
                {withUnit(Math.abs(m.film.difference), "thickness", units)}{" "}
                <span className="soft small">
                  95 %: {withUnit(m.film.interval[0], "thickness", units)} to{" "}
                  {withUnit(m.film.interval[1], "thickness", units)}; {m.film.before.n} and {m.film.after.n} racks
                </span>
              </span>
              <Verdict
                result={
                  m.film.says === "helped"
                    ? "in"
                    : m.film.says === "made-worse"
                      ? "out"
                      : m.film.says === "moved"
                        ? "watch"
                        : "unknown"
                }
              >
                {saysName[m.film.says]}
              </Verdict>
            </div>
          ))}
        </div>
      )}
    </>
  );
}
