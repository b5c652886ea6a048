"use client";

export default function GlobalError({ reset }: { reset: () => void }) {
  return (
    <html lang="en">
      <body
        style={{ font: "16px system-ui, sans-serif", background: "#efe8dc", color: "#221b15", padding: "12vh 8vw" }}
      >
        <h1>Sorrel cannot reach its database</h1>
        <p>
          Records are safe where they are stored. Whoever looks after this machine: see that PostgreSQL runs (npm start
          starts it), then try again.
        </p>
        <button type="button" onClick={reset} style={{ minHeight: 44, padding: "0 18px", font: "inherit" }}>
          Try again
        </button>
      </body>
    </html>
  );
}
