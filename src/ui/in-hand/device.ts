import Dexie, { type EntityTable } from "dexie";
import type { ClockSeen } from "@/core/field";
import type { EntryInput } from "@/core/kinds";
import type { Pack } from "./pack";

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
/** An entry as it is captured: its id, key and moment are put to it when it is kept. */
export type CapturedEntry = DistributiveOmit<
  Extract<EntryInput, { readonly kind: "zone-visit" | "defect" }>,
  "id" | "idempotencyKey" | "happenedAt" | "supersedes"
>;
export type Failure = { readonly kind: string; readonly [detail: string]: unknown };

/** A photo of a capture; its bytes lie apart until they are sent. */
export type CapturedPhoto = { readonly id: string; readonly caption: string; readonly sent: boolean };
/** waits to be sent; asks on which day it was, since the clock was off; refused by the server, with why; sent, and stands on record. */
export type CaptureState = "waiting" | "asks-day" | "refused" | "sent";
export type Capture = {
  /** Order in which they were kept, and are sent. */
  readonly seq: number;
  readonly id: string;
  /** User name of whoever captured it: it is sent when they are signed in. */
  readonly user: string;
  readonly structure: string;
  readonly zone: string;
  readonly round: string;
  /** By the device's clock, ms. */
  readonly capturedMs: number;
  /** When device and server had spoken last before it. */
  readonly clock: ClockSeen;
  /** By the server's clock as far as that is known, or the day that the person gave; null while that is asked. */
  readonly happenedAt: string | null;
  readonly dayGiven: boolean;
  /** Null where only photos were taken. */
  readonly entry: CapturedEntry | null;
  readonly photos: readonly CapturedPhoto[];
  readonly state: CaptureState;
  readonly failure: Failure | null;
  /** By the server's clock, ms. */
  readonly sentMs: number | null;
};
/** Bytes of a photo: taken, and of a capture or a form that is not recorded yet; or of an earlier visit. */
export type Kept = { readonly id: string; readonly of: string; readonly type: string; readonly bytes: ArrayBuffer };
export type Begun = { readonly key: string; readonly id: string; readonly begunMs: number };

export type Device = Dexie & {
  packs: EntityTable<Pack, "user">;
  captures: EntityTable<Capture, "seq">;
  kept: EntityTable<Kept, "id">;
  rounds: EntityTable<Begun, "key">;
};

/** The browser's database of what is taken along and what waits to be sent. */
export function deviceNamed(name: string, options?: ConstructorParameters<typeof Dexie>[1]): Device {
  const device = new Dexie(name, options) as Device;
  device.version(1).stores({
    packs: "user",
    captures: "++seq, &id, [user+state], [user+structure+round], state",
    kept: "id, of",
    rounds: "key",
  });
  return device;
}

/** Room that is left free for what a round still takes, bytes. */
const LEAST_FREE = 20e6;
/** Under this much the person is told before they go on, bytes. */
export const SCANT = 150e6;

/** Bytes that may still be kept; null where the browser does not say. */
export async function roomLeft(): Promise<number | null> {
  const said = await globalThis.navigator?.storage?.estimate?.().catch(() => null);
  return said?.quota === undefined || said.usage === undefined ? null : Math.max(0, said.quota - said.usage);
}

export type NewCapture = Omit<Capture, "seq" | "state" | "failure" | "sentMs" | "dayGiven">;
type Kept_ = { readonly ok: true } | { readonly ok: false; readonly failure: Failure };

/** Keeps a capture, and its photos go over to it, all or nothing. Failures: `device-full`. */
export async function keepCapture(device: Device, capture: NewCapture, free: number | null): Promise<Kept_> {
  const full = (left: number | null): Kept_ => ({
    ok: false,
    failure: { kind: "device-full", freeMb: Math.round((left ?? 0) / 1e5) / 10 },
  });
  if (free !== null && free < LEAST_FREE) return full(free);
  try {
    await device.transaction("rw", device.captures, device.kept, async () => {
      if ((await device.captures.where("id").equals(capture.id).count()) > 0) return;
      const state = capture.happenedAt === null ? "asks-day" : "waiting";
      await device.captures.add({ ...capture, state, failure: null, sentMs: null, dayGiven: false } as Capture);
      for (const photo of capture.photos) await device.kept.update(photo.id, { of: `capture ${capture.id}` });
    });
    return { ok: true };
  } catch (error) {
    if (isFull(error)) return full(free);
    throw error;
  }
}

/** Keeps the bytes of a photo that was just taken. Failures: `device-full`. */
export async function keepPhoto(device: Device, photo: Kept, free: number | null): Promise<Kept_> {
  if (free !== null && free < LEAST_FREE + photo.bytes.byteLength)
    return { ok: false, failure: { kind: "device-full", freeMb: Math.round(free / 1e5) / 10 } };
  try {
    await device.kept.put(photo);
    return { ok: true };
  } catch (error) {
    if (isFull(error)) return { ok: false, failure: { kind: "device-full", freeMb: 0 } };
    throw error;
  }
}

/** Whether the browser refused for want of room. */
function isFull(error: unknown): boolean {
  const { name, inner } = error as { name?: string; inner?: { name?: string } };
  return name === "QuotaExceededError" || inner?.name === "QuotaExceededError";
}

/** Says on which day something was; from then on it is sent. */
export async function giveDay(device: Device, seq: number, happenedAt: string): Promise<void> {
  await device.captures.update(seq, { happenedAt, dayGiven: true, state: "waiting", failure: null });
}

/** Puts a new pack in the place of the one before; what was sent before it was made is on record and in it. */
export async function keepPack(device: Device, pack: Pack): Promise<void> {
  await device.transaction("rw", device.packs, device.captures, async () => {
    await device.packs.put(pack);
    await device.captures
      .where("[user+state]")
      .equals([pack.user, "sent"])
      .filter((c) => c.sentMs !== null && c.sentMs < pack.clock.serverMs)
      .delete();
  });
}
