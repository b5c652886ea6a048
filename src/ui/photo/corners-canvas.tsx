"use client";
import { useEffect, useRef, useState } from "react";
import type { Picture, Point } from "@/core/photo";

const names = ["upper left", "upper right", "lower right", "lower left"] as const;

/** The photo, to tap the four corners of what is looked at on, in turn. */
export function CornersCanvas({
  picture,
  of = "lattice",
  done,
}: {
  picture: Picture;
  /** Whose corners are tapped. */
  of?: string;
  done: (corners: readonly [Point, Point, Point, Point]) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [taken, setTaken] = useState<readonly Point[]>([]);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    context.putImageData(new ImageData(new Uint8ClampedArray(picture.rgba), picture.width, picture.height), 0, 0);
    context.fillStyle = "#d02020";
    for (const [x, y] of taken) {
      context.beginPath();
      context.arc(x * picture.width, y * picture.height, 6, 0, 7);
      context.fill();
    }
  }, [picture, taken]);
  return (
    <div className="grid gap-2">
      <p className="m-0">
        Tap the {of}’s corners: <b>{names[taken.length] ?? ""}</b>
        {taken.length > 0 && (
          <button type="button" className="link ml-3 min-h-11" onClick={() => setTaken([])}>
            begin again
          </button>
        )}
      </p>
      <canvas
        ref={canvas}
        width={picture.width}
        height={picture.height}
        aria-label="The photo"
        className="max-h-[70vh] max-w-full cursor-crosshair border border-rule-strong"
        onClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          const next = [...taken, [(e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height] as Point];
          setTaken(next.length === 4 ? [] : next);
          if (next.length === 4) done(next as unknown as readonly [Point, Point, Point, Point]);
        }}
      />
    </div>
  );
}
