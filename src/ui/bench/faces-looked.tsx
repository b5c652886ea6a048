import type { Face } from "@/core/plan";
import type { TypedFault } from "./fault-fields";

/** The faces in a row, each with what was seen on it so far; a press goes to it. */
export function FacesLooked({
  faces,
  at,
  go,
  clear,
  faults,
}: {
  faces: readonly Face[];
  at: number;
  go: (index: number) => void;
  clear: readonly string[];
  faults: readonly TypedFault[];
}) {
  return (
    <fieldset className="m-0 mb-3 max-w-[420px] border-0 p-0">
      <legend className="small soft mb-1">Faces</legend>
      <span className="flex flex-wrap gap-2">
        {faces.map((f, i) => {
          const found = faults.filter((x) => x.face === f.id).length;
          const seen = found > 0 ? `${found} ✕` : clear.includes(f.id) ? "✓" : "–";
          const said = found > 0 ? `${found} found` : clear.includes(f.id) ? "nothing found" : "not looked at";
          return (
            <button
              key={f.id}
              type="button"
              aria-pressed={i === at}
              aria-label={`${f.name}, ${said}`}
              className={`btn ${i === at ? "border-ink border-2" : ""}`}
              onClick={() => go(i)}
            >
              {f.name} <b className="fig">{seen}</b>
            </button>
          );
        })}
      </span>
    </fieldset>
  );
}
