"use client";
import { useEffect, useRef, useState } from "react";
import type { AgainStep, JudgedAgain } from "@/server/cure/judge-again";
import { dayMonth } from "../format";
import { List } from "../lists/list";
import { Verdict } from "../marks/verdict";

type Told = Omit<JudgedAgain, "at"> & { readonly at: string };
type Step =
  | Exclude<AgainStep, { kind: "changed" }>
  | { readonly kind: "changed"; readonly bake: Told }
  | { readonly kind: "failed" };
const columns = [
  { key: "day", head: "day", width: "80px" },
  { key: "rack", head: "rack", width: "70px", look: "fig font-bold" },
  { key: "load", head: "load", width: "minmax(0,1fr)", wide: true, look: "soft" },
  { key: "was", head: "then", width: "minmax(110px,150px)" },
  { key: "now", head: "now", width: "minmax(110px,150px)" },
];
const word = { in: "Cured", watch: "Watch", out: "Out", unknown: "Not known" } as const;

/** Every bake of a powder judged again by the sheet as it now stands, with how far it is; stopped at any moment. */
export function JudgeAgain({ code, timeZone }: { code: string; timeZone: string }) {
  const stopping = useRef<AbortController | null>(null);
  const [progress, setProgress] = useState<{ readonly done: number; readonly of: number } | null>(null);
  const [changed, setChanged] = useState<readonly Told[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => () => stopping.current?.abort(), []);
  const take = (step: Step) => {
    if (step.kind === "progress") setProgress(step);
    else if (step.kind === "changed") setChanged((all) => [...all, step.bake]);
    else if (step.kind === "failed") setSaid("It could not be finished just now. Try again in a moment.");
    else
      setSaid(
        `${step.judged} bakes judged by the sheet of their time and by the one that stands now: ${step.changed === 0 ? "no verdict is another" : `${step.changed} ${step.changed === 1 ? "verdict is" : "verdicts are"} another`}${step.withoutTrace > 0 ? `; ${step.withoutTrace} have no trace and stay by procedure` : ""}.`,
      );
  };
  const start = async () => {
    const stop = new AbortController();
    stopping.current = stop;
    setChanged([]);
    setSaid(null);
    setProgress({ done: 0, of: 1 });
    try {
      const response = await fetch(`/api/powders/${encodeURIComponent(code)}/bakes`, { signal: stop.signal });
      const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
      if (!response.ok || !reader) throw new Error("refused");
      let rest = "";
      for (;;) {
        const { value, done } = await reader.read();
        if (done) break;
        const lines = (rest + value).split("\n");
        rest = lines.pop() ?? "";
        for (const line of lines) take(JSON.parse(line) as Step);
      }
    } catch {
      setSaid(stop.signal.aborted ? "Stopped." : "It could not be finished just now. Try again in a moment.");
    }
    stopping.current = null;
    setProgress(null);
  };
  return (
    <div className="grid gap-2">
      <p className="m-0 flex flex-wrap items-center gap-3">
        {progress === null ? (
          <button key="start" type="button" className="btn" onClick={() => void start()}>
            Judge its bakes by this sheet
          </button>
        ) : (
          <button key="stop" type="button" className="btn" onClick={() => stopping.current?.abort()}>
            Stop
          </button>
        )}
        {progress && (
          <span role="status" className="flex items-center gap-3">
            <progress className="h-3 w-[200px]" value={progress.done} max={progress.of} aria-label="Bakes judged" />
            <span className="fig">
              {progress.done} of {progress.of}
            </span>
          </span>
        )}
        {said && <output>{said}</output>}
      </p>
      {changed.length > 0 && (
        <List
          name={`Bakes of ${code} judged otherwise`}
          empty=""
          columns={columns}
          rows={changed.map((b) => {
            const verdict = (x: Told["now"]) => `${word[x?.result ?? "unknown"]} ${x ? x.index.toFixed(0) : ""}`.trim();
            return {
              key: `${b.rack} ${b.load} ${b.at}`,
              href: `/racks/${b.rack}/cure`,
              cells: {
                day: <span className="fig soft">{dayMonth(new Date(b.at), timeZone)}</span>,
                was: <Verdict result={b.before?.result ?? "unknown"}>then {verdict(b.before)}</Verdict>,
                now: <Verdict result={b.now?.result ?? "unknown"}>now {verdict(b.now)}</Verdict>,
              },
              values: { day: b.at, rack: b.rack, load: `load ${b.load}`, was: verdict(b.before), now: verdict(b.now) },
            };
          })}
        />
      )}
    </div>
  );
}
