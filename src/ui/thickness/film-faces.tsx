import type { UnitSystem } from "@/core/units";
import { countOf, withUnit } from "../format";
import { Shape } from "../marks/verdict";

export type FaceFilm = {
  readonly id: string;
  readonly name: string;
  readonly meanUm: number | null;
  readonly lowestUm: number | null;
  readonly highestUm: number | null;
  readonly spots: number;
};

/** Each face by itself: its mean and how far it reaches, since a front says nothing of a back. */
export function FilmFaces({
  faces,
  minUm,
  maxUm,
  units,
}: {
  faces: readonly FaceFilm[];
  minUm: number;
  maxUm: number | null;
  units: UnitSystem;
}) {
  const um = (value: number | null) => (value === null ? "–" : withUnit(value, "thickness", units));
  return (
    <div className="ruled mt-3">
      <h2>By face</h2>
      {faces.map((f) => (
        <div key={f.id} className="row grid-cols-[minmax(0,1fr)_90px_minmax(0,1fr)_18px]">
          <span>{f.name}</span>
          <b className="fig num">{um(f.meanUm)}</b>
          <span className="soft small">
            {f.lowestUm === null
              ? "not read"
              : `${f.spots > 1 ? `${um(f.lowestUm)} to ${um(f.highestUm)}, ` : ""}${countOf(f.spots, "spot")}`}
          </span>
          <Shape
            result={
              f.meanUm === null ? "unknown" : f.meanUm < minUm || (maxUm !== null && f.meanUm > maxUm) ? "out" : "in"
            }
          />
        </div>
      ))}
    </div>
  );
}
