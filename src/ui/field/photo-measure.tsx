"use client";
import { type ReactNode, useId, useMemo, useState } from "react";
import { creepFromChip, creepFromScribe } from "@/core/field";
import {
  blisterSizeOf,
  type CreepFrom,
  changedShares,
  countBlisters,
  creepWidths,
  goneOfMask,
  type Picture,
  type Point,
  shareOfMask,
} from "@/core/photo";
import { err } from "@/core/result";
import { mean } from "@/core/statistics";
import { OneOf } from "../fields/one-of-later";
import { typed, withUnit } from "../format";
import { parseTyped } from "../parse-typed";
import { Brushes } from "../photo/brushes";
import { CornersCanvas } from "../photo/corners-canvas";
import { MaskCanvas } from "../photo/mask-canvas";
import { TapCanvas } from "../photo/tap-canvas";
import { useMask } from "../photo/use-mask";
import { usePhotoReader } from "../photo/use-photo-reader";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import type { Measured } from "./accepted";
import type { Ask, MeasureAnswer, Measurement, MeasureQuestion, ScaleBy } from "./measure-reader";

type What = Measured["of"];
const BRUSH_PX = 9;
const make = () => new Worker(new URL("./measure-worker.ts", import.meta.url), { type: "module" });
const stopped = (number: number): MeasureAnswer => ({ number, read: err({ kind: "bad-photo" }) });

const names: Record<What, string> = {
  rust: "Rusted share",
  flaking: "Flaked share",
  creep: "Creep",
  blisters: "Blisters",
  chalk: "Chalk on a cloth",
};
const how: Record<What, string> = {
  rust: "A photo of the zone, square on, nothing else in it; or frame it after",
  flaking: "A photo of the zone, square on, nothing else in it; or frame it after",
  creep: "A photo of the scribe, edge or chip with the scale card flat beside it, all four marks in",
  blisters: "A photo under light from the side, the scale card flat beside them, all four marks in",
  chalk: "A photo of the dark cloth after the rub: where it rubbed, where it is clean, white paper beside it",
};
const creepPoints: Record<CreepFrom["kind"], readonly string[]> = {
  scribe: ["one end of the scribe", "its other end"],
  edge: ["one end of the edge", "its other end", "the film beside it"],
  chip: ["the middle of the chip as it was", "a point on the chip's own edge"],
};

type Accept = (of: What, measured: Measured | null) => Promise<string | null>;

/** Measures a zone on photos: what is read is shown, mended by brush or tap, and taken over when it is right. */
export function PhotoMeasure({ accept, begun = "rust" }: { accept: Accept; begun?: What }) {
  const [what, setWhat] = useState<What>(begun);
  return (
    <div className="grid gap-3">
      <OneOf
        label="What the photo is measured for"
        value={what}
        options={Object.entries(names).map(([value, label]) => ({ value, label }))}
        onChange={(next) => setWhat(next as What)}
      />
      <One key={what} what={what} accept={accept} />
    </div>
  );
}

function One({ what, accept }: { what: What; accept: Accept }) {
  const reader = usePhotoReader<MeasureQuestion, MeasureAnswer>(make, stopped);
  const id = useId();
  const [file, setFile] = useState<File | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [scale, setScale] = useState<ScaleBy>({ card: true });
  const ask = (of: Ask) => {
    if (file) reader.ask({ of, file });
  };
  const first = (by: ScaleBy): Ask =>
    what === "rust" || what === "flaking"
      ? { what, frame: null }
      : what === "chalk"
        ? { what: "picture" }
        : { what: what === "blisters" ? "blisters" : "scale", scale: by };
  const choose = (next: File | null) => {
    setFile(next);
    setSaid(null);
    setScale({ card: true });
    void accept(what, null);
    reader.drop();
    if (next) reader.ask({ file: next, of: first({ card: true }) });
  };
  const take = async (measured: Omit<Measured, "file" | "of">) => {
    if (!file) return;
    const wrong = await accept(what, { ...measured, file, of: what });
    setSaid(wrong ?? "Taken over; the photo, what was read and what you changed are kept.");
  };
  const undo = () => {
    setSaid(null);
    void accept(what, null);
  };
  const answer = reader.answer;
  const failed = answer && !answer.read.ok && !reader.busy ? answer.read.error : null;
  const noCard =
    failed && ["no-card", "card-not-whole", "card-aslant", "too-far"].includes(failed.kind) && "card" in scale;
  return (
    <div className="grid gap-3">
      <div className="field">
        <label htmlFor={id}>{how[what]}</label>
        <input
          id={id}
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          className="input"
          onChange={(e) => choose(e.target.files?.[0] ?? null)}
        />
      </div>
      {reader.busy && <p role="status">Reading the photo …</p>}
      {failed && (
        <p role="alert" className="m-0 text-watch">
          {failureText(failed)}
        </p>
      )}
      {noCard && file && (
        <TwoPoints
          file={file}
          done={(by) => {
            setScale(by);
            reader.ask({ file, of: first(by) });
          }}
        />
      )}
      {answer?.read.ok && file && !reader.busy && (
        <Read key={answer.number} m={answer.read.value} ask={ask} scale={scale} take={take} undo={undo} />
      )}
      {said && <output className="m-0">{said}</output>}
    </div>
  );
}

/** Without a card: two points of known distance. */
function TwoPoints({ file, done }: { file: File; done: (by: ScaleBy) => void }) {
  const reader = usePhotoReader<MeasureQuestion, MeasureAnswer>(make, stopped);
  const [begun, setBegun] = useState(false);
  const [points, setPoints] = useState<readonly Point[] | null>(null);
  const [text, setText] = useState("");
  const { units } = usePreferences();
  const id = useId();
  if (!begun)
    return (
      <p className="m-0">
        <button
          type="button"
          className="btn"
          onClick={() => {
            setBegun(true);
            reader.ask({ of: { what: "picture" }, file });
          }}
        >
          Give a scale by two points instead
        </button>{" "}
        <span className="small soft">The camera must have stood square on; assumed, not measured.</span>
      </p>
    );
  const m = reader.answer?.read.ok ? reader.answer.read.value : null;
  if (m?.what !== "picture") return <p role="status">Opening the photo …</p>;
  if (!points)
    return (
      <TapCanvas
        picture={m.picture}
        names={["a point that you know the distance from", "the point that you know it to"]}
        done={setPoints}
      />
    );
  const read = parseTyped(text);
  return (
    <p className="m-0 flex flex-wrap items-end gap-3">
      <span className="field">
        <label htmlFor={id}>They lie apart by, {units === "us" ? "in" : "mm"}</label>
        <input
          id={id}
          className="input num"
          inputMode="decimal"
          autoComplete="off"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </span>
      <button
        type="button"
        className="btn pri"
        disabled={!read.ok || !(read.value > 0)}
        onClick={() =>
          read.ok &&
          done({ a: points[0] as Point, b: points[1] as Point, mm: units === "us" ? 25.4 * read.value : read.value })
        }
      >
        Measure by these
      </button>
      <button type="button" className="btn" onClick={() => setPoints(null)}>
        Tap them again
      </button>
    </p>
  );
}

type ReadProps = {
  readonly m: Measurement;
  readonly ask: (of: Ask) => void;
  readonly scale: ScaleBy;
  readonly take: (measured: Omit<Measured, "file" | "of">) => Promise<void>;
  readonly undo: () => void;
};
const scaled = (scale: ScaleBy) => ("card" in scale ? ("card" as const) : ("two-points" as const));

function Read(props: ReadProps) {
  const { m, ask, scale } = props;
  if (m.what === "rust" || m.what === "flaking") return <Share {...props} m={m} />;
  if (m.what === "scale") return <CreepTaps picture={m.picture} pxPerMm={m.scale.pxPerMm} scale={scale} ask={ask} />;
  if (m.what === "creep") return <Widths {...props} m={m} />;
  if (m.what === "blisters") return <Counted {...props} m={m} />;
  if (m.what === "picture")
    return (
      <TapCanvas
        picture={m.picture}
        names={["the cloth where it rubbed", "the cloth where it is clean", "white paper, or the card"]}
        done={([rubbed, clean, white]) =>
          rubbed && clean && ask({ what: "chalk", rubbed, clean, white: white ?? null })
        }
      />
    );
  return (
    <div className="grid gap-2">
      <p className="m-0">
        <span className="small soft">lighter by</span> <b className="fig text-[24px]">{m.read.deltaL.toFixed(1)}</b> ΔL*{" "}
        <span className="small soft">
          rubbed L* {m.read.rubbedL.toFixed(0)}, clean {m.read.cleanL.toFixed(0)}. Give the grade beside the standard’s
          pictures (ISO 4628-6): no scale of ΔL* is agreed.
        </span>
      </p>
      <Take
        onTake={() =>
          props.take({
            machine: m.read.deltaL,
            machineEach: [],
            addedPercent: null,
            removedPercent: null,
            scale: null,
            pxPerMm: null,
            put: { deltaL: m.read.deltaL.toFixed(1) },
          })
        }
      >
        Take this reading
      </Take>
    </div>
  );
}

const Take = ({ onTake, children }: { onTake: () => void; children: ReactNode }) => (
  <button type="button" className="btn pri w-fit" onClick={onTake}>
    {children}
  </button>
);

/** What was told of a picture, to be mended by brush; a stroke takes back what was taken over of it. */
function Masked({
  of,
  picture,
  brush,
  label,
  undo,
  wide = false,
}: {
  of: { readonly width: number; readonly height: number };
  picture: Picture;
  brush: ReturnType<typeof useMask>;
  label: string;
  undo: () => void;
  wide?: boolean;
}) {
  return brush.state ? (
    <MaskCanvas
      wide={wide}
      width={of.width}
      height={of.height}
      label={label}
      rgba={picture.rgba}
      state={brush.state}
      begin={brush.begin}
      stroke={(x, y) => {
        undo();
        brush.stroke(x, y);
      }}
    />
  ) : null;
}

function Share({ m, ask, take, undo }: ReadProps & { m: Extract<Measurement, { what: "rust" | "flaking" }> }) {
  const { read } = m;
  const brush = useMask(read.mask, BRUSH_PX);
  const [framing, setFraming] = useState(false);
  const rust = m.what === "rust";
  const percent = useMemo(
    () => (brush.state ? (rust ? shareOfMask(brush.state) : goneOfMask(brush.state)) : null),
    [brush.state, rust],
  );
  if (framing) return <CornersCanvas picture={read.picture} of="zone" done={(frame) => ask({ what: m.what, frame })} />;
  if (!brush.state) return null;
  const state = brush.state;
  return (
    <>
      <Masked
        of={read.mask}
        picture={read.picture}
        brush={brush}
        label={rust ? "The photo; what is taken for rust is hatched" : "The photo; where the film is gone is hatched"}
        undo={undo}
      />
      <p className="m-0">
        <span className="small soft">{rust ? "rusted" : "film gone"}</span>{" "}
        <b className="fig text-[24px]">{percent?.toFixed(2)}</b> %{" "}
        <span className="small soft">the machine reads {read.sharePercent.toFixed(2)} %</span>
        {read.unknown > 0.002 && (
          <span className="block text-watch">
            {(100 * read.unknown).toFixed(1)} % of it is not told (dotted): too dark or too bright
          </span>
        )}
        {m.what === "rust" && m.read.stainPercent > 0.5 && (
          <span className="small soft block">
            {m.read.stainPercent.toFixed(1)} % looks like water that ran off rust, and is not counted
          </span>
        )}
      </p>
      <Brushes
        {...brush}
        of={
          rust
            ? [
                [1, "rust"],
                [0, "no rust"],
              ]
            : [
                [4, "film gone"],
                [0, "film"],
              ]
        }
      />
      <p className="m-0 flex flex-wrap gap-3">
        <Take
          onTake={() =>
            percent !== null &&
            take({
              machine: read.sharePercent,
              machineEach: [],
              ...changedShares(read.mask.state, state),
              scale: null,
              pxPerMm: null,
              put: { [rust ? "rust" : "flaked"]: percent.toFixed(2) },
            })
          }
        >
          Take this share
        </Take>
        <button type="button" className="btn" onClick={() => setFraming(true)}>
          Frame the zone
        </button>
      </p>
    </>
  );
}

function CreepTaps({
  picture,
  pxPerMm,
  scale,
  ask,
}: {
  picture: Picture;
  pxPerMm: number;
  scale: ScaleBy;
  ask: ReadProps["ask"];
}) {
  const [from, setFrom] = useState<CreepFrom["kind"]>("scribe");
  return (
    <>
      <p className="m-0" role="status">
        {"card" in scale ? "The card is found" : "Scale by two points"}: {pxPerMm.toFixed(1)} pixels a millimetre.
      </p>
      <OneOf
        label="Creep from"
        value={from}
        options={[
          { value: "scribe", label: "a scribe" },
          { value: "edge", label: "a cut edge" },
          { value: "chip", label: "a chip" },
        ]}
        onChange={(next) => setFrom(next as CreepFrom["kind"])}
      />
      <TapCanvas
        key={from}
        picture={picture}
        names={creepPoints[from]}
        done={(points) => ask({ what: "creep", scale, from, points })}
      />
    </>
  );
}

function Widths({ m, scale, take, undo }: ReadProps & { m: Extract<Measurement, { what: "creep" }> }) {
  const { units } = usePreferences();
  const { strip } = m;
  const brush = useMask(strip.mask, Math.max(3, Math.round(0.5 * strip.pxPerMm)));
  const machine = useMemo(() => creepWidths(strip), [strip]);
  const now = useMemo(() => (brush.state ? creepWidths(strip, brush.state) : machine), [brush.state, strip, machine]);
  if (!brush.state) return null;
  const state = brush.state;
  const scribe = strip.kind === "scribe";
  const creep = scribe ? creepFromScribe(now.rustedMm, 0) : creepFromChip(now.rustedMm);
  const loose = mean(now.looseMm) - mean(now.rustedMm);
  const each = (list: readonly number[]) => list.map((w) => typed(w, "creep", units)).join(" ");
  return (
    <>
      <Masked
        wide
        of={strip.mask}
        picture={strip.picture}
        brush={brush}
        label="The strip laid straight; rust is hatched red, bare or loose hatched blue the other way"
        undo={undo}
      />
      <p className="m-0">
        <span className="small soft">mean width that rusts</span>{" "}
        <b className="fig text-[24px]">{withUnit(mean(now.rustedMm), "creep", units)}</b>
        <span className="block">
          most {withUnit(Math.max(...now.rustedMm), "creep", units)}; by its area{" "}
          {withUnit(now.rustedByAreaMm, "creep", units)}; film gone beyond it{" "}
          {withUnit(Math.max(0, loose), "creep", units)}
        </span>
        <span className="small soft block">
          {now.at.length} places at even spacing over {strip.lengthMm.toFixed(0)} mm;{" "}
          {scribe ? "from side to side, the scribe’s own width in it" : "from the edge, on one side"}. The machine reads{" "}
          {withUnit(mean(machine.rustedMm), "creep", units)}.
        </span>
      </p>
      <Brushes
        {...brush}
        of={[
          [1, "rust"],
          [4, "loose or bare"],
          [0, "film"],
        ]}
      />
      {!creep.ok && <p className="m-0 text-out">{failureText(creep.error)}</p>}
      <Take
        onTake={() =>
          take({
            machine: mean(machine.rustedMm),
            machineEach: machine.rustedMm,
            ...changedShares(strip.mask.state, state),
            scale: scaled(scale),
            pxPerMm: m.scale.pxPerMm,
            put: {
              from: scribe ? "scribe" : "chip",
              widths: each(now.rustedMm),
              loose: each(now.looseMm),
            },
          })
        }
      >
        Take these widths
      </Take>
    </>
  );
}

function Counted({ m, scale, take, undo }: ReadProps & { m: Extract<Measurement, { what: "blisters" }> }) {
  const { read } = m;
  const brush = useMask(read.mask, Math.max(3, Math.round(0.6 * read.pxPerMm)));
  const machine = useMemo(() => countBlisters(read.mask, read.mask.state, read.pxPerMm), [read]);
  const now = useMemo(
    () => (brush.state ? countBlisters(read.mask, brush.state, read.pxPerMm) : machine),
    [brush.state, read, machine],
  );
  if (!brush.state) return null;
  const state = brush.state;
  return (
    <>
      <Masked
        wide
        of={read.mask}
        picture={read.picture}
        brush={brush}
        label="What the photo shows, squared up; blisters are hatched"
        undo={undo}
      />
      <p className="m-0">
        <b className="fig text-[24px]">{now.count}</b> blisters, <b className="fig">{now.perDm2.toFixed(0)}</b> on a
        dm², {now.medianMm === null ? "none to size" : `mostly ${now.medianMm.toFixed(1)} mm across`}
        <span className="small soft block">
          The machine counts {machine.count}. How dense they are is graded beside the standard’s pictures (ISO 4628-2).
        </span>
      </p>
      <Brushes
        {...brush}
        of={[
          [1, "blister"],
          [0, "none"],
        ]}
      />
      <Take
        onTake={() =>
          take({
            machine: machine.count,
            machineEach: [],
            ...changedShares(read.mask.state, state),
            scale: scaled(scale),
            pxPerMm: m.scale.pxPerMm,
            put: {
              perDm2: now.perDm2.toFixed(1),
              ...(now.medianMm === null
                ? { density: "0" }
                : { blisterMm: now.medianMm.toFixed(2), size: String(blisterSizeOf(now.medianMm)) }),
            },
          })
        }
      >
        Take this count
      </Take>
    </>
  );
}
