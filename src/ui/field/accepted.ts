import type { photoReadings } from "@/core/kinds/zone-visit";

/** What was read from a photo and accepted: the machine's beside it, and how much a person changed. */
export type AcceptedRead = {
  readonly of: (typeof photoReadings)[number];
  /** The photo it was read from, as it lies on the device. */
  readonly photo: string;
  readonly machine: number | null;
  readonly machineEach: readonly number[];
  readonly addedPercent: number | null;
  readonly removedPercent: number | null;
  readonly scale: "card" | "two-points" | null;
  readonly pxPerMm: number | null;
  /** Fields of the form that it filled, with what it put there; typed over, they are the typist's. */
  readonly put: Readonly<Record<string, string>>;
};
/** A reading as the measuring gives it, with the photo not kept yet. */
export type Measured = Omit<AcceptedRead, "photo"> & { readonly file: Blob };
