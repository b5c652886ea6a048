"use client";
import { useState } from "react";

/** The most a list chosen as a file holds, kB. */
const MOST_KB = 500;

/** Fills a list from a text file of the person's own; a larger one is refused by name, with its size. */
export function FromFile({
  take,
  className = "link inline-flex min-h-11 cursor-pointer items-center",
  children = "from a file",
}: {
  take: (text: string) => void;
  className?: string;
  children?: string;
}) {
  const [why, setWhy] = useState("");
  return (
    <>
      <label className={className}>
        {children}
        <input
          type="file"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          className="sr-only"
          onChange={async (e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (!file) return;
            const over = file.size > MOST_KB * 1000;
            setWhy(
              over
                ? `“${file.name}” is ${Math.ceil(file.size / 1000)} kB; up to ${MOST_KB} kB is taken. Split the list.`
                : "",
            );
            if (!over) take(await file.text());
          }}
        />
      </label>
      {why && (
        <p role="alert" className="m-0 text-out">
          {why}
        </p>
      )}
    </>
  );
}
