"use client";

/** What the brush does, and undo. */
export function Brushes({
  marks,
  unmarks,
  clears,
  setClears,
  canUndo,
  undo,
}: {
  marks: string;
  unmarks: string;
  clears: boolean;
  setClears: (clears: boolean) => void;
  canUndo: boolean;
  undo: () => void;
}) {
  return (
    <span className="flex flex-wrap gap-2">
      <button
        type="button"
        className={`btn ${clears ? "" : "pri"}`}
        aria-pressed={!clears}
        onClick={() => setClears(false)}
      >
        Brush: {marks}
      </button>
      <button
        type="button"
        className={`btn ${clears ? "pri" : ""}`}
        aria-pressed={clears}
        onClick={() => setClears(true)}
      >
        Brush: {unmarks}
      </button>
      <button type="button" className="btn" disabled={!canUndo} onClick={undo}>
        Undo
      </button>
    </span>
  );
}
