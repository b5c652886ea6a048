"use client";
import { createContext, type ReactNode, useContext } from "react";
import type { DecimalMark, UnitSystem } from "@/core/units";
import { readInZone } from "./format";
import { writeWithMark } from "./parse-typed";

export type ViewPreferences = {
  units: UnitSystem;
  theme: "light" | "dark";
  shortcuts: boolean;
  timeZone: string;
  /** How the shop writes numbers; null where it has not said. */
  decimalMark: DecimalMark | null;
  /** Who is signed in: what is kept in the browser is theirs. */
  who: string;
  /** They are the administrator: people are theirs to keep. */
  administers: boolean;
  /** They are a lead or more: what is set up is theirs to change. */
  setsUp: boolean;
};
const Context = createContext<ViewPreferences>({
  units: "metric",
  theme: "light",
  shortcuts: true,
  timeZone: "UTC",
  decimalMark: null,
  who: "",
  administers: false,
  setsUp: false,
});

export function PreferencesProvider({ value, children }: { value: ViewPreferences; children: ReactNode }) {
  readInZone(value.timeZone);
  writeWithMark(value.decimalMark);
  return <Context value={value}>{children}</Context>;
}
export const usePreferences = (): ViewPreferences => useContext(Context);
