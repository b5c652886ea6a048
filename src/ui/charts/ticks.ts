import { scaleLinear } from "d3";
import { type Quantity, quantities, type UnitSystem } from "@/core/units";
import type { Axis, Tick } from "./plot/spec";

/** Round minutes of a stretch given in seconds; with tenths where it is only some minutes long. */
export function minuteTicks(fromS: number, toS: number): Tick[] {
  const [from, to] = [fromS / 60, toS / 60];
  const steps = [0.5, 1, 2, 5, 10, 15, 30, 60, 120, 240, 480, 1440];
  const step = steps.find((s) => (to - from) / s <= 12) ?? 2880;
  const first = Math.ceil(from / step - 1e-9);
  return Array.from({ length: Math.max(0, Math.floor(to / step + 1e-9) - first + 1) }, (_, i) => {
    const minutes = (first + i) * step;
    return { at: minutes * 60, label: step < 1 ? minutes.toFixed(1) : String(minutes) };
  });
}

/** An axis of a quantity over a range in its canonical unit: ticks round in the person's unit, which it names. */
export function axisOf(quantity: Quantity, domain: readonly [number, number], units: UnitSystem, count = 5): Axis {
  const q = quantities[quantity];
  const own = (v: number) => (units === "us" ? q.toUs(v) : v);
  const back = (v: number) => (units === "us" ? q.fromUs(v) : v);
  return {
    domain,
    ticks: scaleLinear(domain.map(own), [0, 1])
      .ticks(count)
      .map((t) => ({ at: back(t), label: String(t) })),
    title: q[units],
  };
}
