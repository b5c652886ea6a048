import { database } from "@/server/database";
import { now } from "@/server/now";
import { printedPhotos } from "@/server/photos/printed";
import { loadPlanFile } from "@/server/plan/load-plan";
import { optionsPdf } from "@/server/plan/plan-pdf";
import { personWith } from "@/server/sign-in/person";
import { fullDate } from "@/ui/format";
import { lifeText, money, systemText } from "@/ui/words/plan";

export const dynamic = "force-dynamic";
/** Photos of the parts as they came in that are printed. */
const MOST_PHOTOS = 4;

/** The options of a job, to be signed. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const at = now();
  const file = await loadPlanFile(database(), who.person, number, at);
  if (!file) return Response.json({ kind: "unknown-job", number }, { status: 404 });
  const asItCame = await database()
    .selectFrom("record")
    .innerJoin("photo", "photo.record_id", "record.id")
    .select(["record.file_id", "record.happened_at", "photo.caption"])
    .where("record.job_id", "=", file.jobId)
    .where("record.rack_id", "is", null)
    .where("record.kind", "=", "photo")
    .where("record.file_id", "is not", null)
    .orderBy("record.happened_at")
    .execute();
  const pitted = file.condition.rust === "C" || file.condition.rust === "D";
  const pdf = await optionsPdf({
    site: file.site.name,
    customer: file.customer,
    job: file.number,
    part: `${file.partName}, ${file.plan.pieces ?? "?"} pieces`,
    system: file.plan.system
      ? `${systemText(file.plan.system)}, ${file.powder.code} ${file.powder.data.name}`
      : `${file.powder.code} ${file.powder.data.name}`,
    life: file.life
      ? `${lifeText(file.life)} ${file.life.limitedBy === "rust" ? "until rust" : "until colour goes"}, by metal, system and place`
      : "",
    day: fullDate(at, file.site.timeZone),
    options: file.plan.offered.map((o) => ({
      what: `${o.what}${o.quantity !== null ? `, ${o.quantity} ${o.unit ?? ""}` : ""}`,
      price: o.price !== null ? money(o.price, o.currency) : o.pricePercent !== null ? `+${o.pricePercent} %` : "",
      risk: o.risk,
      state: o.state === "open" ? "" : o.state,
      said: o.state === "open" ? "" : `${o.by}${o.how ? `, ${o.how}` : ""}, ${o.on}`,
    })),
    notices: [
      "A standard weathering grade is promised by its maker for about a year of colour and gloss; better grades cost more.",
      ...(pitted
        ? [
            "Rust has eaten into the metal: blasting cleans pits but does not fill them, and a smooth film shows them. A texture hides them.",
          ]
        : []),
      ...(file.plan.condition?.oldCoating === "unknown"
        ? ["The kind of the old coating is not known; what it gives off in the oven is not either."]
        : []),
      "No rubber, seals or grease may be left in the parts. Welding and grinding are to be done before they come.",
      ...(pitted && asItCame.length > 0 ? ["How the metal came in is shown on the photos below."] : []),
      "Years of life are what is usual, not a promise; they depend on where and how the piece is used and cared for.",
    ],
    photos: await printedPhotos(
      database(),
      asItCame.slice(0, MOST_PHOTOS).map((p) => ({
        fileId: p.file_id ?? "",
        caption: `${p.caption}; ${fullDate(p.happened_at, file.site.timeZone)}`,
      })),
    ),
    morePhotos: Math.max(0, asItCame.length - MOST_PHOTOS),
  });
  return new Response(new Uint8Array(pdf), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `inline; filename="options-${file.number}.pdf"`,
      "cache-control": "no-store",
    },
  });
}
