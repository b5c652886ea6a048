import { refuse } from "../outcome";
import type { Makes } from "./made";

export const makes: Makes<"complaint-answer"> = {
  "complaint-answer": async ({ db }, entry) => {
    const complaint = await db
      .selectFrom("record")
      .select(["id", "job_id", "rack_id"])
      .where("id", "=", entry.complaint)
      .where("kind", "=", "complaint")
      .executeTakeFirst();
    if (!complaint) return refuse({ kind: "unknown-complaint" });
    return {
      ok: true,
      where: {
        ...(complaint.job_id ? { jobId: complaint.job_id } : {}),
        ...(complaint.rack_id ? { rackId: complaint.rack_id } : {}),
      },
      grade: "by-procedure",
      details: {
        complaint_answer: [
          { complaint_id: complaint.id, answer: entry.answer, sent_to: entry.sentTo, sent_by: entry.sentBy },
        ],
      },
    };
  },
};
