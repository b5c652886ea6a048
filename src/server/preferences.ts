import "server-only";
import { cookies } from "next/headers";
import { cache } from "react";
import type { DecimalMark, UnitSystem } from "@/core/units";
import { database } from "./database";
import { now } from "./now";
import { setupAt } from "./setup/setup-data";

export type Preferences = {
  readonly units: UnitSystem;
  readonly theme: "light" | "dark";
  readonly shortcuts: boolean;
  /** How the shop writes numbers; null where it has not said. */
  readonly decimalMark: DecimalMark | null;
};
/** How the shop writes, read once per request; metric before there is a shop. */
const shopWrites = cache(async () => {
  const [site] = (await setupAt(database(), "site", now())).values();
  return { units: site?.data.units ?? ("metric" as const), decimalMark: site?.data.decimalMark ?? null };
});

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

/** A person's own choices, kept in cookies so that the first paint already has them; the shop's where they chose nothing. */
export async function preferences(): Promise<Preferences> {
  const [jar, shop] = await Promise.all([cookies(), shopWrites()]);
  const units = jar.get("units")?.value;
  return {
    units: units === "us" || units === "metric" ? units : shop.units,
    decimalMark: shop.decimalMark,
    theme: jar.get("theme")?.value === "dark" ? "dark" : "light",
    shortcuts: jar.get("shortcuts")?.value !== "off",
  };
}
