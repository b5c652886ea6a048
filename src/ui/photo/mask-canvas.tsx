"use client";
import { type PointerEvent, useEffect, useRef } from "react";

/** What is drawn over a picture: what was looked for hatched, what is not told dotted, bare metal hatched the other way. */
function tint(rgba: Uint8ClampedArray, at: number, x: number, y: number, state: number | undefined): void {
  const on =
    state === 1
      ? (x + y) % 7 < 3
      : state === 2
        ? x % 5 === 0 && y % 5 === 0
        : state === 4 && (((x - y) % 8) + 8) % 8 < 2;
  if (!on) return;
  const [r, g, b] = state === 1 ? [208, 32, 32] : state === 4 ? [20, 90, 230] : [250, 190, 20];
  rgba[at] = r as number;
  rgba[at + 1] = g as number;
  rgba[at + 2] = b as number;
}

/** A picture with what was told of it marked over it; the brush marks or clears as it goes. */
export function MaskCanvas({
  width,
  height = width,
  label = "The lattice squared up; what came off is hatched",
  rgba,
  state,
  stroke,
  begin,
  wide = false,
}: {
  width: number;
  height?: number;
  /** What it shows, for whoever does not see it. */
  label?: string;
  rgba: Uint8ClampedArray;
  /** Another array whenever a mark is another. */
  state: Uint8Array;
  begin: () => void;
  stroke: (x: number, y: number) => void;
  /** A strip is as wide as it may be. */
  wide?: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const down = useRef(false);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const picture = new ImageData(new Uint8ClampedArray(rgba), width, height);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) tint(picture.data, (y * width + x) * 4, x, y, state[y * width + x]);
    context.putImageData(picture, 0, 0);
  }, [rgba, state, width, height]);
  const at = (e: PointerEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    stroke(((e.clientX - box.left) / box.width) * width, ((e.clientY - box.top) / box.height) * height);
  };
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      aria-label={label}
      className={`h-auto ${wide ? "w-full" : "w-[min(420px,100%)]"} touch-none border border-rule-strong`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        down.current = true;
        begin();
        at(e);
      }}
      onPointerMove={(e) => down.current && at(e)}
      onPointerUp={() => {
        down.current = false;
      }}
    />
  );
}
