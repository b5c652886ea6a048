import ical from "ical-generator";
import { database } from "@/server/database";
import { structuresByDue } from "@/server/field/structure-facts";
import { now } from "@/server/now";
import { personWith } from "@/server/sign-in/person";
import { visitDueName } from "@/ui/words/field-zones";

export const dynamic = "force-dynamic";

/** When each structure is looked at next, as iCalendar; what is overdue stands on today. */
export async function GET(): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const at = now();
  const file = ical({
    name: "Sorrel: structures to be looked at",
    prodId: { company: "Sorrel", product: "field", language: "EN" },
  });
  for (const s of await structuresByDue(database(), who.person)) {
    const late = s.due.at < at;
    file.createEvent({
      id: `${s.code}-visit@sorrel`,
      start: late ? at : s.due.at,
      allDay: true,
      summary: `${late ? "Overdue: " : ""}look at ${s.name}, ${s.site}`,
      description: `${s.customer}; ${visitDueName[s.due.why]}`,
    });
  }
  return new Response(file.toString(), {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": 'attachment; filename="sorrel-visits.ics"',
      "cache-control": "no-store",
    },
  });
}
