import {
  type BlistersPhoto,
  type ChalkOnCloth,
  type CreepFrom,
  type CreepStrip,
  chalkOnCloth,
  creepStrip,
  type FlakedPhoto,
  type Frame,
  findBlisters,
  findCard,
  flakedShare,
  onPlane,
  type Picture,
  type Point,
  type RustPhoto,
  rustShare,
  type Scale,
  scaleByPoints,
} from "@/core/photo";
import { ok, type Result } from "@/core/result";
import { drawn, openedPhoto } from "../photo/opened-photo";

/** A scale as it is asked for: by the card, or by two points of the picture, of its width and height, 0–1, so far apart. */
export type ScaleBy = { readonly card: true } | { readonly a: Point; readonly b: Point; readonly mm: number };
/** What is read of a photo. */
export type Ask =
  | { readonly what: "rust"; readonly frame: Frame }
  | { readonly what: "flaking"; readonly frame: Frame }
  | { readonly what: "scale"; readonly scale: ScaleBy }
  | { readonly what: "blisters"; readonly scale: ScaleBy }
  /** Points of the picture, 0–1: of a scribe its ends, of an edge its ends and the film, of a chip its middle and its edge. */
  | {
      readonly what: "creep";
      readonly scale: ScaleBy;
      readonly from: CreepFrom["kind"];
      readonly points: readonly Point[];
    }
  | { readonly what: "chalk"; readonly rubbed: Point; readonly clean: Point; readonly white: Point | null }
  | { readonly what: "picture" };
export type MeasureQuestion = { readonly number: number; readonly file: Blob; readonly of: Ask };
export type Measurement =
  | { readonly what: "rust"; readonly read: RustPhoto }
  | { readonly what: "flaking"; readonly read: FlakedPhoto }
  | { readonly what: "scale"; readonly scale: Scale; readonly picture: Picture }
  | { readonly what: "creep"; readonly scale: Scale; readonly strip: CreepStrip }
  | { readonly what: "blisters"; readonly scale: Scale; readonly read: BlistersPhoto }
  | { readonly what: "chalk"; readonly read: ChalkOnCloth }
  | { readonly what: "picture"; readonly picture: Picture };
export type MeasureAnswer = { readonly number: number; readonly read: Result<Measurement> };

/** Longest side that is worked on, px: shares are told at half of it; lengths want all that a photo has. */
const FOR_SHARES = 2000;
const FOR_LENGTHS = 3600;
/** Longest side that is shown to be tapped on, px. */
const SHOWN = 1000;

let last: { readonly file: Blob; readonly most: number; readonly picture: Picture } | null = null;
/** The picture of a file; kept, since the next question is of the same. */
async function pictureOf(file: Blob, most: number): Promise<Result<Picture>> {
  // A file is another object each time it is handed over.
  if (last && last.most === most && last.file.size === file.size && sameFile(last.file, file)) return ok(last.picture);
  const opened = await openedPhoto(file);
  if (!opened.ok) return opened;
  const picture = drawn(opened.value, most);
  opened.value.close();
  last = { file, most, picture };
  return ok(picture);
}
const sameFile = (a: Blob, b: Blob): boolean =>
  a instanceof File && b instanceof File && a.name === b.name && a.lastModified === b.lastModified;

function scaleFor(picture: Picture, by: ScaleBy): Result<Scale> {
  if ("card" in by) return findCard(picture);
  const px = ([x, y]: Point): Point => [x * picture.width, y * picture.height];
  return scaleByPoints(px(by.a), px(by.b), by.mm);
}

/** Opens a photo turned as its camera says, and reads what is asked of it. Failures: those of what is asked, and of `openedPhoto`. */
export async function measured(question: MeasureQuestion): Promise<MeasureAnswer> {
  const { number, of } = question;
  const opened = await pictureOf(question.file, "scale" in of ? FOR_LENGTHS : FOR_SHARES);
  return { number, read: opened.ok ? read(of, opened.value) : opened };
}

function read(q: Ask, picture: Picture): Result<Measurement> {
  if (q.what === "picture") return ok({ what: "picture", picture: shown(picture) });
  if (q.what === "rust") {
    const r = rustShare(picture, q.frame);
    return r.ok ? ok({ what: "rust", read: r.value }) : r;
  }
  if (q.what === "flaking") {
    const r = flakedShare(picture, q.frame);
    return r.ok ? ok({ what: "flaking", read: r.value }) : r;
  }
  if (q.what === "chalk") {
    const r = chalkOnCloth(picture, q);
    return r.ok ? ok({ what: "chalk", read: r.value }) : r;
  }
  const scale = scaleFor(picture, q.scale);
  if (!scale.ok) return scale;
  if (q.what === "scale" || q.what === "blisters") {
    if (q.what === "scale") return ok({ what: "scale", scale: scale.value, picture: shown(picture) });
    const r = findBlisters(picture, scale.value);
    return r.ok ? ok({ what: "blisters", scale: scale.value, read: r.value }) : r;
  }
  const [a, b, c] = q.points.map(([x, y]) => onPlane(scale.value, [x * picture.width, y * picture.height]));
  if (!a || !b) throw new RangeError("creep is measured from two points or three");
  const from: CreepFrom =
    q.from === "scribe"
      ? { kind: "scribe", a, b }
      : q.from === "chip"
        ? { kind: "chip", middle: a, edge: b }
        : { kind: "edge", a, b, film: c ?? b };
  const strip = creepStrip(picture, scale.value, from);
  return strip.ok ? ok({ what: "creep", scale: scale.value, strip: strip.value }) : strip;
}

/** As it is shown to be tapped on; a copy, since it is handed over. */
function shown(picture: Picture): Picture {
  const by = Math.max(1, Math.ceil(Math.max(picture.width, picture.height) / SHOWN));
  const [width, height] = [Math.floor(picture.width / by), Math.floor(picture.height / by)];
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const from = ((y * by + (by >> 1)) * picture.width + x * by + (by >> 1)) * 4;
      rgba.set(picture.rgba.subarray(from, from + 4), (y * width + x) * 4);
    }
  return { width, height, rgba };
}
