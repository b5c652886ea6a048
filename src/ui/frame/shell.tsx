"use client";
import { setNonce } from "get-nonce";
import { useRouter } from "next/navigation";
import {
  type ComponentType,
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useState,
} from "react";
import type { Understood } from "@/core/shorthand";
import { usePreferences } from "../preferences-context";
import { type EntryContext, EntryLine } from "./entry-line";
import type { KeysSheetProps } from "./keys-sheet";
import type { LineActions } from "./line-actions";

type Shell = {
  setContext: (context: EntryContext | null) => void;
  showKeys: () => void;
  signOut: () => void;
  actions: LineActions;
};
const Context = createContext<Shell | null>(null);
export function useShell(): Shell {
  const shell = useContext(Context);
  if (!shell) throw new Error("useShell outside the frame");
  return shell;
}
/** Lets a view answer what is typed on the entry line while it is open: bare readings, say. */
export function useEntryContext(context: EntryContext): void {
  const { setContext } = useShell();
  useEffect(() => {
    setContext(context);
    return () => setContext(null);
  }, [context, setContext]);
}
export type { EntryContext, Understood };

const sequences: Record<string, { href: string; what: string }> = {
  s: { href: "/", what: "Shift" },
  p: { href: "/plan", what: "Plan" },
  w: { href: "/pretreat", what: "Pretreat: baths" },
  c: { href: "/cure", what: "Cure" },
  t: { href: "/test", what: "Test" },
  r: { href: "/release", what: "Release" },
  f: { href: "/field", what: "Field" },
  d: { href: "/causes", what: "Causes (defects)" },
  i: { href: "/records/import", what: "Import" },
};

/** The frame's living parts: entry line, shortcuts, the keys sheet. */
export function ShellProvider({
  actions,
  nonce,
  children,
}: {
  actions: LineActions;
  nonce: string;
  children: ReactNode;
}) {
  const router = useRouter();
  const { shortcuts } = usePreferences();
  const [context, setContext] = useState<EntryContext | null>(null);
  const [keys, setKeys] = useState(false);
  // The policy in force is the document's: what a refresh brings is the nonce of another answer.
  useEffect(() => setNonce(document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce || nonce), [nonce]);
  useEffect(() => {
    // Only for the page shown without a network; where it is refused, everything else works as before.
    if (process.env.NODE_ENV === "production")
      navigator.serviceWorker?.register("/worker/sw.js", { scope: "/" }).catch(() => {});
  }, []);
  const [UnsentMark, setUnsentMark] = useState<ComponentType | null>(null);
  useEffect(() => {
    // Only on a device that a round was walked on.
    const look = async () => {
      const all = (await globalThis.indexedDB?.databases?.()) ?? [];
      if (!all.some((d) => d.name === "sorrel-field")) return;
      const loaded = await import("../in-hand/unsent-mark");
      setUnsentMark(() => loaded.UnsentMark);
    };
    look().catch(() => {});
  }, []);
  const showKeys = useCallback(() => setKeys(true), []);
  const [KeysSheet, setKeysSheet] = useState<ComponentType<KeysSheetProps> | null>(null);
  useEffect(() => {
    if (keys)
      void import("./keys-sheet").then(
        (loaded) => setKeysSheet(() => loaded.KeysSheet),
        () => setKeys(false),
      );
  }, [keys]);
  const signOut = useCallback(async () => {
    // What was taken along is let go of; what is not sent stays until its person is signed in here again.
    await import("../in-hand/open-device").then((m) => m.forgetPacks()).catch(() => {});
    void actions.signOut();
  }, [actions]);
  useEffect(() => {
    let waitingForPlace = false;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const number = target instanceof HTMLInputElement && target.inputMode === "decimal" && target.id !== "entry-line";
      // No number has a stroke in it: from a field for numbers too it leads to the entry line.
      if (number && event.key === "/") {
        event.preventDefault();
        document.getElementById("entry-line")?.focus();
        return;
      }
      // A station puts the hand on the entry line: while nothing is typed there the keys sheet is a key away still.
      if (
        event.key === "?" &&
        target instanceof HTMLInputElement &&
        target.id === "entry-line" &&
        target.value === ""
      ) {
        event.preventDefault();
        setKeys(true);
        return;
      }
      const ticked = target instanceof HTMLInputElement && /^(radio|checkbox)$/.test(target.type);
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) && !ticked) ||
        // A list of choices finds by what is typed.
        target.closest('[role="combobox"], [role="listbox"]') ||
        target.isContentEditable
      )
        return;
      const focusEntry = () => document.getElementById("entry-line")?.focus();
      // Digits, point and comma belong to the entry line: gauges type them.
      if (/^[\d.,]$/.test(event.key)) return focusEntry();
      if (event.key === "?") return setKeys(true);
      if (event.key === "/" || event.key === ">") {
        event.preventDefault();
        return focusEntry();
      }
      if (!shortcuts) return;
      if (waitingForPlace) {
        waitingForPlace = false;
        const place = sequences[event.key.toLowerCase()];
        if (place) router.push(place.href);
      } else if (event.key === "g") {
        waitingForPlace = true;
        setTimeout(() => {
          waitingForPlace = false;
        }, 1500);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [router, shortcuts]);
  const shell = useMemo(() => ({ setContext, showKeys, signOut, actions }), [showKeys, signOut, actions]);
  return (
    <Context value={shell}>
      {children}
      <EntryLine context={context} actions={actions} />
      {UnsentMark && <UnsentMark />}
      {KeysSheet && <KeysSheet open={keys} onOpenChange={setKeys} places={Object.entries(sequences)} />}
    </Context>
  );
}
