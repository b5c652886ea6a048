import { type Device, roomLeft, SCANT } from "./device";
import type { Pack, SentPack } from "./pack";

/** What came of asking for what is taken along. */
export type Fetched =
  | { readonly kind: "fetched"; readonly pack: Pack }
  | { readonly kind: "signed-out" | "refused" | "not-reached" };

/** Asks for what is due and what is named. */
export async function fetchPack(asked: readonly string[]): Promise<Fetched> {
  try {
    const query = asked.map((code) => `of=${encodeURIComponent(code)}`).join("&");
    const answer = await fetch(`/api/field/pack${query ? `?${query}` : ""}`, {
      cache: "no-store",
      signal: AbortSignal.timeout(30_000),
    });
    if (answer.status === 401) return { kind: "signed-out" };
    if (answer.status === 403) return { kind: "refused" };
    if (!answer.ok) return { kind: "not-reached" };
    const { serverMs, ...pack } = (await answer.json()) as SentPack;
    return { kind: "fetched", pack: { ...pack, clock: { serverMs, deviceMs: Date.now() } } };
  } catch {
    return { kind: "not-reached" };
  }
}

/** Photos of earlier visits that are held beside today's; as far as there is room, and none is waited for. */
export async function fetchSeen(device: Device, pack: Pack): Promise<void> {
  const wanted = new Set(pack.structures.flatMap((s) => s.zones.flatMap((z) => (z.photo ? [z.photo.fileId] : []))));
  const there = await device.kept.where("of").equals("seen").primaryKeys();
  await device.kept.bulkDelete(there.filter((id) => !wanted.has(id)));
  for (const id of wanted) {
    if (there.includes(id)) continue;
    const free = await roomLeft();
    if (free !== null && free < SCANT) return;
    const answer = await fetch(`/api/files/${id}`);
    if (!answer.ok) continue;
    const blob = await answer.blob();
    await device.kept.put({ id, of: "seen", type: blob.type, bytes: await blob.arrayBuffer() });
  }
}
