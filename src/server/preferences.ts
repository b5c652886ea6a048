import "server-only";
import { cookies } from "next/headers";
import type { UnitSystem } from "@/core/units";

export type Preferences = { readonly units: UnitSystem; readonly theme: "light" | "dark"; readonly shortcuts: boolean };

/** What may be chosen, and the values it may take. */
const choices: Record<string, readonly string[]> = {
  units: ["metric", "us"],
  theme: ["light", "dark"],
  shortcuts: ["on", "off"],
};
const YEAR_S = 365 * 24 * 3600;

/** Keeps one choice for a year; anything that is no choice is left alone. */
export async function keepPreference(name: string, value: string): Promise<void> {
  if (choices[name]?.includes(value))
    (await cookies()).set(name, value, { path: "/", maxAge: YEAR_S, sameSite: "lax", httpOnly: true });
}

/** A person's own choices, kept in cookies so that the first paint already has them. */
export async function preferences(): Promise<Preferences> {
  const jar = await cookies();
  return {
    units: jar.get("units")?.value === "us" ? "us" : "metric",
    theme: jar.get("theme")?.value === "dark" ? "dark" : "light",
    shortcuts: jar.get("shortcuts")?.value !== "off",
  };
}
