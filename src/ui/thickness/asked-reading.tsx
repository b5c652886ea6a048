"use client";
import type { StrangeReading } from "@/core/thickness";
import type { UnitSystem } from "@/core/units";
import { withUnit } from "../format";
import { strangeWords } from "../words/strange-reading";
import type { Answer } from "./use-film-draft";

/** A reading unlike its neighbours, asked about before it is taken. */
export function AskedReading({
  typed,
  strange,
  waiting,
  units,
  answer,
}: {
  typed: string;
  strange: StrangeReading;
  waiting: number;
  units: UnitSystem;
  answer: (choice: Answer) => void;
}) {
  return (
    <div role="alert" className="mt-3 border-watch border-l-4 pl-3">
      <p className="m-0">
        <b>Asked before it is taken:</b> {strangeWords(typed, strange, units)}
        {waiting > 0 && <span className="soft"> {waiting} more wait.</span>}
      </p>
      <p className="m-0 mt-2 flex flex-wrap gap-2">
        {strange.kind === "unit-jump" && (
          <button type="button" className="btn pri" onClick={() => answer("as-meant")}>
            Take it as {withUnit(strange.asUm, "thickness", units)}
          </button>
        )}
        <button
          type="button"
          className={`btn ${strange.kind === "unit-jump" ? "" : "pri"}`}
          onClick={() => answer("drop")}
        >
          Leave it out
        </button>
        <button type="button" className="btn" onClick={() => answer("as-read")}>
          It stands as read
        </button>
      </p>
    </div>
  );
}
