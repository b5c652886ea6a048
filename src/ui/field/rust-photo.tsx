"use client";
import { useMemo, useState } from "react";
import { changedShares, shareOfMask } from "@/core/photo";
import { err } from "@/core/result";
import { Brushes } from "../photo/brushes";
import { CornersCanvas } from "../photo/corners-canvas";
import { MaskCanvas } from "../photo/mask-canvas";
import { useMask } from "../photo/use-mask";
import { usePhotoReader } from "../photo/use-photo-reader";
import { failureText } from "../words/failures";
import type { Measured } from "./accepted";
import type { RustAnswer, RustQuestion } from "./rust-photo-reader";

const BRUSH_PX = 9;
const make = () => new Worker(new URL("./rust-photo-worker.ts", import.meta.url), { type: "module" });
const stopped = (number: number): RustAnswer => ({ number, read: err({ kind: "bad-photo" }) });

/** The rusted share of a zone from a photo: told by colour, mended by brush, taken over when it is right. */
export function RustFromPhoto({ accept }: { accept: (rust: Measured | null) => void }) {
  const reader = usePhotoReader<RustQuestion, RustAnswer>(make, stopped);
  const [file, setFile] = useState<File | null>(null);
  const [framing, setFraming] = useState(false);
  const read = reader.answer?.read.ok ? reader.answer.read.value : null;
  const mask = useMemo(() => read?.mask ?? null, [read]);
  const brush = useMask(mask, BRUSH_PX);
  const percent = useMemo(() => (brush.state ? shareOfMask(brush.state) : null), [brush.state]);
  const choose = (next: File | null) => {
    setFile(next);
    setFraming(false);
    accept(null);
    reader.drop();
    if (next) reader.ask({ file: next, frame: null });
  };
  return (
    <div className="grid gap-3">
      <div className="field">
        <label htmlFor="rust-photo">A photo of the zone, square on, nothing else in it; or frame it after</label>
        <input
          id="rust-photo"
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          className="input"
          onChange={(e) => choose(e.target.files?.[0] ?? null)}
        />
      </div>
      {reader.busy && <p role="status">Reading the photo …</p>}
      {reader.answer && !reader.answer.read.ok && !reader.busy && (
        <p role="alert" className="m-0 text-watch">
          {failureText(reader.answer.read.error)}
        </p>
      )}
      {read && file && framing && (
        <CornersCanvas
          picture={read.picture}
          of="zone"
          done={(corners) => {
            setFraming(false);
            accept(null);
            reader.ask({ file, frame: corners });
          }}
        />
      )}
      {read && brush.state && file && !reader.busy && !framing && (
        <>
          <MaskCanvas
            width={read.mask.width}
            height={read.mask.height}
            label="The photo; what is taken for rust is hatched"
            rgba={read.picture.rgba}
            state={brush.state}
            begin={brush.begin}
            stroke={(x, y) => {
              accept(null);
              brush.stroke(x, y);
            }}
          />
          <p className="m-0">
            <span className="small soft">rusted</span> <b className="fig text-[24px]">{percent?.toFixed(2)}</b> %{" "}
            <span className="small soft">the machine reads {read.sharePercent.toFixed(2)} %</span>
            {read.unknown > 0.002 && (
              <span className="block text-watch">
                {(100 * read.unknown).toFixed(1)} % of it is not told (dotted): too dark or too bright
              </span>
            )}
            {read.stainPercent > 0.5 && (
              <span className="small soft block">
                {read.stainPercent.toFixed(1)} % looks like water that ran off rust, and is not counted
              </span>
            )}
          </p>
          <Brushes {...brush} marks="rust" unmarks="no rust" />
          <p className="m-0 flex flex-wrap gap-3">
            <button
              type="button"
              className="btn pri"
              onClick={() =>
                percent !== null &&
                brush.state &&
                accept({
                  file,
                  of: "rust",
                  machine: read.sharePercent,
                  machineEach: [],
                  ...changedShares(read.mask.state, brush.state),
                  scale: null,
                  pxPerMm: null,
                  put: { rust: percent.toFixed(2) },
                })
              }
            >
              Take this share
            </button>
            <button type="button" className="btn" onClick={() => setFraming(true)}>
              Frame the zone
            </button>
          </p>
        </>
      )}
    </div>
  );
}
