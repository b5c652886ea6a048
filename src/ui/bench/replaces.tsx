"use client";
import { Choice } from "../fields/choice";
import { useEntryForm } from "../forms/use-entry-form";

export type Earlier = { readonly id: string; readonly label: string };
export type Superseded = { readonly recordId: string; readonly reason: string } | null;

/** A test that takes the place of an earlier one, with the reason: of repeats the worst stands until this is said. */
export function useReplaces(earlier: readonly Earlier[], name: string, rack: string) {
  const held = useEntryForm(`instead of ${name} ${rack}`, { recordId: "", reason: "" });
  const [recordId, setRecordId] = held.field("recordId");
  const [reason, setReason] = held.field("reason");
  const chosen = earlier.some((e) => e.id === recordId) ? recordId : "";
  const supersedes: Superseded = chosen && reason.trim() ? { recordId: chosen, reason: reason.trim() } : null;
  return {
    supersedes,
    /** Chosen, and not yet said why. */
    wantsReason: chosen !== "" && reason.trim() === "",
    done: () => {
      held.done();
      setRecordId("");
      setReason("");
    },
    fields:
      earlier.length === 0 ? null : (
        <div className="flex flex-wrap items-end gap-3">
          {held.said}
          <div className="field w-[340px] max-w-full">
            <label htmlFor={`${name}-replaces`}>Beside, or instead of</label>
            <Choice id={`${name}-replaces`} className="input" value={chosen} onChange={setRecordId}>
              <option value="">beside those on record: the worst stands</option>
              {earlier.map((e) => (
                <option key={e.id} value={e.id}>
                  instead of {e.label}
                </option>
              ))}
            </Choice>
          </div>
          {chosen && (
            <div className="field min-w-[200px] flex-1">
              <label htmlFor={`${name}-reason`}>Why that one does not count</label>
              <input
                id={`${name}-reason`}
                className="input"
                required
                maxLength={400}
                value={reason}
                onChange={(e) => setReason(e.target.value)}
              />
            </div>
          )}
        </div>
      ),
  };
}
