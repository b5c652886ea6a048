import { importMany, type ManyOutcome } from "@/server/imports/import-many";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/**
 * Very many readings in one file, read as they come. The answer is a stream of lines: how far it is, and at the end what
 * came of it. Leaving the page stops it, and nothing is stored.
 */
export async function POST(request: Request): Promise<Response> {
  const who = await personWith("inspect");
  if (!who.ok) return Response.json(who.refusal, { status: who.refusal.kind === "signed-out" ? 401 : 403 });
  const from = request.headers.get("sec-fetch-site");
  if (from !== null && from !== "same-origin" && from !== "none")
    return Response.json({ kind: "other-site" }, { status: 403 });
  const address = process.env.APP_DATABASE_URL;
  const { body } = request;
  if (!address || !body) return Response.json({ kind: "empty-file" }, { status: 400 });
  const asked = new URL(request.url).searchParams;
  const unit = asked.get("unit");
  const rack = (asked.get("rack") ?? "").trim().slice(0, 20);
  const encoder = new TextEncoder();
  const stopped = new AbortController();
  request.signal.addEventListener("abort", () => stopped.abort());
  const answer = new ReadableStream({
    async start(controller) {
      const say = (line: object) => {
        try {
          controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
        } catch {
          // Whoever asked has gone: the signal stops the import.
          stopped.abort();
        }
      };
      const outcome: ManyOutcome = await importMany(address, who.person, body, {
        rack: rack || null,
        unit: unit === "um" || unit === "mil" ? unit : null,
        at: now(),
        sure: asked.get("sure") === "yes",
        signal: stopped.signal,
        progress: (readings, bytes) => say({ readings, bytes }),
      }).catch((error) => {
        if (!stopped.signal.aborted) log("error", "large import failed", { error: errorText(error) });
        return { ok: false as const, failure: { kind: stopped.signal.aborted ? "import-stopped" : "not-saved" } };
      });
      say({ outcome });
      try {
        controller.close();
      } catch {
        // Closed from the other side.
      }
    },
    cancel: () => stopped.abort(),
  });
  return new Response(answer, {
    headers: {
      "content-type": "application/x-ndjson; charset=utf-8",
      "cache-control": "no-store",
      "x-content-type-options": "nosniff",
      "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
    },
  });
}
