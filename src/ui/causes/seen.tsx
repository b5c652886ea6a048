import type { UnitSystem } from "@/core/units";
import type { CaseFile } from "@/server/causes/load-case";
import { PartSketch } from "../charts/part-sketch";
import { countOf } from "../format";

const PHOTOS = 3;

/** What is seen: on the sketch of the part where it was placed, with its photos, and on how many pieces. */
export function Seen({ file, units }: { file: CaseFile; units: UnitSystem }) {
  const faces = file.rack?.part.data.faces ?? [];
  const marks = file.defects.flatMap((d) =>
    d.face && d.x !== null && d.y !== null && faces.some((f) => f.id === d.face)
      ? [{ face: d.face, x: d.x, y: d.y, label: "" }]
      : [],
  );
  const shown = faces.filter((f) => file.defects.some((d) => d.face === f.id));
  const photos = file.defects.flatMap((d) => d.photos).slice(0, PHOTOS);
  const racks = new Set(file.defects.flatMap((d) => d.rack ?? [])).size;
  const pieces = file.defects.reduce((n, d) => n + (d.piecesAffected ?? 0), 0);
  return (
    <figure className="m-0 grid max-w-[340px] justify-items-end gap-2 max-[700px]:justify-items-start">
      {shown.length > 0 && (
        <div className="max-h-[150px] [&_svg]:max-h-[150px] [&_text]:hidden">
          <PartSketch units={units} faces={shown.map((f) => ({ ...f, spots: [] }))} marks={marks} />
        </div>
      )}
      {photos.length > 0 && (
        <div className="flex gap-2">
          {photos.map((id) => (
            <a key={id} href={`/api/files/${id}`}>
              {/* biome-ignore lint/performance/noImgElement: a private file, served to who may see it. */}
              <img
                src={`/api/files/${id}`}
                alt="The fault as it was photographed"
                className="h-[72px] w-[96px] object-cover"
              />
            </a>
          ))}
        </div>
      )}
      <figcaption className="soft small text-right max-[700px]:text-left">
        {file.defects.length === 0
          ? "No record of it stands."
          : `${countOf(file.defects.length, "record")} of it${racks > 1 ? ` on ${racks} racks` : ""}${pieces > 0 ? `, ${countOf(pieces, "piece")}` : ""}${
              file.defects.some((d) => d.face)
                ? `; seen on ${[...new Set(file.defects.flatMap((d) => (d.face ? (faces.find((f) => f.id === d.face)?.name ?? d.face) : [])))].join(", ").toLowerCase()}`
                : ""
            }`}
      </figcaption>
    </figure>
  );
}
