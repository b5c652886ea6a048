import { localMoment } from "../format";

type Failure = { readonly kind: string; readonly [detail: string]: unknown };
const s = (value: unknown): string =>
  typeof value === "number" ? String(Math.round(value * 1000) / 1000) : String(value);

/** What can be refused of a round in the field, of a device without a network, and of photos measured. */
export const fieldSentences: Record<string, (f: Failure) => string> = {
  "not-of-this-site": (f) => `This picture is not one of a structure at ${s(f.site)}. Attach it to one of them first.`,
  "no-card": () =>
    "The scale card is not found. Lay it flat beside what is measured, all four marks in the picture and in focus, or give two points of known distance.",
  "card-not-whole": (f) =>
    `Only ${s(f.marks)} of the card’s four marks are seen. Take the photo again with all of the card in it and nothing over its marks.`,
  "card-aslant": (f) =>
    `The card is seen too much aslant: one side is ${s(f.times)} times what it should be beside the other. Stand squarer to it.`,
  "too-far": (f) => `A millimetre is only ${s(f.pxPerMm)} pixels: go nearer, three are the least.`,
  "points-too-near": (f) => `The two points are ${s(f.px)} pixels apart: choose two that lie well apart.`,
  "line-too-short": (f) => `What was tapped is ${s(f.mm)} mm long: tap its two ends, 10 mm or more.`,
  "creep-out-of-picture": () =>
    "No sound film is seen beside it within 22 mm: take the photo so that film on both sides is in it, and the card not over it.",
  "cloth-not-dark": (f) =>
    `The cloth’s clean place has L* ${s(f.lightness)}: rub with a black cloth, or tap its clean place.`,
  "photo-lost": (f) => `Its photo “${s(f.caption)}” is no longer on this device. Send it without, or throw it away.`,
  "somebody-elses": (f) =>
    `${s(f.by)} captured this on this device. It waits until ${s(f.by)} is signed in here; nothing is lost.`,
  "clock-off": (f) =>
    `This device's clock says ${localMoment(new Date(Number(f.deviceMs)))}, and ${localMoment(new Date(Number(f.seenMs)))} was already past when it last had a network. Say which day it is.`,
  "clock-moved": () => "This device's clock was set anew since. Say on which day this was.",
  "device-full": (f) =>
    `This device has no room left (${s(f.freeMb)} MB free): nothing of this zone is kept yet. What you typed stands here; send what waits, or free some room, and record it again.`,
  "storage-refused": () =>
    "This browser keeps nothing (private window, or storage is off), and there is no network: this zone is not kept. Leave the page open until there is a network, and record it again.",
};
