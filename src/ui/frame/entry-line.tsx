"use client";
import { useRouter } from "next/navigation";
import { type ComponentType, useEffect, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { type OvenWord, parseShorthand, type Understood } from "@/core/shorthand";
import type { VerdictResult } from "@/core/verdict";
import { withUnit } from "../format";
import { usePreferences } from "../preferences-context";
import { bathValue, parameterName } from "../words/baths";
import { failureText } from "../words/failures";
import { conditionFigure, passageName, prepFigure, prepStepName } from "../words/preparation";
import { isQuestion, type LineActions, type Place } from "./line-actions";
import type { PlaceListProps } from "./place-list";

export type EntryContext = {
  /** How a line is understood here, or null to leave it to the frame. */
  readonly say: (understood: Understood) => string | null;
  /** Takes it; true when taken. */
  readonly take: (understood: Understood) => boolean;
};

/** One input, always a key away: shop shorthand, gauge output, or a name to go to; understood before anything is stored. */
export function EntryLine({ context, actions }: { context: EntryContext | null; actions: LineActions }) {
  const { units } = usePreferences();
  const router = useRouter();
  const [text, setText] = useState("");
  const [history, setHistory] = useState<string[]>([]);
  const [back, setBack] = useState(-1);
  const [found, setFound] = useState<{ readonly word: string; readonly places: readonly Place[] } | null>(null);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const [numberPad, setNumberPad] = useState(false);
  /** What was asked about as it stands typed: entered again, it was looked at. */
  const asked = useRef<string | null>(null);
  const pending = useRef<{ text: string; id: string } | null>(null);
  const parsed = text.trim() === "" ? null : parseShorthand(text, units);
  // A bare number of up to three digits may be a reading or a rack's tag: a tag where there is such a rack.
  const tag = parsed?.ok && parsed.value.kind === "thickness" && /^\d{1,3}$/.test(text.trim()) ? text.trim() : null;
  const goingTo = parsed?.ok && parsed.value.kind === "go-to" ? parsed.value.word : tag;
  const looked = found !== null && found.word === goingTo;
  const places = looked ? found.places : [];
  /** The place that Enter goes to, of those found. */
  const [pick, setPick] = useState(0);
  const chosen = places[pick] ?? places[0];
  const [PlaceList, setPlaceList] = useState<ComponentType<PlaceListProps> | null>(null);
  const several = places.length > 1;
  useEffect(() => {
    if (several)
      void import("./place-list").then(
        (loaded) => setPlaceList(() => loaded.PlaceList),
        () => {},
      );
  }, [several]);
  const tagged = tag !== null && places[0]?.label === `Rack ${tag}`;

  useEffect(() => {
    setPick(0);
    if (!goingTo) return setFound(null);
    let live = true;
    const timer = setTimeout(async () => {
      const found = await actions.findPlaces(goingTo).catch(() => []);
      if (live) setFound({ word: goingTo, places: found });
    }, 120);
    return () => {
      live = false;
      clearTimeout(timer);
    };
  }, [goingTo, actions]);

  const said =
    parsed === null
      ? null
      : !parsed.ok
        ? { good: false, text: failureText(parsed.error) }
        : {
            good: true,
            text:
              context?.say(parsed.value) ??
              sayUnderstood(tagged ? { kind: "go-to", word: tag } : parsed.value, units, chosen, looked),
          };

  async function enter() {
    if (!parsed?.ok || busy) return;
    const understood = parsed.value;
    const done = (note: string, good = true) => {
      setHistory((h) => [text, ...h].slice(0, 30));
      setText("");
      setBack(-1);
      setMessage(note ? { good, text: note } : null);
    };
    if (context?.take(understood)) return done("");
    if (understood.kind === "go-to" || tagged) {
      const place = chosen;
      if (!place)
        return setMessage({
          good: false,
          text: `Nothing by that name: “${understood.kind === "go-to" ? understood.word : tag}”. Try a rack, job, tank, case, structure, part, lot, customer or person.`,
        });
      done("");
      return router.push(place.href);
    }
    setBusy(true);
    // The same typed line keeps its id through retries, so that it is stored once.
    if (pending.current?.text !== text) pending.current = { text, id: uuidv7() };
    const outcome = await actions
      .saveShorthand(understood, pending.current.id, new Date().toISOString(), asked.current === text)
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setBusy(false);
    if (!outcome.ok) {
      const question = isQuestion(outcome.failure.kind);
      asked.current = question ? text : null;
      return setMessage({
        good: false,
        text: `${failureText(outcome.failure)}${question ? " Enter once more keeps it as it stands." : ""}`,
      });
    }
    pending.current = null;
    const answer = outcome.answer;
    done(
      outcome.already
        ? "Already recorded."
        : answer
          ? `Recorded. ${answerWord[answer.result]}: ${answer.text}.`
          : "Recorded.",
      answer?.result !== "out",
    );
    router.refresh();
  }

  return (
    <footer className="entry relative grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-3.5 px-5 max-[1000px]:px-3">
      {PlaceList && several && chosen && (
        <PlaceList
          places={places}
          chosen={chosen.href}
          go={(place) => {
            setText("");
            router.push(place.href);
          }}
        />
      )}
      <label htmlFor="entry-line" className="font-bold text-[#e58a60]">
        <span aria-hidden="true">›</span>
        <span className="sr-only">Entry line</span>
      </label>
      <div className="flex min-w-0 flex-wrap items-center gap-x-4">
        <input
          id="entry-line"
          value={text}
          autoComplete="off"
          spellCheck={false}
          inputMode={numberPad ? "decimal" : "text"}
          placeholder="rack, reading, bath, or where to go"
          className="fig min-h-11 min-w-[15ch] max-w-[46ch] flex-[0_1_auto] border-0 bg-transparent text-[17px] text-[#f7f0e6] caret-[#e58a60] outline-none placeholder:text-[#a89b8c] [field-sizing:content]"
          aria-describedby="entry-said"
          onChange={(e) => {
            setText(e.target.value);
            setMessage(null);
          }}
          onKeyDown={(e) => {
            if (e.key === "Enter") {
              e.preventDefault();
              void enter();
            }
            if (e.key === "Escape") {
              setText("");
              setMessage(null);
              (e.target as HTMLInputElement).blur();
            }
            if (several && (e.key === "ArrowDown" || e.key === "ArrowUp")) {
              e.preventDefault();
              return setPick((pick + (e.key === "ArrowDown" ? 1 : places.length - 1)) % places.length);
            }
            if (e.key === "ArrowUp" && history.length > 0) {
              e.preventDefault();
              const next = Math.min(back + 1, history.length - 1);
              setBack(next);
              setText(history[next] ?? "");
            }
          }}
        />
        <output
          id="entry-said"
          aria-live="polite"
          className={`min-w-0 truncate text-[13.5px] max-[1000px]:whitespace-normal ${(message ?? said)?.good === false ? "text-[#ff9db2]" : "text-[#cbbfae]"}`}
        >
          {busy ? "Recording …" : (message?.text ?? said?.text ?? "")}
        </output>
      </div>
      <button
        type="button"
        className="hidden min-h-11 min-w-14 border border-[#85745f] px-3 text-[#f7f0e6] max-[1000px]:block"
        aria-pressed={numberPad}
        onClick={() => {
          setNumberPad(!numberPad);
          document.getElementById("entry-line")?.focus();
        }}
      >
        {numberPad ? "abc" : "123"}
      </button>
      <span className="text-[13.5px] text-[#cbbfae] max-[1000px]:hidden">
        <span className="key">Enter</span> {goingTo && (tag === null || tagged) ? "go" : "keep"} &nbsp;{" "}
        <span className="key">↑</span> last
      </span>
    </footer>
  );
}

export function sayUnderstood(
  u: Understood,
  units: "metric" | "us",
  place: Place | undefined,
  looked: boolean,
): string {
  switch (u.kind) {
    case "go-to":
      return place
        ? [place.label, place.what].filter(Boolean).join(" · ")
        : looked
          ? `nothing by that name: “${u.word}”`
          : `looking for “${u.word}”`;
    case "thickness":
      return `${u.rack ? `Rack ${u.rack}` : "No rack named"}${u.spot ? ` · ${u.spot}` : ""} · ${u.readings.map((r) => withUnit(r.valueUm, "thickness", units)).join(", ")}`;
    case "bath-check":
      return `${u.tank} · ${u.values
        .map((x) =>
          x.parameter === "titrant"
            ? `titrant ${x.value} mL`
            : `${parameterName[x.parameter] ?? x.parameter} ${bathValue(x.parameter, x.value, units)}`,
        )
        .join(" · ")}`;
    case "oven-pull":
      return `Oven ${u.oven} · pull ${u.loadNo ? `load ${u.loadNo}` : "the load in it"} now`;
    case "oven-load":
      return `Oven ${u.oven} · load ${u.loadNo}, door closed now on racks ${u.racks.join(", ")}`;
    case "oven-event":
      return `Oven ${u.oven} · ${u.loadNo ? `load ${u.loadNo}` : "the load in it"}: ${ovenWordName[u.event]}${u.valueC === null ? "" : ` ${withUnit(u.valueC, "temperature", units)}`}`;
    case "prep-step":
      return `Rack ${u.rack} · ${(prepStepName[u.step] ?? u.step).toLowerCase()} done${u.value === null ? "" : `, ${prepFigure(u.step, u.value, units)}`}`;
    case "line-run":
      return `Rack ${u.rack} · into the washer now${u.speedMPerMin === null ? " at its usual speed" : ` at ${u.speedMPerMin.toFixed(2)} m/min`}`;
    case "conditions":
      return `Air of the hall · ${u.values.map((x) => `${x.quantity.replaceAll("-", " ")} ${conditionFigure(x.quantity, x.value, units)}`).join(" · ")}`;
    case "passage":
      return `Rack ${u.rack} · into ${(passageName[u.stage] ?? u.stage).toLowerCase()} now`;
    case "cross-cut":
      return `Rack ${u.rack} · cross-cut, ${u.squaresLost} of ${u.squares} squares lost`;
    case "solvent-rub":
      return `Rack ${u.rack} · solvent rub grade ${u.grade} after ${u.doubleRubs} double rubs`;
  }
}
const answerWord: Record<VerdictResult, string> = { in: "In", watch: "Watch", out: "Out", unknown: "Not yet judged" };
const ovenWordName: Record<OvenWord, string> = {
  "door-opened": "door opened now",
  "door-shut": "door shut now",
  melted: "melted now",
  "touched-up": "touched up now",
  "heat-off": "heat off now",
  "set-point": "set to",
  infrared: "metal read by infrared,",
};
