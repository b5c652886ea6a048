import type { AreaKind, Face } from "@/core/plan";

export const areaName: Record<AreaKind, string> = { A: "zone A", B: "zone B", C: "zone C", bare: "stays bare" };
const kinds = ["A", "B", "C", "bare"] as const;
const turn: Record<AreaKind, number> = { A: 45, B: 0, C: 135, bare: 45 };
export const areaFill = (kind: AreaKind): string => `url(#area-${kind})`;

/** Hatches by kind, told apart in black and white; drawn once in each sketch. */
export function AreaPatterns() {
  return (
    <defs>
      {kinds.map((kind) => (
        <pattern
          key={kind}
          id={`area-${kind}`}
          width={kind === "bare" ? 7 : 9}
          height={kind === "bare" ? 7 : 9}
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(${turn[kind]})`}
        >
          {kind === "bare" && <rect width="7" height="7" fill="var(--out-tint)" />}
          <line
            y2="9"
            stroke={kind === "bare" ? "var(--out)" : "var(--ink-3)"}
            strokeWidth={kind === "bare" ? 2.5 : 1.2}
          />
        </pattern>
      ))}
    </defs>
  );
}

/** Where an area is drawn, px. */
export const areaBox = (
  a: Pick<Face["areas"][number], "from" | "to">,
  px: (x: number) => number,
  py: (y: number) => number,
) => {
  const [x, y] = [px(Math.min(a.from[0], a.to[0])), py(Math.min(a.from[1], a.to[1]))];
  return { x, y, width: px(Math.max(a.from[0], a.to[0])) - x, height: py(Math.max(a.from[1], a.to[1])) - y };
};
