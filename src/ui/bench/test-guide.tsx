"use client";
import { useEffect, useState } from "react";
import { type GuidedTest, testGuide } from "@/core/bench";
import { Fold } from "../fields/fold";
import { minutesSeconds } from "../format";
import { TestDrawing } from "./test-drawing";

/** A test's steps with a picture, its times counted down, and its cautions; folded away once known. */
export function TestGuide({
  test,
  lattice,
}: {
  test: GuidedTest;
  lattice?: { readonly spacingMm: number; readonly cuts: number };
}) {
  const guide = testGuide(test, lattice);
  return (
    <Fold className="mt-1" summaryClassName="min-h-11" summary={<>How it is done, after {guide.after}</>}>
      <div className="flex flex-wrap gap-5">
        <TestDrawing test={test} cuts={lattice?.cuts ?? 6} />
        <ol className="m-0 grid min-w-[260px] max-w-[560px] flex-1 gap-1 pl-5">
          {guide.steps.map((s) => (
            <li key={s.say}>
              {s.say} {s.seconds !== undefined && <Countdown seconds={s.seconds} />}
            </li>
          ))}
        </ol>
      </div>
      {guide.cautions.map((c) => (
        <p key={c} className="caution m-0 mt-2">
          {c}
        </p>
      ))}
    </Fold>
  );
}

/** A time that a step takes, started by hand; it says when it is over. */
function Countdown({ seconds }: { seconds: number }) {
  const [endMs, setEnd] = useState<number | null>(null);
  const [nowMs, setNow] = useState(0);
  useEffect(() => {
    if (endMs === null) return;
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, [endMs]);
  const left = endMs === null ? null : Math.max(0, Math.ceil((endMs - nowMs) / 1000));
  return (
    <span className="ml-1 inline-flex items-center gap-2">
      <button
        type="button"
        className="btn"
        onClick={() => {
          setNow(Date.now());
          setEnd(Date.now() + seconds * 1000);
        }}
      >
        {left === null ? `Start ${minutesSeconds(seconds)}` : left === 0 ? "Again" : minutesSeconds(left)}
      </button>
      <output aria-live="polite" className="font-bold">
        {left === 0 ? "Time is up" : ""}
      </output>
    </span>
  );
}
