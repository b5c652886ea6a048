import { database } from "@/server/database";
import { exportJob } from "@/server/jobs/load-job";
import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";

export const dynamic = "force-dynamic";

export async function GET(_: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const { number } = await params;
  const job = await exportJob(database(), who.person, number, now());
  if (!job) return Response.json({ kind: "unknown-job", number }, { status: 404 });
  return Response.json(job, {
    headers: {
      "content-disposition": `attachment; filename="job-${job.job.number}.json"`,
      "cache-control": "no-store",
    },
  });
}
