"use client";
import type { OpenItem, OpenKind } from "@/core/line";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { openRemedy, openSaid } from "../words/open";

/** What is open of a rack, each with what to do, and closed by whoever looked and says how it stands. */
export function OpenItems({ rack, open, mayLog }: { rack: string; open: readonly OpenItem[]; mayLog: boolean }) {
  const held = useEntryForm(`open items ${rack}`, { seen: {} as Partial<Record<OpenKind, string>> });
  const [seen, setSeen] = held.field("seen");
  const { send, message, busy } = useRecorder(held);
  if (open.length === 0) return null;
  return (
    <section className="ruled mt-5" aria-label="Open">
      <h2>To be looked at</h2>
      {open.map((item) => {
        const text = seen[item.what] ?? "";
        return (
          <form
            key={item.what}
            className="row grid-cols-[minmax(0,1fr)_minmax(0,320px)_auto] items-center gap-x-3 max-[820px]:grid-cols-1"
            onSubmit={async (e) => {
              e.preventDefault();
              if (await send({ kind: "item-closed", rack, what: item.what, seen: text }))
                setSeen((s) => ({ ...s, [item.what]: "" }));
            }}
          >
            {held.said}
            <span>
              <Verdict result={item.holds === "oven" ? "out" : "watch"}>{openSaid(item)}</Verdict>{" "}
              <span className="small soft">
                holds {item.holds === "oven" ? "the oven and the release" : "the release"}: {openRemedy[item.what]}
              </span>
            </span>
            {mayLog && (
              <>
                <input
                  className="input"
                  aria-label={`What you saw: ${openSaid(item)}`}
                  placeholder="looked at, and it is …"
                  required
                  minLength={3}
                  maxLength={400}
                  value={text}
                  onChange={(e) => setSeen((s) => ({ ...s, [item.what]: e.target.value }))}
                />
                <button type="submit" className="btn" disabled={busy}>
                  Close it
                </button>
              </>
            )}
          </form>
        );
      })}
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </section>
  );
}
