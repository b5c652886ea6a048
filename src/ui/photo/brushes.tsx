"use client";

/** What the brush does, and undo. */
export function Brushes({
  of,
  paint,
  setPaint,
  canUndo,
  undo,
}: {
  /** What each brush puts there, and its name. */
  of: readonly (readonly [paint: number, name: string])[];
  paint: number;
  setPaint: (paint: number) => void;
  canUndo: boolean;
  undo: () => void;
}) {
  return (
    <span className="flex flex-wrap gap-2">
      {of.map(([is, name]) => (
        <button
          key={is}
          type="button"
          className={`btn ${paint === is ? "pri" : ""}`}
          aria-pressed={paint === is}
          onClick={() => setPaint(is)}
        >
          Brush: {name}
        </button>
      ))}
      <button type="button" className="btn" disabled={!canUndo} onClick={undo}>
        Undo
      </button>
    </span>
  );
}
