"use client";
import { useEffect } from "react";

export default function LineError({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  useEffect(() => console.error(error.digest ?? "view failed"), [error]);
  return (
    <section className="bench">
      <h1>This view could not be shown</h1>
      <p className="mt-3 max-w-[60ch]">
        Something went wrong on the server{error.digest ? ` (${error.digest})` : ""}. Nothing was changed. What you
        typed on the entry line is kept.
      </p>
      <p className="mt-5 flex gap-3">
        <button type="button" className="btn pri" onClick={reset}>
          Try again
        </button>
        <a className="btn" href="/">
          To the shift
        </a>
      </p>
    </section>
  );
}
