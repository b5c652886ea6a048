import { TextField } from "../forms/text-field";

/** A stored set being corrected, with the reason that goes with it; or the sets that can be. */
export function CorrectSet<Set extends { readonly recordId: string; readonly label: string }>({
  correcting,
  reason,
  changeReason,
  leave,
  sets,
  begin,
}: {
  /** The label of the set that is being corrected. */
  correcting: string | null;
  reason: string;
  changeReason: (reason: string) => void;
  leave: () => void;
  sets: readonly Set[];
  begin: (set: Set) => void;
}) {
  if (correcting !== null)
    return (
      <div className="mt-3 max-w-[520px] border-l-4 border-sorrel pl-3">
        <p>Correcting the set of {correcting}. Leave readings out below, drop the last, or type new ones.</p>
        <TextField
          id="correct-reason"
          label="Why it is corrected"
          text={reason}
          change={changeReason}
          most={400}
          className="mt-1"
        />
        <button type="button" className="btn mt-2" onClick={leave}>
          Leave it as it was
        </button>
      </div>
    );
  if (sets.length === 0) return null;
  return (
    <p className="no-print mt-3 flex flex-wrap gap-x-4">
      {sets.map((set) => (
        <button key={set.recordId} type="button" className="link min-h-11 soft" onClick={() => begin(set)}>
          Correct the set of {set.label}
        </button>
      ))}
    </p>
  );
}
