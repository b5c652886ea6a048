import { type DefectPicture, defectPicture, type Look, type Shape } from "@/core/diagnosis/defect-picture";

/** Colours of what is drawn: a made-up green film over steel; they stand for things, so they are the same in both themes. */
const FILM = "#5d7d6c";
const fills: Readonly<Record<Look, string>> = {
  dome: "#6c8d7b",
  hollow: "#46604f",
  metal: "#a9adb0",
  rust: "#9a4a1f",
  dark: "#24302a",
  pale: "#8fa89a",
  other: "#7d7a4c",
  sag: "#527160",
  scale: "#5a6876",
  shade: "#4d6a5a",
  glint: "#cfe0d6",
};
/** Light comes from the left: what stands up is light there, what lies deep is light on the right. */
const lit: Readonly<Partial<Record<Look, readonly [string, string]>>> = {
  dome: ["#9bbcaa", "#3f5949"],
  sag: ["#86a896", "#39513f"],
  hollow: ["#33493c", "#93b3a2"],
};
const bases: Readonly<Record<DefectPicture["base"], string>> = { film: FILM, metal: "#b4b8bb", faded: "#83958a" };

const pathOf = (points: readonly (readonly [number, number])[], closed: boolean): string =>
  `M${points.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}${closed ? "Z" : ""}`;

function Drawn({ shape: s, id }: { shape: Shape; id: string }) {
  const fill = lit[s.look] ? `url(#${id}-${s.look})` : fills[s.look];
  if (s.kind === "dot") return <circle cx={s.x.toFixed(2)} cy={s.y.toFixed(2)} r={s.r.toFixed(2)} fill={fill} />;
  if (s.kind === "blob") return <path d={pathOf(s.points, true)} fill={fill} />;
  return (
    <path
      d={pathOf(s.points, false)}
      fill="none"
      stroke={fills[s.look]}
      strokeWidth={s.width}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}

/** A defect as it looks on 40 × 30 mm under light from the left, with a scale; drawn by rule, no photo. */
export function DefectDrawing({
  defect,
  label,
  className = "",
}: {
  defect: string;
  label: string;
  className?: string;
}) {
  const picture = defectPicture(defect);
  if (!picture) return null;
  const { widthMm: W, heightMm: H } = picture;
  const id = `pic-${defect}`;
  return (
    <svg
      viewBox={`0 0 ${W} ${H + 5}`}
      className={`w-full ${className}`}
      role="img"
      aria-label={`Drawing: ${label}, 40 by 30 mm, light from the left`}
    >
      <defs>
        {Object.entries(lit).map(([look, [from, to]]) => (
          <linearGradient key={look} id={`${id}-${look}`} x1="0" x2="1" y1="0.2" y2="0.4">
            <stop offset="0" stopColor={from} />
            <stop offset="1" stopColor={to} />
          </linearGradient>
        ))}
        <clipPath id={`${id}-clip`}>
          <rect width={W} height={H} />
        </clipPath>
      </defs>
      <g clipPath={`url(#${id}-clip)`}>
        <rect width={W} height={H} fill={bases[picture.base]} />
        {picture.edge === "right" && <rect x={W - 1.4} width="1.4" height={H} fill="#8b9094" />}
        {picture.edge === "seam" && (
          <>
            <rect y="15.4" width={W} height="0.9" fill="#24302a" />
            <rect y="16.3" width={W} height={H - 16.3} fill="#526f60" />
          </>
        )}
        {picture.edge === "hole" && <circle cx="20" cy="15" r="9" fill="#a9adb0" />}
        {picture.shapes.map((shape, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a picture is always the same.
          <Drawn key={i} shape={shape} id={id} />
        ))}
        {picture.edge === "hole" && (
          <>
            <circle cx="20" cy="15" r="4.6" fill="#24302a" />
            <circle cx="20" cy="15" r="6.4" fill="none" stroke="#3f5949" strokeWidth="0.5" />
          </>
        )}
      </g>
      <path
        d={`M0 ${H + 2.2}h10M0 ${H + 1.2}v2M10 ${H + 1.2}v2`}
        stroke="var(--ink-2)"
        strokeWidth="0.35"
        fill="none"
      />
      <text x="11" y={H + 3.2} style={{ fill: "var(--ink-2)", fontSize: 2.4 }}>
        10 mm
      </text>
    </svg>
  );
}
