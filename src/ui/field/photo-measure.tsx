"use client";
import { useId, useState } from "react";
import type { Point } from "@/core/photo";
import { err } from "@/core/result";
import { OneOf } from "../fields/one-of-later";
import { parseTyped } from "../parse-typed";
import { TapCanvas } from "../photo/tap-canvas";
import { usePhotoReader } from "../photo/use-photo-reader";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import type { Measured } from "./accepted";
import type { Ask, MeasureAnswer, MeasureQuestion, ScaleBy } from "./measure-reader";
import { Read } from "./photo-readings";

type What = Measured["of"];
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
