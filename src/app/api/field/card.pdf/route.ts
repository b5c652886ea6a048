import { database } from "@/server/database";
import { scaleCardPdf } from "@/server/labels/scale-card-pdf";
import { now } from "@/server/now";
import { siteAt } from "@/server/setup/setup-data";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** The scale card to print, which photos are measured by. */
export async function GET(): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: who.refusal.kind === "signed-out" ? 401 : 403 });
  const site = await siteAt(database(), now());
  return new Response(new Uint8Array(await scaleCardPdf(site.name)), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": 'inline; filename="scale-card.pdf"',
      "cache-control": "no-store",
    },
  });
}
