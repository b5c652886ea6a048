import type { Face, Zone } from "@/core/plan";
import { zones } from "@/core/plan";
import type { Acceptance } from "@/core/site";
import { countOf } from "../format";

/** How closely each face is looked at: its zones, from how far, in what light, and what passes. */
export function ZonesToLook({
  faces,
  acceptance,
  own,
}: {
  faces: readonly Pick<Face, "id" | "name" | "zone" | "areas">[];
  acceptance: Acceptance;
  /** The classes are the customer's own; else the usual ones. */
  own: boolean;
}) {
  const inZone = (zone: Zone) =>
    faces.flatMap((f) => [
      ...(f.zone === zone ? [f.name] : []),
      ...f.areas
        .filter((a) => a.kind === zone)
        .map((a) => (a.note ? `${a.note} on ${f.name}` : `an area of ${f.name}`)),
    ]);
  const bare = faces.flatMap((f) =>
    f.areas.filter((a) => a.kind === "bare").map((a) => `${a.note || "an area"} on ${f.name}`),
  );
  return (
    <section aria-label="How closely">
      {zones
        .map((zone) => ({ zone, where: inZone(zone), c: acceptance[zone] }))
        .filter(({ where }) => where.length > 0)
        .map(({ zone, where, c }) => (
          <div
            key={zone}
            className="row grid-cols-[70px_minmax(0,1fr)_minmax(0,1.3fr)] max-[700px]:grid-cols-[70px_minmax(0,1fr)]"
          >
            <b>Zone {zone}</b>
            <span>{where.join(", ")}</span>
            <span className="soft max-[700px]:col-span-2">
              from <span className="fig">{c.distanceM} m</span> at <span className="fig">{c.lightLux} lx</span> for{" "}
              <span className="fig">{c.seconds} s</span>;{" "}
              {c.mostFaults === 0
                ? "nothing passes that is seen"
                : `${countOf(c.mostFaults, "fault")} a face pass, none over ${c.largestMm} mm`}
            </span>
          </div>
        ))}
      {bare.length > 0 && (
        <p className="m-0 py-1">
          <b>Stays bare:</b> {bare.join(", ")}
        </p>
      )}
      <p className="small faint m-0">
        {own ? "The customer’s own classes." : "Usual classes: this customer has none of their own."}
      </p>
    </section>
  );
}
