import type { RankedCause } from "@/core/diagnosis";
import { partName, strengthSaid } from "../words/causes";

const SCALE = 46;
const MIDDLE = 215;

/** One cause: its strength, and bars for what speaks against it (left, outlined) and for it (right, filled). */
export function CauseRow({
  cause,
  leading,
  labels,
}: {
  cause: RankedCause;
  leading: boolean;
  labels: ReadonlyMap<string, string>;
}) {
  let left = 0;
  let right = 0;
  const say = (c: RankedCause["raised"][number]) =>
    c.state === "present" ? c.because : `Not so: ${labels.get(c.finding) ?? c.finding}`;
  return (
    <div
      className={`grid grid-cols-[minmax(190px,250px)_minmax(0,1fr)] gap-3 border-b border-rule py-2.5 max-[700px]:grid-cols-1 ${leading ? "-mx-[22px] bg-sorrel-tint px-[22px]" : ""}`}
    >
      <div>
        <b className={leading ? "text-[16px]" : ""}>{cause.label}</b>
        <div className="fig soft small">
          {cause.ruledOutBy ? "ruled out" : strengthSaid(cause.strength)}
          {cause.role === "contributing" ? " · acts as well" : ""}
        </div>
        {!cause.ruledOutBy && <div className="faint small">{partName[cause.part]}</div>}
      </div>
      <div>
        {cause.ruledOutBy ? (
          <p className="soft">
            Cannot be, by what is on record of:{" "}
            {cause.ruledOutBy.map((f) => (labels.get(f) ?? f).toLowerCase()).join("; ")}.
          </p>
        ) : (
          <>
            <svg
              viewBox="0 0 560 24"
              className="h-6 w-full max-w-[560px]"
              preserveAspectRatio="xMinYMid meet"
              role="img"
              aria-label={`${cause.raised.length} findings for, ${cause.lowered.length} against`}
            >
              {cause.lowered.map((c) => {
                const w = Math.min(-c.weight * SCALE, MIDDLE - left - 4);
                left += w;
                return (
                  <rect
                    key={c.finding}
                    x={MIDDLE - left}
                    y="4"
                    width={Math.max(2, w - 2)}
                    height="16"
                    fill="none"
                    stroke="var(--ink-2)"
                    strokeWidth="1.4"
                  />
                );
              })}
              {cause.raised.map((c) => {
                const x = MIDDLE + right;
                const w = c.weight * SCALE;
                right += w;
                return (
                  <rect
                    key={c.finding}
                    x={x}
                    y="4"
                    width={Math.max(2, Math.min(w - 2, 558 - x))}
                    height="16"
                    fill={leading ? "var(--sorrel)" : "var(--sorrel-2)"}
                  />
                );
              })}
              <line x1={MIDDLE - 1} x2={MIDDLE - 1} y1="0" y2="24" stroke="var(--ink)" strokeWidth="2" />
            </svg>
            <div className="small soft grid grid-cols-[minmax(0,205px)_minmax(0,1fr)] gap-5 leading-tight max-[700px]:grid-cols-1">
              <span className="text-right max-[700px]:text-left">{cause.lowered.slice(0, 3).map(say).join(" · ")}</span>
              <span>{cause.raised.slice(0, 4).map(say).join(" · ")}</span>
            </div>
          </>
        )}
      </div>
    </div>
  );
}

/** What each finding does to each of some causes: without it, the strength would be so much. */
export function Effects({ causes, labels }: { causes: readonly RankedCause[]; labels: ReadonlyMap<string, string> }) {
  return (
    <div className="grid grid-cols-[repeat(auto-fill,minmax(300px,1fr))] gap-x-8 gap-y-4 pb-2">
      {causes.map((cause) => {
        const odds = Math.log(cause.strength / (1 - cause.strength));
        return (
          <div key={cause.cause}>
            <b>{cause.label}</b> <span className="fig soft small">{strengthSaid(cause.strength)}</span>
            {cause.effects.length === 0 && <p className="soft small m-0">No finding moves it.</p>}
            {cause.effects.slice(0, 12).map((e) => (
              <div key={e.finding} className="row small grid-cols-[minmax(0,1fr)_auto] gap-3">
                <span>
                  {e.because
                    ? e.state === "present"
                      ? e.because
                      : `Not so: ${labels.get(e.finding) ?? e.finding}`
                    : `${labels.get(e.finding) ?? e.finding}: ${e.state === "present" ? "so" : "not so"}, which ${e.effect < 0 ? "another cause explains" : "goes with a cause that leads to it"}`}
                </span>
                <span className="fig soft text-right">
                  {e.effect > 0 ? "raises it" : "lowers it"}
                  <br />
                  {strengthSaid(1 / (1 + Math.exp(-(odds - e.effect))))} without
                </span>
              </div>
            ))}
          </div>
        );
      })}
    </div>
  );
}
