import { type AgainStep, judgeAgain } from "@/server/cure/judge-again";
import { database } from "@/server/database";
import { errorText, log } from "@/server/log";
import { now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { personWith } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";

export const dynamic = "force-dynamic";

/** Every bake of a powder judged again by its newest sheet: a stream of lines, how far it is and which verdicts changed. */
export async function GET(request: Request, { params }: { params: Promise<{ code: string }> }): Promise<Response> {
  const who = await personWith("inspect");
  if (!who.ok) return Response.json(who.refusal, { status: who.refusal.kind === "signed-out" ? 401 : 403 });
  const { code } = await params;
  const at = now();
  const powder = [...(await setupAt(database(), "powder", at)).values()].find(
    (p) => p.code.toLowerCase() === code.toLowerCase(),
  );
  // It goes over all customers' work.
  if (!powder || !ofTheShop(who.person))
    return Response.json({ kind: "unknown-set-up", what: "powder", name: code.slice(0, 40) }, { status: 404 });
  const encoder = new TextEncoder();
  const answer = new ReadableStream({
    async start(controller) {
      const say = (step: AgainStep | { readonly kind: "failed" }) =>
        controller.enqueue(encoder.encode(`${JSON.stringify(step)}\n`));
      try {
        for await (const step of judgeAgain(database(), powder.id, at, request.signal)) say(step);
      } catch (error) {
        if (!request.signal.aborted) {
          log("error", "bakes not judged again", { error: errorText(error) });
          say({ kind: "failed" });
        }
      }
      if (!request.signal.aborted) controller.close();
    },
  });
  return new Response(answer, {
    headers: { "content-type": "application/x-ndjson; charset=utf-8", "cache-control": "no-store" },
  });
}
