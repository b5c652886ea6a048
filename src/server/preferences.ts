import "server-only";
import { cookies } from "next/headers";
import type { UnitSystem } from "@/core/units";

export type Preferences = { readonly units: UnitSystem; readonly theme: "light" | "dark"; readonly shortcuts: boolean };

/** A person's own choices, kept in cookies so that the first paint already has them. */
export async function preferences(): Promise<Preferences> {
  const jar = await cookies();
  return {
    units: jar.get("units")?.value === "us" ? "us" : "metric",
    theme: jar.get("theme")?.value === "dark" ? "dark" : "light",
    shortcuts: jar.get("shortcuts")?.value !== "off",
  };
}
