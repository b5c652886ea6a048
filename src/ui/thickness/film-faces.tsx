import { faceDifference } from "@/core/thickness";
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
  /** Means of its spots, µm; whether it is a face and no part of one. */
  readonly means: readonly number[];
  readonly whole: boolean;
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
  const apart = mostApart(faces);
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
      {apart && (
        <p className="small m-0 mt-1">
          Most apart: {apart.thick.name} over {apart.thin.name} by <b className="fig">{um(apart.by.diffUm)}</b>
          <span className="soft">
            {" "}
            (95 times in 100 between {um(apart.by.interval[0])} and {um(apart.by.interval[1])})
            {apart.by.toldApart
              ? ": one side has more. Look at the distance, the second pass and which way it hangs."
              : ": not told apart by these spots."}
          </span>
        </p>
      )}
    </div>
  );
}

/** The two whole faces whose films are furthest apart; null where fewer than two were read at two spots. */
function mostApart(faces: readonly FaceFilm[]) {
  const read = faces.filter((f) => f.whole && f.means.length >= 2).sort((a, b) => (b.meanUm ?? 0) - (a.meanUm ?? 0));
  const [thick, thin] = [read[0], read.at(-1)];
  if (!thick || !thin || thick === thin) return null;
  const by = faceDifference(thick.means, thin.means);
  return by.ok ? { thick, thin, by: by.value } : null;
}
