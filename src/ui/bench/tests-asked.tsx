"use client";
import { useEffect } from "react";
import type { VerdictResult } from "@/core/verdict";
import { Verdict } from "../marks/verdict";

export type AskedTest = {
  readonly name: string;
  readonly word: string;
  readonly result: VerdictResult;
  /** Id of the form that records it. */
  readonly form: string;
};

/** What is asked of this rack at the bench, each with how it stands; Alt with a digit goes to the form that records it. */
export function TestsAsked({ tests }: { tests: readonly AskedTest[] }) {
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      // A bare digit is a gauge that types: it belongs to the entry line.
      if (!e.altKey || e.ctrlKey || e.metaKey) return;
      const test = tests[Number(/^Digit([1-9])$/.exec(e.code)?.[1] ?? 0) - 1];
      const form = test && document.getElementById(test.form);
      if (!form) return;
      e.preventDefault();
      form.scrollIntoView({ block: "start" });
      form
        .querySelector<HTMLElement>("input:not([type=hidden]), [role=combobox], button")
        ?.focus({ preventScroll: true });
    };
    document.addEventListener("keydown", keys);
    return () => document.removeEventListener("keydown", keys);
  }, [tests]);
  return (
    <nav aria-label="Asked at the bench" className="mt-4 flex flex-wrap gap-2">
      {tests.map((t, i) => (
        <a key={t.name} href={`#${t.form}`} className="btn" aria-keyshortcuts={i < 9 ? `Alt+${i + 1}` : undefined}>
          {i < 9 && <kbd className="mr-1">Alt {i + 1}</kbd>}
          {t.name} <Verdict result={t.result}>{t.word}</Verdict>
        </a>
      ))}
    </nav>
  );
}
