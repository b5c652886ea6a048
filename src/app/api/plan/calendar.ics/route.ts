import ical from "ical-generator";
import { valueOrThrow } from "@/core/result";
import { momentAfter } from "@/core/shifts";
import { openActions } from "@/server/causes/corrective-actions";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { loadCalendar } from "@/server/plan/calendar";
import { personWith } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";

export const dynamic = "force-dynamic";

/** The calendar as iCalendar: each stage of each job as an event, due dates of jobs and of corrective actions as whole days. */
export async function GET(): Promise<Response> {
  const who = await personWith("look");
  if (!who.ok) return Response.json(who.refusal, { status: 401 });
  const calendar = await loadCalendar(database(), who.person, now());
  const file = ical({
    name: "Sorrel: jobs on the stages",
    prodId: { company: "Sorrel", product: "plan", language: "EN" },
  });
  const jobs = new Map(calendar.jobs.map((j) => [j.number, j]));
  const moment = (workHour: number, edge: "begins" | "ends") =>
    valueOrThrow(momentAfter(calendar.from, workHour, calendar.week, edge));
  for (const planned of calendar.plan.ok ? calendar.plan.value.jobs : []) {
    const job = jobs.get(planned.job);
    for (const stage of planned.stages)
      file.createEvent({
        id: `${planned.job}-${stage.stage}@sorrel`,
        start: moment(stage.fromHour, "begins"),
        end: moment(stage.toHour, "ends"),
        summary: `${planned.job} ${stage.stage}: ${job?.part ?? ""}`,
        description: `${job?.customer ?? ""}, ${job?.pieces ?? 0} pieces, ${job?.powder ?? ""}`,
      });
  }
  for (const job of calendar.jobs)
    if (job.dueOn)
      file.createEvent({
        id: `${job.number}-due@sorrel`,
        start: new Date(`${job.dueOn}T00:00:00Z`),
        allDay: true,
        summary: `${job.number} due: ${job.part}`,
      });
  // What is to keep a confirmed cause away, on the day it is due: an inspector's and a lead's to look after.
  const actions = may(who.person.role, "inspect") ? await openActions(database(), who.person) : [];
  for (const action of actions)
    if (action.dueOn)
      file.createEvent({
        id: `case-${action.caseNumber}-action@sorrel`,
        start: new Date(`${action.dueOn}T00:00:00Z`),
        allDay: true,
        summary: `Case ${action.caseNumber}, corrective action: ${action.action}`,
        description: action.who,
      });
  return new Response(file.toString(), {
    headers: {
      "content-type": "text/calendar; charset=utf-8",
      "content-disposition": 'attachment; filename="sorrel-plan.ics"',
      "cache-control": "no-store",
    },
  });
}
