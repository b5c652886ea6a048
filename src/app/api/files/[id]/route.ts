import { sql } from "kysely";
import { forPerson } from "@/db/queries/for-person";
import { database } from "@/server/database";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** A stored file, to those who may see the record it belongs to. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { id } = await params;
  if (!/^[0-9a-f-]{36}$/.test(id)) return Response.json({ kind: "unknown-file" }, { status: 404 });
  const { rows } = await sql<{ bytes: Buffer; media_type: string; name: string }>`
    select f.bytes, f.media_type, f.name from file f join record r on r.file_id = f.id left join structure s on s.id = r.structure_id left join job j on j.id = r.job_id
    where f.id = ${id} and ${forPerson(who.person, "s.customer_id", "j.customer_id")} limit 1`.execute(database());
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
