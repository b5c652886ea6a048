import type { ReactNode } from "react";

/** What kind of looking a check is: each has one small drawing. */
const kinds: Readonly<Record<string, readonly string[]>> = {
  glass: [
    "hole-to-metal",
    "texture-starred",
    "residue-in-crater",
    "specks-other-colour",
    "fibre-shape",
    "breaks-between-coats",
    "existing-coating-under",
    "no-primer",
    "weld-spatter-seen",
  ],
  low: [
    "texture-coarse",
    "texture-tight",
    "through-the-face",
    "fingerprint-shape",
    "crisp-edge",
    "mark-in-film-only",
    "whole-load",
  ],
  gauge: ["film-high", "film-low", "film-right", "film-uneven", "primer-film-low"],
  earth: ["ground-poor", "hooks-coated", "one-hook-place"],
  edge: ["only-edges", "sharp-edges", "thermal-cut-edges", "cut-after-coating"],
  recess: ["only-recesses", "deep-recess"],
  back: ["only-far-faces", "hidden-face", "filter-side"],
  seam: ["only-seams", "open-lap-seam", "hollow-section", "moisture-left"],
  flake: ["flake-back-scale", "flake-back-rust", "flake-back-clean", "metal-pitted", "liquid-in-blister"],
  knock: ["near-damage", "impact-service", "knocked-before-cure"],
  foot: ["low-on-structure", "salt-exposure", "standing-water"],
  sun: ["sun-side", "years-in-sun", "chalk-rubs-off", "yellow-brown"],
  water: ["water-break-fail", "solvent-wipe-missed", "bare-hands", "soluble-salt-high"],
  cloth: ["solvent-rub-fail", "solvent-rub-pass", "lint-left", "coating-weight-high", "oven-dirty"],
  tape: ["profile-low", "profile-high", "blast-dust-left"],
  bath: [
    "conversion-out",
    "cleaner-out",
    "rinse-dirty",
    "inhibitor-low",
    "coating-weight-low",
    "etch-low",
    "seal-missed",
    "contact-time-short",
  ],
  oven: [
    "one-oven-place",
    "oven-uneven",
    "hold-short",
    "cure-index-low",
    "cure-index-high",
    "heat-up-slow",
    "heat-up-fast",
    "probe-check-failed",
    "heavy-pieces-only",
    "prebake-missed",
    "prebake-too-cool",
  ],
  gun: [
    "kv-high",
    "gun-close",
    "output-high",
    "output-low",
    "charge-dropped",
    "air-wet",
    "booth-air-high",
    "fused-bits",
  ],
  hopper: [
    "hopper-overfull",
    "powder-damp",
    "powder-expired",
    "reclaim-high",
    "after-lot-change",
    "colour-change-before",
    "incompatible-before",
  ],
};

const line = { stroke: "currentColor", strokeWidth: 1.6, fill: "none" } as const;
const thin = { stroke: "currentColor", strokeWidth: 1, fill: "none" } as const;
const film = "var(--sorrel)";

const drawings: Readonly<Record<string, ReactNode>> = {
  glass: (
    <>
      <path d="M6 48h60" {...line} />
      <path d="M6 44h24l4 4h6l4-4h22" stroke={film} strokeWidth="3" fill="none" />
      <circle cx="38" cy="26" r="13" {...line} />
      <path d="M47 16l14-10" {...line} />
      <path d="M31 26l3 5h8l3-5" stroke={film} strokeWidth="2" fill="none" />
    </>
  ),
  low: (
    <>
      <path d="M6 46h60" {...line} />
      <path d="M6 43q6-6 12 0t12 0 12 0 12 0 12 0" stroke={film} strokeWidth="3" fill="none" />
      <path d="M10 24l44 14M10 18l52 14" strokeDasharray="3 3" {...thin} />
      <path d="M4 14l8-4v18l-8-4z" {...line} />
    </>
  ),
  gauge: (
    <>
      <path d="M6 50h60" {...line} />
      <path d="M6 46h60" stroke={film} strokeWidth="4" />
      <path d="M30 44v-12h12v12M28 32h16l-2-22H30z" {...line} />
      <path d="M33 16h6" {...thin} />
    </>
  ),
  earth: (
    <>
      <path d="M14 8h44M36 8v10a5 5 0 1 0 5 5" {...line} />
      <rect x="24" y="32" width="24" height="18" {...line} />
      <path d="M52 41h8v8m-6 0h12m-10 4h8m-6 4h4" {...thin} />
    </>
  ),
  edge: (
    <>
      <path d="M10 50V18h34v32" {...line} />
      <path d="M6 48V22q0-8 8-8h24q6 0 7 2M48 20v28" stroke={film} strokeWidth="3" fill="none" />
      <path d="M60 8L48 15m5-6l-5 6 7 1" {...thin} />
    </>
  ),
  recess: (
    <>
      <path d="M6 14h18v34h24V14h18" {...line} />
      <path d="M6 11h14m32 0h14" stroke={film} strokeWidth="4" />
      <path d="M27 44h18" stroke={film} strokeWidth="1.2" />
      <path d="M36 8v28m-4-5l4 5 4-5" {...thin} />
    </>
  ),
  back: (
    <>
      <rect x="26" y="10" width="16" height="42" {...line} />
      <path d="M23 10v42" stroke={film} strokeWidth="4" />
      <path d="M62 31H46m5-4l-5 4 5 4" {...thin} />
    </>
  ),
  seam: (
    <>
      <path d="M6 26h38v8H6zM28 34h38v8H28z" {...line} />
      <path d="M6 23h38v11M66 45H28v-11" stroke={film} strokeWidth="2.5" fill="none" />
      <path d="M44 38q10 2 6 14" {...thin} />
    </>
  ),
  flake: (
    <>
      <path d="M6 48h60" {...line} />
      <path d="M6 45h18m22 0h20" stroke={film} strokeWidth="3" />
      <path d="M24 44Q34 26 50 22" stroke={film} strokeWidth="3" fill="none" />
      <path d="M27 45Q38 30 51 26" strokeDasharray="2 2" {...thin} />
    </>
  ),
  knock: (
    <>
      <path d="M6 46h60" {...line} />
      <path d="M6 43h22l5 6 5-6h28" stroke={film} strokeWidth="3" fill="none" />
      <path d="M33 8v22m-5-6l5 6 5-6" {...line} />
      <path d="M24 50q9 5 18 0" {...thin} />
    </>
  ),
  foot: (
    <>
      <path d="M30 6v44M42 6v44M6 50h60" {...line} />
      <path d="M8 44q6-5 10 0t10-1m16 1q5-5 10 0t10-1" {...thin} />
      <path d="M30 38v12m12-12v12" stroke={film} strokeWidth="4" />
    </>
  ),
  sun: (
    <>
      <circle cx="16" cy="14" r="7" {...line} />
      <path d="M28 14h4M24 22l4 4M16 25v4" {...thin} />
      <rect x="40" y="12" width="14" height="40" {...line} />
      <path d="M38 12v40" stroke={film} strokeWidth="3" strokeDasharray="4 2" />
    </>
  ),
  water: (
    <>
      <path d="M14 8v44h44V8" {...line} />
      <path
        d="M18 14q10 6 18 0t18 0M18 24q6 5 10 0M40 26q6-6 14 0M20 40h8m12 3h12"
        stroke={film}
        strokeWidth="2"
        fill="none"
      />
    </>
  ),
  cloth: (
    <>
      <path d="M6 48h60" {...line} />
      <path d="M6 45h60" stroke={film} strokeWidth="3" />
      <path d="M22 42q2-14 14-14t14 14z" {...line} />
      <path d="M14 22h44m-5-4l5 4-5 4M19 18l-5 4 5 4" {...thin} />
    </>
  ),
  tape: (
    <>
      <path d="M6 48l5-6 5 6 5-7 5 7 5-5 5 5 5-7 5 7 5-6 5 6 5-4" {...line} />
      <path d="M6 36h58" stroke={film} strokeWidth="4" />
      <path d="M36 12v16m-5-5l5 5 5-5" {...thin} />
    </>
  ),
  bath: (
    <>
      <path d="M8 16v34h40V16M8 26h40" {...line} />
      <path d="M30 8v28" {...line} />
      <rect x="52" y="10" width="14" height="12" {...line} />
      <path d="M30 10h22" {...thin} />
      <path d="M16 36h24M16 42h24" stroke={film} strokeWidth="1.5" />
    </>
  ),
  oven: (
    <>
      <rect x="8" y="10" width="56" height="40" {...line} />
      <path d="M20 16v20M36 16v20M52 16v20M16 16h40" {...thin} />
      <rect x="47" y="24" width="10" height="14" fill={film} />
      <path d="M14 46q4-4 8 0t8 0 8 0 8 0 8 0" {...thin} />
    </>
  ),
  gun: (
    <>
      <path d="M6 24h30v8H18v14h-8V32H6z" {...line} />
      <path d="M40 28l22-10M40 28h24M40 28l22 10" strokeDasharray="2 3" stroke={film} strokeWidth="2" />
    </>
  ),
  hopper: (
    <>
      <path d="M14 10h44l-12 40H26z" {...line} />
      <path d="M19 26h34" strokeDasharray="3 2" {...thin} />
      <path d="M21 32h30l-6 16H27z" fill={film} opacity="0.5" />
    </>
  ),
  ask: (
    <>
      <path d="M10 10h46v28H34l-10 10V38H10z" {...line} />
      <path d="M26 19q0-5 6-5t6 5q0 4-6 6v3m0 4v1" {...line} />
    </>
  ),
};

const kindOf = new Map(Object.entries(kinds).flatMap(([kind, findings]) => findings.map((f) => [f, kind] as const)));

/** A small drawing of how a check is done; a question where it is somebody who is asked. */
export function CheckDrawing({ finding }: { finding: string }) {
  return (
    <svg viewBox="0 0 72 58" className="h-[46px] w-[58px] flex-none text-ink-2" aria-hidden="true">
      {drawings[kindOf.get(finding) ?? "ask"]}
    </svg>
  );
}
