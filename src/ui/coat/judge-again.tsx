"use client";
import { useEffect, useRef, useState } from "react";
import type { AgainStep, JudgedAgain } from "@/server/cure/judge-again";
import { dayMonth } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";

type Told = Omit<JudgedAgain, "at"> & { readonly at: string };
type Step =
  | Exclude<AgainStep, { kind: "changed" }>
  | { readonly kind: "changed"; readonly bake: Told }
  | { readonly kind: "failed" };
/** Shown one by one; more than these are counted. */
const MOST_SHOWN = 60;
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
      {changed.slice(0, MOST_SHOWN).map((b) => (
        <div
          key={`${b.rack}${b.load}${b.at}`}
          className="row grid-cols-[80px_70px_minmax(0,1fr)_150px_150px] items-center max-[700px]:grid-cols-[80px_70px_minmax(0,1fr)]"
        >
          <span className="fig soft">{dayMonth(new Date(b.at), timeZone)}</span>
          <Link className="link fig font-bold" href={`/racks/${b.rack}/cure`}>
            {b.rack}
          </Link>
          <span className="soft">load {b.load}</span>
          {[b.before, b.now].map((x, i) => (
            <span key={i === 0 ? "then" : "now"} className="max-[700px]:col-start-3">
              <Verdict result={x?.result ?? "unknown"}>
                {i === 0 ? "then" : "now"} {word[x?.result ?? "unknown"]} {x ? x.index.toFixed(0) : ""}
              </Verdict>
            </span>
          ))}
        </div>
      ))}
      {changed.length > MOST_SHOWN && <p className="soft m-0">and {changed.length - MOST_SHOWN} more</p>}
    </div>
  );
}
