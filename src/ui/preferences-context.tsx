"use client";
import { createContext, type ReactNode, useContext } from "react";
import type { UnitSystem } from "@/core/units";

export type ViewPreferences = {
  units: UnitSystem;
  theme: "light" | "dark";
  shortcuts: boolean;
  timeZone: string;
  /** Who is signed in: what is kept in the browser is theirs. */
  who: string;
};
const Context = createContext<ViewPreferences>({
  units: "metric",
  theme: "light",
  shortcuts: true,
  timeZone: "UTC",
  who: "",
});

export function PreferencesProvider({ value, children }: { value: ViewPreferences; children: ReactNode }) {
  return <Context value={value}>{children}</Context>;
}
export const usePreferences = (): ViewPreferences => useContext(Context);
