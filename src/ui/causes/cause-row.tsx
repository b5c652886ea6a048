import type { RankedCause } from "@/core/diagnosis";

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
          {cause.ruledOutBy
            ? "ruled out"
            : cause.strength < 0.01
              ? "under 1 in 100"
              : `${Math.round(cause.strength * 100)} in 100`}
          {cause.role === "contributing" ? " · acts as well" : ""}
        </div>
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
