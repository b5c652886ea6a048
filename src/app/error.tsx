"use client";
import { useEffect, useState } from "react";

/** Shown when the frame itself could not be made: says whether it is the database. */
export default function PageError({ reset }: { error: Error; reset: () => void }) {
  const [database, setDatabase] = useState<"asking" | "answers" | "down">("asking");
  useEffect(() => {
    fetch("/api/health").then(
      (r) => setDatabase(r.ok ? "answers" : "down"),
      () => setDatabase("down"),
    );
  }, []);
  return (
    <main className="mx-auto max-w-[600px] px-6 py-20">
      <h1>{database === "down" ? "Sorrel cannot reach its database" : "This page could not be shown"}</h1>
      <p className="mt-3">
        {database === "down"
          ? "Records are safe where they are stored. Whoever looks after this machine: see that PostgreSQL runs (npm start starts it), then try again."
          : "Something went wrong on the server; nothing was changed. Try again, and tell whoever looks after this machine if it stays."}
      </p>
      <p className="mt-6">
        <button type="button" className="btn pri" onClick={reset}>
          Try again
        </button>
      </p>
    </main>
  );
}
