"use client";
import { type PointerEvent, useEffect, useRef, useState } from "react";
import type { Picture, Point } from "@/core/photo";

/** How much larger what is under the finger is shown, and how far about it, px of the picture. */
const LOUPE = 3;
const LOUPE_REACH = 34;

/**
 * The photo, to tap places on in turn; what is under the finger is shown larger while it is held down, and the place is where
 * it is let go. With the keyboard the arrows move a cross and Enter takes it.
 */
export function TapCanvas({
  picture,
  names,
  done,
}: {
  picture: Picture;
  /** What is tapped, one after another. */
  names: readonly string[];
  done: (points: readonly Point[]) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [taken, setTaken] = useState<readonly Point[]>([]);
  const [held, setHeld] = useState<Point | null>(null);
  const { width, height } = picture;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const image = new ImageData(new Uint8ClampedArray(picture.rgba), width, height);
    context.putImageData(image, 0, 0);
    const size = Math.max(width, height) / 130;
    for (const [i, [x, y]] of taken.entries()) {
      context.beginPath();
      context.arc(x * width, y * height, size, 0, 7);
      context.fillStyle = "#d02020";
      context.fill();
      context.lineWidth = size / 3;
      context.strokeStyle = "#ffffff";
      context.stroke();
      const before = taken[i - 1];
      if (before && i === 1) {
        context.beginPath();
        context.moveTo(before[0] * width, before[1] * height);
        context.lineTo(x * width, y * height);
        context.strokeStyle = "#d02020";
        context.stroke();
      }
    }
    if (held && canvas.current) {
      const [x, y] = [held[0] * width, held[1] * height];
      const reach = LOUPE_REACH * (Math.max(width, height) / 1000);
      const r = reach * LOUPE;
      // Beside the finger, not under it.
      const at = [x < width / 2 ? width - r - 6 : r + 6, r + 6] as const;
      context.save();
      context.beginPath();
      context.arc(at[0], at[1], r, 0, 7);
      context.clip();
      context.drawImage(canvas.current, x - reach, y - reach, 2 * reach, 2 * reach, at[0] - r, at[1] - r, 2 * r, 2 * r);
      context.restore();
      context.strokeStyle = "#d02020";
      context.lineWidth = size / 3;
      context.beginPath();
      context.arc(at[0], at[1], r, 0, 7);
      context.moveTo(at[0] - r / 3, at[1]);
      context.lineTo(at[0] + r / 3, at[1]);
      context.moveTo(at[0], at[1] - r / 3);
      context.lineTo(at[0], at[1] + r / 3);
      context.moveTo(x - 3 * size, y);
      context.lineTo(x + 3 * size, y);
      context.moveTo(x, y - 3 * size);
      context.lineTo(x, y + 3 * size);
      context.stroke();
    }
  }, [picture, taken, held, width, height]);
  const placeOf = (e: PointerEvent<HTMLCanvasElement>): Point => {
    const box = e.currentTarget.getBoundingClientRect();
    return [
      Math.min(1, Math.max(0, (e.clientX - box.left) / box.width)),
      Math.min(1, Math.max(0, (e.clientY - box.top) / box.height)),
    ];
  };
  const take = (point: Point) => {
    setHeld(null);
    const next = [...taken, point];
    setTaken(next.length === names.length ? [] : next);
    if (next.length === names.length) done(next);
  };
  return (
    <div className="grid gap-2">
      <p className="m-0" role="status">
        Tap <b>{names[taken.length] ?? ""}</b>
        {taken.length > 0 && (
          <button type="button" className="link ml-3 min-h-11" onClick={() => setTaken(taken.slice(0, -1))}>
            take the last one back
          </button>
        )}
      </p>
      <canvas
        ref={canvas}
        width={width}
        height={height}
        tabIndex={0}
        aria-label={`The photo: tap ${names[taken.length] ?? ""}; arrows move, Enter takes`}
        className="max-h-[70vh] max-w-full cursor-crosshair touch-none border border-rule-strong"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setHeld(placeOf(e));
        }}
        onPointerMove={(e) => e.buttons > 0 && setHeld(placeOf(e))}
        onPointerUp={(e) => take(placeOf(e))}
        onKeyDown={(e) => {
          const by = e.shiftKey ? 0.05 : 0.005;
          const move = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
          const at = held ?? [0.5, 0.5];
          if (move) {
            e.preventDefault();
            const held01 = (value: number) => Math.min(1, Math.max(0, value));
            setHeld([held01(at[0] + (move[0] as number)), held01(at[1] + (move[1] as number))]);
          } else if (e.key === "Enter") {
            e.preventDefault();
            take(at);
          }
        }}
      />
    </div>
  );
}
