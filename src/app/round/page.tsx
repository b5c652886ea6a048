import type { Metadata } from "next";
import { preferences } from "@/server/preferences";
import { RoundApp } from "@/ui/in-hand/round-app";

export const metadata: Metadata = { title: "Round" };
export const dynamic = "force-dynamic";

/** The round, for a device that may have no network: the page itself holds no record; what it shows lies on the device or is asked for as whoever is signed in. */
export default async function RoundPage() {
  const { theme } = await preferences();
  return <RoundApp theme={theme} />;
}
