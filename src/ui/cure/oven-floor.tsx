"use client";
import { useDroppable } from "@dnd-kit/core";
import type { OvenSurvey } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { OVEN_VIEW, OvenDrawing, placeAt } from "./oven-drawing";

export type FloorOven = {
  readonly code: string;
  /** Cures one piece section by section. */
  readonly lamps: boolean;
  readonly places: readonly { readonly id: string; readonly at: readonly [number, number]; readonly note: string }[];
  readonly survey: OvenSurvey | null;
  readonly spreadMostC: number;
  readonly inside: { readonly lengthMm: number; readonly widthMm: number } | null;
};
type Hung = { readonly rack: string; readonly place: string };

/** The oven from above with a target over each place: a rack is dragged there, or the one in hand is put there by a tap. */
export function OvenFloor({
  oven,
  hung,
  inHand,
  units,
  tap,
}: {
  oven: FloorOven;
  hung: readonly Hung[];
  inHand: string | null;
  units: UnitSystem;
  tap: (place: string) => void;
}) {
  return (
    <div className="relative w-fit max-w-full">
      <OvenDrawing
        places={oven.places}
        survey={oven.survey}
        racks={hung}
        spreadMostC={oven.spreadMostC}
        inside={oven.inside}
        units={units}
      />
      {oven.places.map((place) => (
        <Place key={place.id} oven={oven} place={place} hung={hung} inHand={inHand} units={units} tap={tap} />
      ))}
    </div>
  );
}

/** How far a place was off by the newest survey, in words; empty where none says. */
export function placeNote(oven: FloorOven, place: string, units: UnitSystem): string {
  const off = oven.survey?.places.find((s) => s.place.toLowerCase() === place.trim().toLowerCase())?.offC;
  if (off === undefined || Math.abs(off) < 0.5) return "";
  const much = withUnit(Math.abs(off), "temperatureDifference", units);
  return `${much} ${off < 0 ? "colder" : "hotter"} than set, by the newest survey`;
}

export const isColdPlace = (oven: FloorOven, place: string): boolean => {
  const off = oven.survey?.places.find((s) => s.place.toLowerCase() === place.trim().toLowerCase())?.offC;
  return off !== undefined && off < -oven.spreadMostC / 2;
};

function Place({
  oven,
  place,
  hung,
  inHand,
  units,
  tap,
}: {
  oven: FloorOven;
  place: FloorOven["places"][number];
  hung: readonly Hung[];
  inHand: string | null;
  units: UnitSystem;
  tap: (place: string) => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: `place-${place.id}` });
  const [x, y] = placeAt(place.at);
  const here = hung.filter((h) => h.place.toLowerCase() === place.id.toLowerCase()).map((h) => h.rack);
  const note = placeNote(oven, place.id, units);
  return (
    <button
      ref={setNodeRef}
      type="button"
      aria-label={[
        inHand ? `Hang ${inHand} at ${place.id}` : `Place ${place.id}`,
        here.length > 0 ? `here: ${here.join(", ")}` : "",
        note,
      ]
        .filter(Boolean)
        .join("; ")}
      className={`absolute -translate-x-1/2 -translate-y-1/2 cursor-pointer rounded-full border-2 bg-transparent ${isOver ? "border-sorrel bg-sorrel-tint/60" : inHand ? "border-sorrel border-dashed" : "border-transparent"}`}
      style={{
        left: `${(100 * x) / OVEN_VIEW.width}%`,
        top: `${(100 * y) / OVEN_VIEW.height}%`,
        width: `${6000 / OVEN_VIEW.width}%`,
        height: `${6000 / OVEN_VIEW.height}%`,
        minWidth: 44,
        minHeight: 44,
      }}
      onClick={() => tap(place.id)}
    />
  );
}
