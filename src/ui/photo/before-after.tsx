"use client";
import { useEffect, useId, useMemo, useRef, useState } from "react";
import { type Picture, type Point, type Similarity, similarityOf } from "@/core/photo";
import { failureText } from "../words/failures";
import { TapCanvas } from "./tap-canvas";

const SHOWN = 900;

/** A picture on the device, no side over `SHOWN` px; null until it is opened. */
function usePicture(blob: Blob | null): Picture | null {
  const [picture, setPicture] = useState<Picture | null>(null);
  useEffect(() => {
    let gone = false;
    setPicture(null);
    if (!blob) return;
    void createImageBitmap(blob)
      .then((bitmap) => {
        const by = Math.min(1, SHOWN / Math.max(bitmap.width, bitmap.height));
        const [width, height] = [Math.round(bitmap.width * by), Math.round(bitmap.height * by)];
        const context = new OffscreenCanvas(width, height).getContext("2d");
        if (!context || gone) return;
        context.drawImage(bitmap, 0, 0, width, height);
        setPicture({ width, height, rgba: context.getImageData(0, 0, width, height).data });
      })
      .catch(() => {});
    return () => {
      gone = true;
    };
  }, [blob]);
  return picture;
}

const inPx = (points: readonly [Point, Point], of: Picture): readonly [Point, Point] => [
  [points[0][0] * of.width, points[0][1] * of.height],
  [points[1][0] * of.width, points[1][1] * of.height],
];

/** Today's with the earlier one over it, laid on by what was tapped, else as wide as it. */
function Blend({
  old,
  now,
  share,
  fit,
  when,
}: {
  old: Picture;
  now: Picture;
  share: number;
  fit: Similarity | null;
  when: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const layer = (p: Picture) => {
      const made = new OffscreenCanvas(p.width, p.height);
      made.getContext("2d")?.putImageData(new ImageData(new Uint8ClampedArray(p.rgba), p.width, p.height), 0, 0);
      return made;
    };
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = 1;
    context.drawImage(layer(now), 0, 0);
    context.globalAlpha = share / 100;
    if (fit) {
      context.setTransform(fit.a, fit.b, -fit.b, fit.a, fit.c, fit.d);
      context.drawImage(layer(old), 0, 0);
    } else context.drawImage(layer(old), 0, 0, now.width, now.height);
  }, [old, now, share, fit]);
  return (
    <canvas
      ref={canvas}
      width={now.width}
      height={now.height}
      aria-label={`Today’s photo with that of ${when} over it`}
      className="w-full border border-rule-strong"
    />
  );
}

/** The photo of the last visit laid over the one just taken: blended by a slider, laid on it by two places that are in both. */
export function BeforeAfter({ before, after, when }: { before: Blob; after: Blob; when: string }) {
  const [old, now] = [usePicture(before), usePicture(after)];
  const [share, setShare] = useState(50);
  const [asked, setAsked] = useState<"before" | "after" | null>(null);
  const [on, setOn] = useState<readonly [Point, Point] | null>(null);
  const [laid, setLaid] = useState<{
    readonly from: readonly [Point, Point];
    readonly to: readonly [Point, Point];
  } | null>(null);
  const id = useId();
  const fit = useMemo(
    () => (laid && old && now ? similarityOf(inPx(laid.from, old), inPx(laid.to, now)) : null),
    [laid, old, now],
  );
  if (!old || !now) return <p role="status">Opening both photos …</p>;
  if (asked === "before")
    return (
      <TapCanvas
        key="before"
        picture={old}
        names={[`a place on the photo of ${when}`, "a second place, well away from it"]}
        done={(points) => {
          setOn(points as unknown as readonly [Point, Point]);
          setAsked("after");
        }}
      />
    );
  if (asked === "after")
    return (
      <TapCanvas
        key="after"
        picture={now}
        names={["the first place on today’s photo", "the second place on it"]}
        done={(points) => {
          if (on) setLaid({ from: on, to: points as unknown as readonly [Point, Point] });
          setAsked(null);
        }}
      />
    );
  return (
    <div className="grid gap-2">
      <Blend old={old} now={now} share={share} fit={fit?.ok ? fit.value : null} when={when} />
      <div className="field">
        <label htmlFor={id}>
          {share} % of {when}, the rest of today
        </label>
        <input
          id={id}
          type="range"
          min={0}
          max={100}
          step={5}
          value={share}
          className="min-h-11 w-full"
          onChange={(e) => setShare(Number(e.target.value))}
        />
      </div>
      {fit && !fit.ok && <p className="m-0 text-out">{failureText(fit.error)}</p>}
      <p className="m-0">
        <button type="button" className="btn" onClick={() => setAsked("before")}>
          Lay one on the other by two places
        </button>
      </p>
    </div>
  );
}
