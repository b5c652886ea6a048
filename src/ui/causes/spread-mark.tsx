import { scaleLinear } from "d3";
import type { Spread } from "@/server/causes/explore";

const [WIDTH, HEIGHT] = [150, 30];

/** How values lie on both sides: above those that show it, below the others. A bar from the 25th to the 75th, a line from the 5th to the 95th, a stroke at the middle. */
export function SpreadMark({ spread, value, said }: { spread: Spread; value: string | null; said: string }) {
  if (spread.kind === "category") {
    const one = spread.shares.find((s) => s.value === value);
    if (!one) return null;
    const x = scaleLinear([0, 1], [0, WIDTH]);
    return (
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-[30px] w-[150px]" role="img" aria-label={said}>
        <line x1="0.5" x2="0.5" y1="0" y2={HEIGHT} stroke="var(--ink)" />
        <rect x="1" y="4" width={Math.max(1, x(one.affected) - 1)} height="9" fill="var(--sorrel)" />
        <rect x="1" y="17" width={Math.max(1, x(one.others) - 1.5)} height="9" fill="none" stroke="var(--ink-2)" />
      </svg>
    );
  }
  const all = [...spread.affected, ...spread.others];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const x = scaleLinear([low, high === low ? low + 1 : high], [3, WIDTH - 3]);
  const row = (q: readonly number[], y: number, filled: boolean) => {
    const [a = 0, b = 0, c = 0, d = 0, e = 0] = q;
    return (
      <g>
        <line x1={x(a)} x2={x(e)} y1={y} y2={y} stroke="var(--ink-2)" />
        <rect
          x={x(b)}
          y={y - 4.5}
          width={Math.max(2, x(d) - x(b))}
          height="9"
          fill={filled ? "var(--sorrel)" : "var(--bench)"}
          stroke={filled ? "var(--sorrel)" : "var(--ink-2)"}
        />
        <line x1={x(c)} x2={x(c)} y1={y - 6} y2={y + 6} stroke="var(--ink)" strokeWidth="2" />
      </g>
    );
  };
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-[30px] w-[150px]" role="img" aria-label={said}>
      {row(spread.affected, 8, true)}
      {row(spread.others, 22, false)}
    </svg>
  );
}
