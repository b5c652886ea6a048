"use client";
import { type ReactNode, useMemo, useState } from "react";
import { creepFromChip, creepFromScribe } from "@/core/field";
import {
  blisterSizeOf,
  type CreepFrom,
  changedShares,
  countBlisters,
  creepWidths,
  goneOfMask,
  type Picture,
  shareOfMask,
} from "@/core/photo";
import { mean } from "@/core/statistics";
import { OneOf } from "../fields/one-of-later";
import { typed, withUnit } from "../format";
import { Brushes } from "../photo/brushes";
import { CornersCanvas } from "../photo/corners-canvas";
import { MaskCanvas } from "../photo/mask-canvas";
import { TapCanvas } from "../photo/tap-canvas";
import { useMask } from "../photo/use-mask";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import type { Measured } from "./accepted";
import type { Ask, Measurement, ScaleBy } from "./measure-reader";

const BRUSH_PX = 9;
const creepPoints: Record<CreepFrom["kind"], readonly string[]> = {
  scribe: ["one end of the scribe", "its other end"],
  edge: ["one end of the edge", "its other end", "the film beside it"],
  chip: ["the middle of the chip as it was", "a point on the chip's own edge"],
};

type ReadProps = {
  readonly m: Measurement;
  readonly ask: (of: Ask) => void;
  readonly scale: ScaleBy;
  readonly take: (measured: Omit<Measured, "file" | "of">) => Promise<void>;
  readonly undo: () => void;
};
const scaled = (scale: ScaleBy) => ("card" in scale ? ("card" as const) : ("two-points" as const));

/** What was read of a photo, shown as it is told: mended by brush or tap, and taken over. */
export function Read(props: ReadProps) {
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
