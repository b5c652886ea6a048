import { redirect } from "next/navigation";
import { personOnPage } from "@/server/sign-in/person";

/** The round of a structure is walked on a page that also works without a network. */
export default async function RoundOfStructure({ params }: { params: Promise<{ code: string }> }) {
  await personOnPage("inspect");
  redirect(`/round#${encodeURIComponent((await params).code.toUpperCase())}`);
}
