"use client";
import { useMemo, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { type AdhesionMethod, crossCutGrade } from "@/core/bench";
import { NOTHING_PERCENT, sharesOf } from "@/core/photo";
import { Entry } from "../forms/entry";
import { type EntryForm, useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { Brushes } from "../photo/brushes";
import { CornersCanvas } from "../photo/corners-canvas";
import { MaskCanvas } from "../photo/mask-canvas";
import { useMask } from "../photo/use-mask";
import { failureText } from "../words/failures";
import { DoneOn, doneOn, doneOnBegun } from "./done-on";
import { useCutPhoto } from "./use-cut-photo";

type Attach = (form: FormData) => Promise<{
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
}>;
const BRUSH_PX = 7;

/** A cross-cut read from a photo: what the machine tells is shown and mended by hand, and both are kept with the photo. */
export function CutPhotoForm({
  rack,
  lattice,
  worstIso,
  panels,
  attach,
}: {
  rack: string;
  lattice: Extract<AdhesionMethod, { method: "cross-cut" }>;
  worstIso: number;
  panels: readonly string[];
  attach: Attach;
}) {
  const held = useEntryForm(`cross-cut photo ${rack}`, { ...doneOnBegun(panels) });
  const recorder = useRecorder(held);
  const reader = useCutPhoto();
  const [file, setFile] = useState<File | null>(null);
  // One photo has one id, however often it is sent.
  const [photoId, setPhotoId] = useState("");
  const [sending, setSending] = useState(false);
  const { answer } = reader;
  const read = answer?.read.ok ? answer.read.value : null;
  const mask = useMemo(
    () => (read ? { width: read.mask.width, height: read.mask.width, state: read.mask.state } : null),
    [read],
  );
  const brush = useMask(mask, BRUSH_PX);
  const n = lattice.cuts - 1;
  const { state } = brush;
  const own = useMemo(
    () => (read && state ? sharesOf(state, read.mask.width, n, read.kerf / 2) : null),
    [read, state, n],
  );
  const percent = own ? (100 * own.squares.reduce((a, b) => a + b, 0)) / own.squares.length : null;
  const grade = percent === null ? null : crossCutGrade(percent < NOTHING_PERCENT ? 0 : percent);
  const choose = (next: File | null) => {
    setFile(next);
    setPhotoId(uuidv7());
    reader.drop();
    if (next) reader.ask({ file: next, cuts: lattice.cuts, corners: null });
  };
  return (
    <Entry
      held={held}
      id="cut-photo"
      sending={{ busy: recorder.busy || sending, message: recorder.message }}
      button={read ? "Accept it and record" : null}
      primary
      className="grid gap-3"
      send={async ({ refuse }) => {
        if (!file || !read || !own) return refuse(null, "Choose a photo first.");
        // The photo goes first: what was read of it names it.
        setSending(true);
        const data = new FormData();
        for (const [name, value] of Object.entries({ id: photoId, rack, caption: "Cross-cut after the tape" }))
          data.set(name, value);
        data.set("photo", file);
        const kept = await attach(data).catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
        setSending(false);
        if (!kept.ok) return refuse(null, failureText(kept.failure ?? { kind: "not-saved" }));
        const recorded = await recorder.send({
          kind: "cross-cut-photo",
          rack,
          photo: photoId,
          squares: lattice.squares,
          spacingMm: lattice.spacingMm,
          machinePercent: Math.min(100, Math.max(0, read.removedPercent)),
          shares: own.squares.map((s) => Math.round(s * 10_000) / 10_000),
          ...doneOn(held.values.on),
        });
        if (recorded) choose(null);
        return recorded;
      }}
    >
      <div className="field max-w-[420px]">
        <label htmlFor="cut-photo-file">A photo of the lattice after the tape, all of it in, square on and sharp</label>
        <input
          id="cut-photo-file"
          type="file"
          accept="image/jpeg,image/png,image/webp"
          className="input"
          onChange={(e) => choose(e.target.files?.[0] ?? null)}
        />
      </div>
      {reader.busy && <p role="status">Reading the photo …</p>}
      {answer && !answer.read.ok && !reader.busy && (
        <>
          <p role="alert" className="m-0 text-watch">
            {failureText(answer.read.error)}
          </p>
          {answer.shown && file && (
            <CornersCanvas
              picture={answer.shown}
              done={(corners) => reader.ask({ file, cuts: lattice.cuts, corners })}
            />
          )}
        </>
      )}
      {read && state && !reader.busy && (
        <div className="flex flex-wrap gap-6">
          <MaskCanvas
            width={read.picture.width}
            rgba={read.picture.rgba}
            state={state}
            begin={brush.begin}
            stroke={brush.stroke}
          />
          <div className="grid content-start gap-3">
            <p className="m-0">
              <span className="small soft">came off</span>
              <br />
              <b className="fig text-[30px] leading-none">{percent?.toFixed(1)}</b> %
              <br />
              <span className="small soft">the machine reads {read.removedPercent.toFixed(1)} %</span>
              {own && own.unknown > 0.002 && (
                <span className="block text-watch">
                  {(100 * own.unknown).toFixed(1)} % of it is not told (dotted): brush it, one way or the other
                </span>
              )}
            </p>
            {grade?.ok && (
              <Verdict result={grade.value.iso > worstIso ? "out" : "in"}>
                Grade {grade.value.iso}, {grade.value.astmB}
              </Verdict>
            )}
            <Brushes
              {...brush}
              of={[
                [1, "came off"],
                [0, "is film"],
              ]}
            />
            <DoneOn held={held as unknown as EntryForm<{ on: string }>} panels={panels} />
            <span className="small soft">The photo, what was read and what was accepted are all kept.</span>
          </div>
        </div>
      )}
    </Entry>
  );
}
