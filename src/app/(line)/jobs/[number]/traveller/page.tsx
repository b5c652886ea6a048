import { notFound, redirect } from "next/navigation";
import { database } from "@/server/database";
import { travellerOf } from "@/server/rack/racks-of-job";
import { personOnPage } from "@/server/sign-in/person";

/** The address on a printed route card: opens the traveller of the job's rack. */
export default async function JobTravellerPage({ params }: { params: Promise<{ number: string }> }) {
  const person = await personOnPage();
  const to = await travellerOf(database(), person, (await params).number);
  if (!to) notFound();
  redirect(to);
}
