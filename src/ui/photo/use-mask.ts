"use client";
import { useState } from "react";

type Mask = { readonly width: number; readonly height: number; readonly state: Uint8Array };
/** Strokes that can be taken back. */
const MOST_BACK = 20;

/** A mask that a brush mends, with undo; begun anew whenever what it is of is another. What is outside a frame (3) stays outside. */
export function useMask(of: Mask | null, brushPx: number) {
  const [held, setHeld] = useState<{ of: Mask; state: Uint8Array; before: readonly Uint8Array[] } | null>(null);
  /** What the brush puts there: 0 nothing, 1 what is looked for, or anything else that a mask has. */
  const [paint, setPaint] = useState(1);
  if (of && held?.of !== of) setHeld({ of, state: of.state, before: [] });
  const own = of && held?.of === of ? held : null;
  const begin = () => setHeld((was) => was && { ...was, before: [...was.before.slice(-MOST_BACK), was.state] });
  const stroke = (x: number, y: number) =>
    setHeld((was) => {
      if (!was) return was;
      const { width, height } = was.of;
      const state = Uint8Array.from(was.state);
      for (let dy = -brushPx; dy <= brushPx; dy++)
        for (let dx = -brushPx; dx <= brushPx; dx++) {
          if (dx * dx + dy * dy > brushPx * brushPx) continue;
          const [px, py] = [Math.round(x + dx), Math.round(y + dy)];
          if (px < 0 || py < 0 || px >= width || py >= height) continue;
          const at = py * width + px;
          if (state[at] !== 3) state[at] = paint;
        }
      return { ...was, state };
    });
  const undo = () =>
    setHeld((was) => was && { ...was, state: was.before.at(-1) ?? was.state, before: was.before.slice(0, -1) });
  return {
    state: own?.state ?? null,
    changed: own !== null && own.state !== own.of.state,
    canUndo: (own?.before.length ?? 0) > 0,
    paint,
    setPaint,
    begin,
    stroke,
    undo,
  };
}
