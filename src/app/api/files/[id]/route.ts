import { sql } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import { database } from "@/server/database";
import { personWith } from "@/server/sign-in/person";
import { ofTheShop } from "@/server/sign-in/roles";

export const dynamic = "force-dynamic";

/** A stored file, to those who may see the record it belongs to. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { id } = await params;
  if (!/^[0-9a-f-]{36}$/.test(id)) return Response.json({ kind: "unknown-file" }, { status: 404 });
  // Of a record they may see; a powder's own photos and a customer's mark are the shop's.
  const { rows } = await sql<{ bytes: Buffer; media_type: string; name: string }>`
    select f.bytes, f.media_type, f.name from file f join record r on r.file_id = f.id left join structure s on s.id = r.structure_id left join job j on j.id = r.job_id
    where f.id = ${id} and ${forPerson(who.person, "s.customer_id", "j.customer_id")}
    union all
    select f.bytes, f.media_type, f.name from file f
    where f.id = ${id} and ${ofTheShop(who.person)} and exists (
      select 1 from setup_version v join setup_entity e on e.id = v.entity_id
      where e.kind = 'powder' and f.id::text in (v.data->'photos'->>'raw', v.data->'photos'->>'cured')
        or e.kind = 'customer' and f.id::text = v.data->'paper'->>'logo')
    limit 1`.execute(database());
  const file = rows[0];
  if (!file) return Response.json({ kind: "unknown-file" }, { status: 404 });
  const inline = file.media_type === "image/jpeg";
  return new Response(new Uint8Array(file.bytes), {
    headers: {
      "content-type": file.media_type === "text/plain" ? "text/plain; charset=utf-8" : file.media_type,
      "content-disposition": `${inline ? "inline" : "attachment"}; filename="${file.name}"`,
      "cache-control": "private, max-age=3600",
      "content-security-policy": "default-src 'none'; sandbox",
    },
  });
}
