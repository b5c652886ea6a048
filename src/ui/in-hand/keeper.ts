import { v7 as uuidv7 } from "uuid";
import { type ClockSeen, happenedBy } from "@/core/field";
import { type CapturedEntry, type Device, type Failure, keepCapture, keepPhoto, roomLeft } from "./device";
import type { Transport } from "./outbox";
import { smallPhoto } from "./small-photo";

export type Done = { readonly ok: true } | { readonly ok: false; readonly failure: Failure };
export type FormPhoto = { readonly id: string; readonly caption: string };
/** What a zone's form is captured with: where its photos lie until it is recorded, and what recording does. */
export type Keeper = {
  /** Keeps a photo that was just taken, of no more size than the server keeps. Failures: `device-full`, `wrong-kind-of-file`. */
  readonly photo: (form: string, id: string, file: Blob) => Promise<Done>;
  readonly picture: (id: string) => Promise<Blob | null>;
  readonly drop: (id: string) => Promise<void>;
  /** Failures: `device-full`, `storage-refused`, and where nothing is kept those of the server. */
  readonly record: (capture: {
    readonly zone: string;
    readonly entry: CapturedEntry | null;
    readonly photos: readonly FormPhoto[];
  }) => Promise<Done>;
};

type Of = { readonly user: string; readonly structure: string; readonly round: string; readonly clock: ClockSeen };

/** On a device that keeps: a capture waits there and is sent when it can be. */
export function deviceKeeper(device: Device, of: Of, kept: () => void): Keeper {
  return {
    photo: async (form, id, file) => {
      const small = await smallPhoto(file);
      if (!small) return { ok: false, failure: { kind: "wrong-kind-of-file", found: file.type || "unknown" } };
      const bytes = await small.arrayBuffer();
      return keepPhoto(device, { id, of: form, type: small.type, bytes }, await roomLeft());
    },
    picture: async (id) => {
      const there = await device.kept.get(id);
      return there ? new Blob([there.bytes], { type: there.type }) : null;
    },
    drop: (id) => device.kept.delete(id),
    record: async ({ zone, entry, photos }) => {
      const capturedMs = Date.now();
      const happened = happenedBy(capturedMs, of.clock);
      const done = await keepCapture(
        device,
        {
          id: uuidv7(),
          user: of.user,
          structure: of.structure,
          round: of.round,
          clock: of.clock,
          zone,
          entry,
          capturedMs,
          happenedAt: happened.ok ? new Date(happened.value).toISOString() : null,
          photos: photos.map((p) => ({ ...p, sent: false })),
        },
        await roomLeft(),
      );
      if (done.ok) kept();
      return done;
    },
  };
}

/** Where the browser keeps nothing: a capture goes to the server at once, or stays in its form. */
export function directKeeper(of: Of, transport: Transport): Keeper {
  const held = new Map<string, Blob>();
  const sent = new Set<string>();
  const pending = new Map<string, string>();
  return {
    photo: async (_, id, file) => {
      const small = await smallPhoto(file);
      if (!small) return { ok: false, failure: { kind: "wrong-kind-of-file", found: file.type || "unknown" } };
      held.set(id, small);
      return { ok: true };
    },
    picture: async (id) => held.get(id) ?? null,
    drop: async (id) => {
      held.delete(id);
    },
    record: async ({ zone, entry, photos }) => {
      const takenAt = new Date(Date.now() + of.clock.serverMs - of.clock.deviceMs).toISOString();
      for (const photo of photos) {
        const blob = held.get(photo.id);
        if (!blob || sent.has(photo.id)) continue;
        const form = new FormData();
        for (const [name, value] of Object.entries({
          id: photo.id,
          by: of.user,
          structure: of.structure,
          zone,
          caption: photo.caption,
          takenAt,
        }))
          form.set(name, value);
        form.set("photo", new File([blob], `${photo.id}.jpg`, { type: blob.type }));
        const spoken = await transport.photo(form);
        if (!spoken.reached) return { ok: false, failure: { kind: "storage-refused" } };
        if (!spoken.outcome.ok) return spoken.outcome;
        sent.add(photo.id);
      }
      if (!entry) return { ok: true };
      // Pressed again after an answer was lost, the same content is the same capture.
      const content = JSON.stringify(entry);
      const id = pending.get(content) ?? uuidv7();
      pending.set(content, id);
      const spoken = await transport.entry({
        by: of.user,
        entry: { ...entry, id, idempotencyKey: `field:${id}`, happenedAt: takenAt },
      });
      if (!spoken.reached) return { ok: false, failure: { kind: "storage-refused" } };
      return spoken.outcome;
    },
  };
}
