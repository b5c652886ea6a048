"use client";
import { err } from "@/core/result";
import { usePhotoReader } from "../photo/use-photo-reader";
import type { CutAnswer, CutQuestion } from "./cut-photo-reader";

const make = () => new Worker(new URL("./cut-photo-worker.ts", import.meta.url), { type: "module" });
const stopped = (number: number): CutAnswer => ({ number, read: err({ kind: "bad-photo" }), shown: null });

/** A photo of a cross-cut, read beside the page. */
export const useCutPhoto = () => usePhotoReader<CutQuestion, CutAnswer>(make, stopped);
