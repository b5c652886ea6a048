import { err, ok, type Result } from "../result";

/** A stage of a conveyor line: how far its entrance lies from the entrance of the line, and how long it is, m. */
export type LineStage = { readonly stage: string; readonly fromM: number; readonly lengthM: number };
export type PassageBySpeed = { readonly stage: string; readonly enteredMs: number; readonly leftMs: number };

/** Conveyor speeds beyond this, m/min, are slips of the pen. */
export const FASTEST_LINE_M_PER_MIN = 30;

/**
 * Where a rack is when, from the line's speed alone: contact time = stage length / line speed, the way to each stage
 * likewise. `startMs` is when it passes the line's entrance; a stop of the line is not known here and lengthens what
 * was inside. Failures: `bad-input` (speed not over 0 or past 30 m/min, a length not over 0), `no-stages`,
 * `stages-overlap` (the two stages).
 *
 * Source: shop arithmetic, as in docs/methods.md. Example: 1.8 m of conversion at 1.2 m/min are 90 s.
 */
export function passagesFromSpeed(
  startMs: number,
  speedMPerMin: number,
  stages: readonly LineStage[],
): Result<readonly PassageBySpeed[]> {
  if (!(speedMPerMin > 0 && speedMPerMin <= FASTEST_LINE_M_PER_MIN))
    return err({ kind: "bad-input", name: "speedMPerMin", value: speedMPerMin });
  if (!Number.isFinite(startMs)) return err({ kind: "bad-input", name: "startMs", value: startMs });
  if (stages.length === 0) return err({ kind: "no-stages" });
  const inOrder = [...stages].sort((a, b) => a.fromM - b.fromM);
  for (const [i, stage] of inOrder.entries()) {
    if (!(stage.lengthM > 0) || !Number.isFinite(stage.lengthM))
      return err({ kind: "bad-input", name: `${stage.stage} length, m`, value: stage.lengthM });
    if (!(stage.fromM >= 0) || !Number.isFinite(stage.fromM))
      return err({ kind: "bad-input", name: `${stage.stage} from, m`, value: stage.fromM });
    const before = inOrder[i - 1];
    if (before && before.fromM + before.lengthM > stage.fromM + 1e-9)
      return err({ kind: "stages-overlap", first: before.stage, second: stage.stage });
  }
  const atMs = (m: number) => startMs + (m / speedMPerMin) * 60_000;
  return ok(
    inOrder.map(({ stage, fromM, lengthM }) => ({
      stage,
      enteredMs: Math.round(atMs(fromM)),
      leftMs: Math.round(atMs(fromM + lengthM)),
    })),
  );
}
