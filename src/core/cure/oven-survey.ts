import { err, ok, type Result } from "../result";
import { checkTrace, type Trace } from "./trace";

export type SurveyPlace = { readonly place: string; readonly trace: Trace };
export type OvenSurvey = {
  readonly kind: "oven-survey";
  readonly places: readonly { readonly place: string; readonly meanC: number; readonly offC: number }[];
  readonly coldest: string;
  readonly hottest: string;
  /** Hottest less coldest of the places' means over the hold, °C. */
  readonly spreadC: number;
  readonly setPointC: number;
  /** From the door's opening until the middle of the places is within 5 °C of the set point again, s; null when no door or not yet. */
  readonly recoveryS: number | null;
  readonly lowestAfterDoorC: number | null;
};

export const RECOVERED_WITHIN_C = 5;

/**
 * A survey of an oven with a probe at each place: means over the hold, coldest and hottest, their spread, and recovery
 * after the door. Failures: `too-few-places` (two), `bad-hold`, those of `checkTrace` and `no-samples` with the place.
 * O(places · samples).
 */
export function ovenSurvey(
  places: readonly SurveyPlace[],
  setPointC: number,
  holdS: readonly [number, number],
  doorAtS: number | null = null,
): Result<OvenSurvey> {
  if (places.length < 2) return err({ kind: "too-few-places", got: places.length, need: 2 });
  if (!(holdS[1] > holdS[0])) return err({ kind: "bad-hold", fromS: holdS[0], toS: holdS[1] });
  if (!(setPointC > 0 && setPointC < 1000)) return err({ kind: "bad-input", name: "setPointC", value: setPointC });
  const means: { place: string; meanC: number; offC: number }[] = [];
  for (const { place, trace } of places) {
    const checked = checkTrace(trace);
    if (!checked.ok) return err({ ...checked.error, channel: place });
    const held = trace.tempC.filter((c, i): c is number => {
      const s = trace.timeS[i] as number;
      return c !== null && s >= holdS[0] && s <= holdS[1];
    });
    if (held.length < 3) return err({ kind: "no-samples", got: held.length, need: 3, channel: place });
    const meanC = held.reduce((a, b) => a + b, 0) / held.length;
    means.push({ place, meanC, offC: meanC - setPointC });
  }
  const sorted = [...means].sort((a, b) => a.meanC - b.meanC);
  const [coldest, hottest] = [sorted[0], sorted.at(-1)] as [(typeof means)[number], (typeof means)[number]];
  const after = doorAtS === null ? null : recoveryOf(places, setPointC, doorAtS);
  return ok({
    kind: "oven-survey",
    places: means,
    coldest: coldest.place,
    hottest: hottest.place,
    spreadC: hottest.meanC - coldest.meanC,
    setPointC,
    recoveryS: after?.recoveryS ?? null,
    lowestAfterDoorC: after?.lowestC ?? null,
  });
}

function recoveryOf(places: readonly SurveyPlace[], setPointC: number, doorAtS: number) {
  const times = places[0]?.trace.timeS ?? [];
  let lowestC = Number.POSITIVE_INFINITY;
  let fell = false;
  for (let i = 0; i < times.length; i++) {
    const s = times[i] as number;
    if (s < doorAtS) continue;
    const here = places
      .flatMap((p) => (typeof p.trace.tempC[i] === "number" ? [p.trace.tempC[i] as number] : []))
      .sort((a, b) => a - b);
    const middle = here[here.length >> 1];
    if (middle === undefined) continue;
    lowestC = Math.min(lowestC, middle);
    if (middle < setPointC - RECOVERED_WITHIN_C) fell = true;
    else if (fell) return { recoveryS: s - doorAtS, lowestC };
  }
  return { recoveryS: fell ? null : 0, lowestC: Number.isFinite(lowestC) ? lowestC : null };
}

/** How far a place was off the set point by a survey, K; 0 where the survey does not know it. */
export const placeOffC = (survey: OvenSurvey | null, place: string): number =>
  survey?.places.find((p) => p.place.toLowerCase() === place.trim().toLowerCase())?.offC ?? 0;
