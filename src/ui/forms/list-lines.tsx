"use client";
import type { Result } from "@/core/result";
import { FromFile } from "../fields/from-file";
import { countOf } from "../format";
import { failureText } from "../words/failures";

/** Items of a list shown as they were read; all are taken. */
const SHOWN = 3;

/** Under a list typed or pasted: it may come from a file, and stands as it was read, or why it was not. */
export function ListLines<T>({
  read,
  take,
  what,
  one,
}: {
  read: Result<readonly T[]> | null;
  take: (text: string) => void;
  what: string;
  one: (item: T) => string;
}) {
  return (
    <>
      <FromFile take={take} />
      {read && (
        <p className={`small m-0 ${read.ok ? "soft" : "text-out"}`}>
          {read.ok
            ? `${countOf(read.value.length, what)}: ${read.value.slice(0, SHOWN).map(one).join("; ")}${read.value.length > SHOWN ? " …" : ""}`
            : failureText(read.error)}
        </p>
      )}
    </>
  );
}
