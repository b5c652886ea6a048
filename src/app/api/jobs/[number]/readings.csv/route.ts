import Papa from "papaparse";
import { database } from "@/server/database";
import { exportJob } from "@/server/jobs/load-job";
import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

/** Every film reading of a job, canonical unit in the heading. Cells that a spreadsheet would run as a formula are quoted as text. */
export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const job = await exportJob(database(), who.person, number, now());
  if (!job) return Response.json({ kind: "unknown-job", number }, { status: 404 });
  const rows = job.racks.flatMap((rack) =>
    rack.records
      .filter((r) => r.supersededBy === null)
      .flatMap((r) =>
        (r.details.thickness_reading ?? []).map((x) => ({
          rack: rack.number,
          happened_at: r.happenedAt.toISOString(),
          by: r.by,
          face: x.face,
          spot: x.spot,
          thickness_um: x.value_um,
          typed: x.typed,
          left_out: x.rejected_reason ?? "",
        })),
      ),
  );
  const csv = Papa.unparse(
    { fields: ["rack", "happened_at", "by", "face", "spot", "thickness_um", "typed", "left_out"], data: rows },
    { escapeFormulae: true, newline: "\r\n" },
  );
  return new Response(csv, {
    headers: {
      "content-type": "text/csv; charset=utf-8",
      "content-disposition": `attachment; filename="job-${job.job.number}-readings.csv"`,
      "cache-control": "no-store",
    },
  });
}
