import type { GuidedTest } from "@/core/bench";

const W = 168;
const H = 112;
const ink = { stroke: "var(--ink-2)", strokeWidth: 1.6, fill: "none" } as const;
const thin = { ...ink, strokeWidth: 1 } as const;
const bright = { ...ink, stroke: "var(--accent, var(--in))", strokeWidth: 2.4 } as const;

/** Lines between two corners, so many, evenly. */
const lines = (n: number, of: (t: number) => readonly [number, number, number, number]) =>
  Array.from({ length: n }, (_, i) => of(n === 1 ? 0.5 : i / (n - 1))).map(([x1, y1, x2, y2]) => (
    <line key={`${x1} ${y1} ${x2} ${y2}`} x1={x1} y1={y1} x2={x2} y2={y2} {...thin} />
  ));
const Panel = () => <rect x="10" y="12" width="148" height="88" {...ink} />;
const Arrow = ({ from, to }: { from: readonly [number, number]; to: readonly [number, number] }) => {
  const a = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const head = [a + 2.6, a - 2.6].map((t) => `${to[0] + 9 * Math.cos(t)} ${to[1] + 9 * Math.sin(t)}`);
  return <path d={`M${from.join(" ")}L${to.join(" ")}M${head[0]}L${to.join(" ")}L${head[1]}`} {...bright} />;
};

function drawn(test: GuidedTest, cuts: number) {
  switch (test) {
    case "cross-cut":
      return (
        <>
          <Panel />
          {lines(cuts, (t) => [28 + 60 * t, 22, 28 + 60 * t, 92])}
          {lines(cuts, (t) => [22, 28 + 58 * t, 96, 28 + 58 * t])}
          <path d="M60 44h84v26h-84z" fill="var(--sunk, var(--raised))" opacity="0.6" stroke="var(--ink-2)" />
          <Arrow from={[144, 57]} to={[108, 24]} />
        </>
      );
    case "x-cut":
      return (
        <>
          <Panel />
          <path d="M42 24L104 88M104 24L42 88" {...ink} />
          <path d="M73 44h74v24h-74z" fill="var(--sunk, var(--raised))" opacity="0.6" stroke="var(--ink-2)" />
          <Arrow from={[147, 56]} to={[96, 50]} />
        </>
      );
    case "solvent-rub":
      return (
        <>
          <Panel />
          <rect x="54" y="42" width="34" height="26" rx="8" {...ink} />
          <Arrow from={[92, 55]} to={[146, 55]} />
          <Arrow from={[50, 55]} to={[20, 55]} />
        </>
      );
    case "pencil-hardness":
      return (
        <>
          <path d="M10 92h148" {...ink} />
          <path d="M66 92L118 40l10 10L76 96z" {...ink} />
          <path d="M92 92a26 26 0 0 0-8-18" {...thin} />
          <text x="98" y="86" style={{ fill: "var(--ink)", fontSize: 12 }}>
            45°
          </text>
          <Arrow from={[60, 76]} to={[24, 76]} />
        </>
      );
    case "impact":
      return (
        <>
          <rect x="72" y="8" width="24" height="56" {...thin} />
          <rect x="76" y="16" width="16" height="22" fill="var(--ink-2)" />
          <Arrow from={[84, 42]} to={[84, 68]} />
          <path d="M20 84h44q20 14 40 0h44" {...ink} />
          <path d="M58 100v-14M110 100v-14" {...ink} />
        </>
      );
    case "bend":
      return (
        <>
          <circle cx="62" cy="62" r="13" {...ink} />
          <path d="M146 79H62a17 17 0 1 1 0-34h56" {...bright} />
          <Arrow from={[136, 70]} to={[130, 34]} />
        </>
      );
    case "gloss":
      return (
        <>
          <path d="M10 92h148" {...ink} />
          <path d="M84 92v-64" {...thin} strokeDasharray="4 4" />
          <Arrow from={[26, 58]} to={[82, 90]} />
          <Arrow from={[86, 90]} to={[142, 58]} />
          <text x="92" y="70" style={{ fill: "var(--ink)", fontSize: 12 }}>
            60°
          </text>
        </>
      );
    case "colour":
      return (
        <>
          <rect x="14" y="26" width="64" height="64" fill="var(--ink-3)" stroke="var(--ink-2)" />
          <rect x="90" y="26" width="64" height="64" fill="var(--ink-2)" stroke="var(--ink-2)" />
          <path d="M70 58h28" {...bright} />
          <text x="74" y="20" style={{ fill: "var(--ink)", fontSize: 12 }}>
            ΔE
          </text>
        </>
      );
    case "smoothness":
      return (
        <>
          <path d="M12 30q12 -10 24 0t24 0 24 0 24 0 24 0 24 0" {...ink} />
          <path d="M12 60q24 -8 48 0t48 0 48 0" {...ink} />
          <path d="M12 92h144" {...bright} />
          <text x="14" y="18" style={{ fill: "var(--ink)", fontSize: 12 }}>
            1
          </text>
          <text x="14" y="86" style={{ fill: "var(--ink)", fontSize: 12 }}>
            10
          </text>
        </>
      );
    case "holidays":
      return (
        <>
          <path d="M10 86h148v10h-148z" fill="var(--ink-3)" />
          <path d="M10 82h64M82 82h76" {...bright} />
          <rect x="64" y="58" width="28" height="18" rx="5" {...ink} />
          <path d="M78 58V30h40" {...thin} />
          <path d="M78 76l-4 8 6-2-3 8" {...ink} />
          <path d="M142 96v8M134 104h16M137 107h10" {...thin} />
        </>
      );
    case "pull-off":
      return (
        <>
          <path d="M10 86h148v10h-148z" fill="var(--ink-3)" />
          <path d="M10 82h148" {...bright} />
          <path d="M58 80h52v-12h-18v-26h-16v26h-18z" {...ink} />
          <Arrow from={[84, 40]} to={[84, 12]} />
        </>
      );
  }
}

/** A test as it is done, in a few strokes. */
export function TestDrawing({ test, cuts = 6 }: { test: GuidedTest; cuts?: number }) {
  return (
    <svg viewBox={`0 0 ${W} ${H}`} width={W} height={H} className="shrink-0" aria-hidden="true">
      {drawn(test, cuts)}
    </svg>
  );
}
