import { judgePanel } from "@/core/bath";
import type { UnitSystem } from "@/core/units";
import type { PanelSeen, PanelTestSeen, SludgeSeen } from "@/server/baths/wash-proofs";
import { plainly, when, withUnit } from "../format";
import { Grade, Verdict } from "../marks/verdict";
import { bathValue, parameterName } from "../words/baths";
import { lookName, sludgeWord } from "../words/wash";

/** Panels of a conversion bath against the weight asked for, and its sludge: what proves the wash beside its figures. */
export function WashProofs({
  panels,
  sludge,
  tests,
  worstIso,
  asked,
  now,
  timeZone,
  units,
}: {
  /** Null where the bath makes no coat to weigh. */
  panels: readonly PanelSeen[] | null;
  sludge: readonly SludgeSeen[];
  tests: readonly PanelTestSeen[];
  worstIso: number;
  asked: readonly [number, number] | null;
  now: Date;
  timeZone: string;
  units: UnitSystem;
}) {
  return (
    <div className="grid grid-cols-2 gap-7 max-[820px]:grid-cols-1">
      {panels && (
        <div className="ruled">
          <h2>
            Panels
            {asked &&
              `, ${withUnit(asked[0], "coatingWeight", units)} to ${withUnit(asked[1], "coatingWeight", units)} asked`}
          </h2>
          {panels.length === 0 && <p className="soft m-0">None on record: the wash is known by its figures alone.</p>}
          {panels.map((p) => (
            <div key={p.recordId} className="row grid-cols-[96px_minmax(0,1fr)_auto_26px] items-center">
              <span className="fig small faint">{when(p.at, now, timeZone)}</span>
              <span>
                {p.colour ?? ""} <span className="soft">{lookName[p.look]}</span>
              </span>
              <Verdict result={judgePanel(p, asked)}>
                {p.gPerM2 === null ? "by colour" : withUnit(p.gPerM2, "coatingWeight", units)}
              </Verdict>
              <Grade grade={p.grade} />
            </div>
          ))}
        </div>
      )}
      {tests.length > 0 && (
        <div className="ruled">
          <h2>Coated panels, tested</h2>
          {tests.map((t) => (
            <div key={t.recordId} className="row grid-cols-[96px_minmax(0,1fr)_auto] items-center">
              <span className="fig small faint">{when(t.at, now, timeZone)}</span>
              <span>
                washed {when(t.washedAt, now, timeZone)}, {t.coating}
                <span className="small soft block">
                  {t.baths.map((b) => (
                    <span key={b.parameter} className="mr-3 inline-block">
                      {parameterName[b.parameter]}{" "}
                      {b.value === null ? (
                        "not known"
                      ) : (
                        <span className={b.result === "out" ? "text-out" : ""}>
                          {bathValue(b.parameter, b.value, units)}
                        </span>
                      )}{" "}
                      <Grade grade={b.grade} />
                    </span>
                  ))}
                </span>
              </span>
              {t.test === "adhesion" ? (
                <Verdict result={(t.iso ?? 5) <= worstIso ? "in" : "out"}>grade {t.iso}</Verdict>
              ) : (
                <span className="num">
                  <b className="fig">{t.creepMm === null ? "" : withUnit(t.creepMm, "creep", units)}</b> creep
                  <span className="small soft block">{t.hours?.toFixed(0)} h salt spray</span>
                </span>
              )}
            </div>
          ))}
        </div>
      )}
      <div className="ruled">
        <h2>Sludge and filters</h2>
        {sludge.length === 0 && <p className="soft m-0">Nothing on record.</p>}
        {sludge.map((s) => (
          <div key={s.recordId} className="row grid-cols-[96px_minmax(0,1fr)_80px] items-center">
            <span className="fig small faint">{when(s.at, now, timeZone)}</span>
            <span>
              {sludgeWord[s.what]} <span className="soft">{s.note}</span>
            </span>
            <span className="num">{s.depthMm === null ? "" : plainly(s.depthMm, "size", units)}</span>
          </div>
        ))}
      </div>
    </div>
  );
}
