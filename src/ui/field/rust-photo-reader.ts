import { type Frame, type RustPhoto, rustShare } from "@/core/photo";
import type { Result } from "@/core/result";
import { drawn, openedPhoto } from "../photo/opened-photo";

export type RustQuestion = {
  readonly number: number;
  readonly file: Blob;
  /** As it was tapped, of the picture's width and height, 0–1; null for all of it. */
  readonly frame: Frame;
};
export type RustAnswer = { readonly number: number; readonly read: Result<RustPhoto> };

/** Longest side that is worked on, px: twice what rust is told at, so that it is a mean of what was there. */
const WORKED_ON = 2000;

/** Opens a photo turned as its camera says, and reads the rusted share. Failures: those of `rustShare` and `openedPhoto`. */
export async function readRustPhoto({ number, file, frame }: RustQuestion): Promise<RustAnswer> {
  const opened = await openedPhoto(file);
  if (!opened.ok) return { number, read: opened };
  const picture = drawn(opened.value, WORKED_ON);
  opened.value.close();
  return { number, read: rustShare(picture, frame) };
}
