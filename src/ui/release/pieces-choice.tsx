"use client";

export type PieceOnRack = {
  readonly position: number;
  readonly serial: string;
  /** What took it off the rack; null while it hangs there. */
  readonly gone: string | null;
};

/** Which pieces a decision is of: all that hang there, or those that are pressed. */
export function PiecesChoice({
  pieces,
  chosen,
  choose,
}: {
  pieces: readonly PieceOnRack[];
  /** Empty for all that hang there. */
  chosen: readonly number[];
  choose: (positions: readonly number[]) => void;
}) {
  const left = pieces.filter((p) => p.gone === null);
  if (pieces.length < 2) return null;
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="small soft mb-1">
        Of which pieces
        {left.length < pieces.length ? `; ${pieces.length - left.length} of ${pieces.length} have left already` : ""}
      </legend>
      <span className="flex flex-wrap gap-2">
        <button
          type="button"
          className={`btn ${chosen.length === 0 ? "pri" : ""}`}
          aria-pressed={chosen.length === 0}
          onClick={() => choose([])}
        >
          All {left.length} that hang there
        </button>
        {left.map((p) => {
          const on = chosen.includes(p.position);
          return (
            <button
              key={p.position}
              type="button"
              className={`btn min-w-11 ${on ? "pri" : ""}`}
              aria-pressed={on}
              aria-label={`Piece ${p.position}, ${p.serial}`}
              title={p.serial}
              onClick={() =>
                choose(on ? chosen.filter((n) => n !== p.position) : [...chosen, p.position].sort((a, b) => a - b))
              }
            >
              {p.position}
            </button>
          );
        })}
      </span>
    </fieldset>
  );
}
