import { type BakeChannel, type Climb, heatingRate, judgeClimb } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { climbWords } from "../words/cure";

type Bounds = readonly [number, number] | null;
type Climbing = { readonly rate: number; readonly off: Exclude<Climb, "usual"> | null };

/** Mean climb between 60 and 150 °C, where the powder melts and flows, against the sheet; air is not held against it. */
function climbing({ medium, trace }: BakeChannel, bounds: Bounds): Climbing | null {
  const rate = heatingRate(trace);
  if (rate === null) return null;
  const judged = bounds && medium === "metal" ? judgeClimb(rate, bounds) : null;
  return { rate, off: judged?.ok && judged.value !== "usual" ? judged.value : null };
}

export function Climbed({ channel, bounds, units }: { channel: BakeChannel; bounds: Bounds; units: UnitSystem }) {
  const found = climbing(channel, bounds);
  if (!found) return "–";
  return (
    <span className={found.off ? "font-bold text-watch" : ""}>
      {withUnit(found.rate, "temperatureDifference", units)}
      {found.off && ` ${found.off}`}
    </span>
  );
}

/** The climbs of the metal against both bounds of the sheet, in words; nothing where the sheet has none. */
export function ClimbLine({
  channels,
  bounds,
  units,
}: {
  channels: readonly BakeChannel[];
  bounds: Bounds;
  units: UnitSystem;
}) {
  if (!bounds) return null;
  const range = `${withUnit(bounds[0], "temperatureDifference", units).split(" ")[0]}–${withUnit(bounds[1], "temperatureDifference", units)}`;
  const off = channels.flatMap((c) => {
    const found = climbing(c, bounds);
    return found?.off ? [{ name: c.name, rate: found.rate, climb: found.off }] : [];
  });
  if (off.length === 0) return <p className="soft m-0 mt-2">Climb as it melts within the sheet’s {range} a minute.</p>;
  return off.map((c) => (
    <p key={c.name} className="m-0 mt-2 text-watch">
      {c.name} climbs {withUnit(c.rate, "temperatureDifference", units)} a minute, on {range}: {climbWords[c.climb]}.
    </p>
  ));
}
