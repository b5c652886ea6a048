import type { Face } from "@/core/plan";
import { MAP_CELLS, type MapCell } from "@/core/yield";
import { percent } from "../format";
import Link from "../link";

const LONG = 400;
/** Cells are pressed with gloves on: no narrower than eight of these. */
const NARROWEST = MAP_CELLS * 42;
const sizeOf = ({ sizeMm }: Face): readonly [number, number] => {
  if (!sizeMm) return [NARROWEST, LONG];
  const scale = Math.min(LONG / sizeMm[0], LONG / sizeMm[1]);
  return [Math.max(NARROWEST, sizeMm[0] * scale), Math.max(NARROWEST, sizeMm[1] * scale)];
};

/** A part's faces with how many racks had a place in each cell: the number inside, a darker ground for more; a press leads to the racks. */
export function PartHeat({
  faces,
  cells,
  href,
  chosen,
}: {
  faces: readonly Face[];
  cells: readonly MapCell[];
  href: (cell: MapCell) => string;
  chosen: string | null;
}) {
  const most = Math.max(1, ...cells.map((c) => c.racks.length));
  return (
    <div className="flex flex-wrap gap-8">
      {faces.map((face) => {
        const [w, h] = sizeOf(face);
        return (
          <figure key={face.id} className="m-0">
            <figcaption className="small mb-1">{face.name}</figcaption>
            <div className="relative" style={{ width: w, height: h }}>
              <svg
                viewBox="0 0 100 100"
                preserveAspectRatio="none"
                className="absolute inset-0 h-full w-full"
                aria-hidden="true"
              >
                <path
                  d={`M${face.outline.map(([x, y]) => `${x} ${y}`).join("L")}Z`}
                  fill="var(--raised)"
                  stroke="var(--ink-2)"
                  strokeWidth="1.5"
                  vectorEffect="non-scaling-stroke"
                />
              </svg>
              {cells
                .filter((c) => c.face === face.id)
                .map((c) => {
                  const weight = c.racks.length / most;
                  const key = `${c.face}-${c.column}-${c.row}`;
                  return (
                    <Link
                      key={key}
                      href={href(c)}
                      aria-label={`${face.name}, column ${c.column + 1}, row ${c.row + 1} of ${MAP_CELLS}: ${c.racks.length} racks${c.share === null ? "" : `, ${percent(c.share)} of those looked at`}`}
                      className={`fig absolute flex items-center justify-center border no-underline ${key === chosen ? "border-[3px] border-ink" : "border-rule-strong"} ${weight > 0.6 ? "text-bench" : "text-ink"}`}
                      style={{
                        left: `${(c.column / MAP_CELLS) * 100}%`,
                        top: `${(c.row / MAP_CELLS) * 100}%`,
                        width: `${100 / MAP_CELLS}%`,
                        height: `${100 / MAP_CELLS}%`,
                        background: `color-mix(in srgb, var(--sorrel) ${Math.round(15 + 85 * weight)}%, var(--raised))`,
                      }}
                    >
                      <b>{c.racks.length}</b>
                    </Link>
                  );
                })}
            </div>
          </figure>
        );
      })}
    </div>
  );
}
