import { Choice } from "../fields/choice";
import { Fold } from "../fields/fold";
import { withUnit } from "../format";

/** More are a list nobody reads, and slow to draw while a gauge streams. */
const SHOWN = 60;

/** A reading can be left out of the mean with a reason; it stays on record. */
export function RejectList({
  draft,
  units,
  onReject,
}: {
  draft: readonly {
    readonly key: string;
    readonly spot: string;
    readonly valueUm: number;
    readonly rejectedReason: string | null;
  }[];
  units: "metric" | "us";
  onReject: (key: string, reason: string | null) => void;
}) {
  return (
    <Fold className="mt-3" summaryClassName="min-h-11 soft" summary="Readings not yet recorded: leave one out">
      <div className="mt-1 max-h-56 overflow-auto">
        {draft.length > SHOWN && (
          <p className="small soft m-0">
            The newest {SHOWN} of {draft.length}.
          </p>
        )}
        {draft.map(
          (r, i) =>
            i >= draft.length - SHOWN && (
              <div key={r.key} className="row grid-cols-[36px_52px_90px_minmax(0,1fr)]">
                <span className="fig faint">{i + 1}</span>
                <span className="fig">{r.spot}</span>
                <span className="num">{withUnit(r.valueUm, "thickness", units)}</span>
                <Choice
                  aria-label={`Reading ${i + 1}: keep or leave out`}
                  className="input"
                  value={r.rejectedReason ?? ""}
                  onChange={(value) => onReject(r.key, value || null)}
                >
                  <option value="">keep</option>
                  <option>probe off the part</option>
                  <option>too near an edge</option>
                  <option>dirt under the probe</option>
                  <option>double reading</option>
                </Choice>
              </div>
            ),
        )}
      </div>
    </Fold>
  );
}
