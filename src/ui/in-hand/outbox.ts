import { type ClockSeen, clockMoved } from "@/core/field";
import type { Capture, Device, Failure } from "./device";

/** What came of speaking to the server: not reached, or an answer with its time. */
export type Spoken<T> = { readonly reached: false } | ({ readonly reached: true; readonly serverMs: number } & T);
export type Outcome = { readonly ok: true } | { readonly ok: false; readonly failure: Failure };
export type Transport = {
  readonly who: () => Promise<Spoken<{ readonly user: string | null; readonly failure?: Failure }>>;
  readonly photo: (form: FormData) => Promise<Spoken<{ readonly outcome: Outcome }>>;
  readonly entry: (body: object) => Promise<Spoken<{ readonly outcome: Outcome }>>;
};
/** Why sending ended: all is sent; no network, or the server could not just now; nobody or somebody else is signed in. */
export type Ended =
  | { readonly why: "sent" | "not-reached" }
  | { readonly why: "not-signed-in"; readonly failure: Failure };

/** Refusals after which the same thing may well be taken later. */
const later: ReadonlySet<string> = new Set(["not-saved"]);
const notSignedIn: ReadonlySet<string> = new Set(["signed-out", "role-refused", "somebody-elses"]);

/**
 * Sends what a person has waiting, in the order it was captured, each photo before the entry that names it. It can be ended
 * at any moment, and begun again: every step is marked once the server has answered, and what was sent and not marked is
 * sent again under the same id, which the server stores once. What is refused is kept with why, and the others go on.
 * O(waiting).
 */
export async function sendWaiting(
  device: Device,
  transport: Transport,
  user: string,
  deviceMs: () => number,
): Promise<Ended> {
  // Where nothing waits, nobody is asked.
  if ((await device.captures.where("[user+state]").equals([user, "waiting"]).count()) === 0) return { why: "sent" };
  const who = await transport.who();
  if (!who.reached) return { why: "not-reached" };
  if (who.user === null) return { why: "not-signed-in", failure: who.failure ?? { kind: "signed-out" } };
  if (who.user !== user) return { why: "not-signed-in", failure: { kind: "somebody-elses", by: user } };
  const seen: ClockSeen = { serverMs: who.serverMs, deviceMs: deviceMs() };
  for (;;) {
    // One at a time and anew: what is captured meanwhile goes after.
    const [next] = await device.captures.where("[user+state]").equals([user, "waiting"]).sortBy("seq");
    if (!next) return { why: "sent" };
    if (!next.dayGiven && clockMoved(next.clock, seen)) {
      await device.captures.update(next.seq, {
        state: "asks-day",
        happenedAt: null,
        failure: { kind: "clock-moved" },
      });
      continue;
    }
    const ended = await sendOne(device, transport, next);
    if (ended) return ended;
  }
}

/** One capture; null when it is sent or refused and the next may go. */
async function sendOne(device: Device, transport: Transport, capture: Capture): Promise<Ended | null> {
  const refused = async (failure: Failure): Promise<Ended | null> => {
    if (later.has(failure.kind)) return { why: "not-reached" };
    if (notSignedIn.has(failure.kind)) return { why: "not-signed-in", failure };
    await device.captures.update(capture.seq, { state: "refused", failure });
    return null;
  };
  const { photos, entry, happenedAt } = capture;
  if (happenedAt === null) return refused({ kind: "clock-moved" });
  let sentMs = 0;
  for (const [i, photo] of photos.entries()) {
    if (photo.sent) continue;
    const bytes = await device.kept.get(photo.id);
    if (!bytes) return refused({ kind: "photo-lost", caption: photo.caption });
    const form = new FormData();
    for (const [name, value] of Object.entries({
      id: photo.id,
      by: capture.user,
      structure: capture.structure,
      zone: capture.zone,
      caption: photo.caption,
      takenAt: happenedAt,
    }))
      form.set(name, value);
    form.set("photo", new File([bytes.bytes], `${photo.id}.jpg`, { type: bytes.type }));
    const spoken = await transport.photo(form);
    if (!spoken.reached) return { why: "not-reached" };
    if (!spoken.outcome.ok) return refused(spoken.outcome.failure);
    sentMs = spoken.serverMs;
    await device.captures.update(capture.seq, {
      photos: ((await device.captures.get(capture.seq))?.photos ?? photos).map((p, at) =>
        at === i ? { ...p, sent: true } : p,
      ),
    });
  }
  if (entry) {
    const spoken = await transport.entry({
      by: capture.user,
      entry: { ...entry, id: capture.id, idempotencyKey: `field:${capture.id}`, happenedAt },
    });
    if (!spoken.reached) return { why: "not-reached" };
    if (!spoken.outcome.ok) return refused(spoken.outcome.failure);
    sentMs = spoken.serverMs;
  }
  await device.transaction("rw", device.captures, device.kept, async () => {
    await device.captures.update(capture.seq, { state: "sent", sentMs, failure: null });
    await device.kept.bulkDelete(photos.map((p) => p.id));
  });
  return null;
}

/** Speaks to the server this page came from; a refusal of the network, or no answer within `waitMs`, is not reached. */
export function transportTo(fetchIt: typeof fetch, waitMs: number): Transport {
  const ask = async (path: string, init: RequestInit): Promise<Spoken<{ readonly body: Record<string, unknown> }>> => {
    try {
      const answer = await fetchIt(path, { ...init, signal: AbortSignal.timeout(waitMs), cache: "no-store" });
      const body = (await answer.json()) as Record<string, unknown>;
      return typeof body.serverMs === "number" ? { reached: true, serverMs: body.serverMs, body } : { reached: false };
    } catch {
      // No network, one that answers for another (its page is not ours), or an answer that was cut.
      return { reached: false };
    }
  };
  const outcome = (spoken: Awaited<ReturnType<typeof ask>>): Spoken<{ readonly outcome: Outcome }> =>
    spoken.reached
      ? {
          reached: true,
          serverMs: spoken.serverMs,
          outcome:
            spoken.body.ok === true
              ? { ok: true }
              : { ok: false, failure: (spoken.body.failure as Failure | undefined) ?? { kind: "not-saved" } },
        }
      : spoken;
  return {
    who: async () => {
      const spoken = await ask("/api/field/who", {});
      return spoken.reached
        ? {
            reached: true,
            serverMs: spoken.serverMs,
            user: typeof spoken.body.user === "string" ? spoken.body.user : null,
            ...(spoken.body.failure ? { failure: spoken.body.failure as Failure } : {}),
          }
        : spoken;
    },
    photo: async (form) => outcome(await ask("/api/field/photos", { method: "POST", body: form })),
    entry: async (body) =>
      outcome(
        await ask("/api/field/captures", {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: JSON.stringify(body),
        }),
      ),
  };
}
