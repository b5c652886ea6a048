import type { CoatSituation } from "@/core/coating";
import type { UnitSystem } from "@/core/units";
import type { ShownCoat } from "@/server/line/show-coat";
import type { ThreadRecord } from "@/server/rack/load-rack";
import { when, withUnit } from "../format";
import { Grade, Verdict } from "../marks/verdict";
import { lampWhatName, situationName, systemName } from "../words/coating";

/** The coats on a rack, each with what was set and read, and its earth against the set-up sheet. */
export function CoatsOnRecord({
  coats,
  lotName,
  earthLimitMohm,
  now,
  timeZone,
  units,
}: {
  coats: ShownCoat["coats"];
  lotName: ReadonlyMap<string, string>;
  /** Null where there is no sheet to hold it against. */
  earthLimitMohm: number | null;
  now: Date;
  timeZone: string;
  units: UnitSystem;
}) {
  return coats.map(({ base, by, row }) => {
    const out = earthLimitMohm !== null && row.earth_mohm !== null && row.earth_mohm > earthLimitMohm;
    const usedKg =
      row.hopper_before_kg !== null && row.hopper_after_kg !== null
        ? row.hopper_before_kg + (row.hopper_added_kg ?? 0) - row.hopper_after_kg
        : null;
    return (
      <div
        key={base.id}
        className="row grid-cols-[80px_minmax(0,1fr)_130px_26px] items-center max-[700px]:grid-cols-[64px_minmax(0,1fr)_26px]"
      >
        <b>Coat {row.coat_no}</b>
        <span>
          {row.layer}, {lotName.get(row.lot_id)}, {row.booth}
          {row.situation && `, ${situationName[row.situation as CoatSituation]}`}
          {row.system && row.system !== "single" && `, ${systemName[row.system as keyof typeof systemName]}`}
          {row.kv !== null && (
            <>
              , <b className="fig">{row.kv} kV</b>
            </>
          )}
          {row.gun_air_kpa !== null && (
            <>
              , air <b className="fig">{withUnit(row.gun_air_kpa, "pressure", units)}</b>
            </>
          )}
          {row.booth_air_m_per_s !== null && (
            <>
              , draught <b className="fig">{withUnit(Number(row.booth_air_m_per_s), "airSpeed", units)}</b>
            </>
          )}
          {row.sprayed_hot && (
            <b className="text-watch">
              , hot-applied{row.metal_c === null ? "" : ` at ${withUnit(row.metal_c, "temperature", units)}`}
            </b>
          )}
          {row.reclaim_percent !== null && `, reclaim ${row.reclaim_percent} %`}
          {usedKg !== null && (
            <>
              , <b className="fig">{withUnit(usedKg, "mass", units, 1)}</b> out of the hopper
            </>
          )}
          <span className="faint small block">
            {when(base.happened_at, now, timeZone)}, {by}
          </span>
        </span>
        <span className="max-[700px]:hidden">
          <Verdict result={row.earth_mohm === null ? "unknown" : out ? "out" : "in"}>
            {row.earth_mohm === null ? "earth not read" : `earth ${row.earth_mohm} MΩ`}
          </Verdict>
        </span>
        <Grade grade={base.grade} />
      </div>
    );
  });
}

/** Looks under the lamp at the loose powder, each with what it saw. */
export function LampsOnRecord({
  lamps,
  now,
  timeZone,
}: {
  lamps: readonly ThreadRecord[];
  now: Date;
  timeZone: string;
}) {
  return lamps.map((r) => {
    const row = r.details.lamp_check?.[0];
    const spots = r.details.light_spot ?? [];
    const left = spots.filter((s) => s.what === "light-left").length;
    return (
      row && (
        <p key={r.base.id} className="m-0">
          <Verdict result={row.bumped ? "out" : left > 0 ? "watch" : "in"}>
            {row.bumped
              ? "bumped: look at it before the oven"
              : left > 0
                ? `${left} light ${left === 1 ? "place" : "places"} left`
                : spots.length > 0
                  ? `${spots.length} ${spots.length === 1 ? "place" : "places"}: ${[...new Set(spots.map((s) => lampWhatName[s.what as keyof typeof lampWhatName]))].join(", ")}`
                  : "nothing shines through"}
          </Verdict>{" "}
          <span className="small soft">
            {row.wiped && "fits wiped, "}
            {row.plugs_in !== null && `${row.plugs_in} plugs in, `}
            {row.note && `${row.note}, `}
            {when(r.base.happened_at, now, timeZone)}, {r.by}
          </span>
        </p>
      )
    );
  });
}
