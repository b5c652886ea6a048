"use client";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { within } from "@/core/limits";
import { mean, sampleSd } from "@/core/statistics";
import {
  adviseFilm,
  type BaseCorrection,
  type FilmRequirement,
  filmAsked,
  type GaugeReading,
  judgeFilm,
  LEAST_COAT_UM,
  placeLimits,
  type Spot,
  spotMeans,
} from "@/core/thickness";
import { PartSketch, type SketchFace, THICK_COLOUR, THIN_COLOUR } from "../charts/part-sketch";
import { countOf, withUnit } from "../format";
import { DraftSaid } from "../forms/draft-said";
import { type EntryContext, useEntryContext, useShell } from "../frame/shell";
import Link from "../link";
import { usePreferences } from "../preferences-context";
import { type LampWhat, lampWhatName } from "../words/coating";
import { failureText } from "../words/failures";
import { filmDecisionName, filmDecisionWhy } from "../words/film";
import { baseTaken } from "../words/reasons";
import { AskedReading } from "./asked-reading";
import { CorrectSet } from "./correct-set";
import { type Face, faceFilms } from "./face-films";
import { FilmFaces } from "./film-faces";
import { FilmFigures, RuleStanding } from "./film-readout";
import { FilmHistogram } from "./later";
import { NotedPlaces } from "./noted-places";
import { type SoundKind, sayReading } from "./reading-sound";
import { RejectList } from "./reject-list";
import { StationKeys } from "./station-keys";
import { type Place, type Stored, useFilmDraft } from "./use-film-draft";
import { useGauge } from "./use-gauge";

export type ThicknessProps = {
  rack: string;
  faces: readonly Face[];
  film: FilmRequirement;
  /** Readings asked for by a plan, over what the rule itself asks. */
  asked: number;
  sets: readonly {
    readonly recordId: string;
    readonly label: string;
    readonly readings: readonly (Stored & { typed: string })[];
  }[];
  readingsPerSpot: number;
  mayInspect: boolean;
  /** What the metal under the film adds to each reading. */
  base: BaseCorrection;
  gauges: readonly string[];
  cured: "loose" | "melted" | "cured" | "unknown";
  /** The most film the powder's sheet bears in all. */
  mostUm: number | null;
  /** Places noted under the lamp: read beside those of the plan. */
  noted?: readonly { readonly face: string; readonly x: number; readonly y: number; readonly what: string }[];
};

/** The film station: spots on the sketch, readings typed or streamed, statistics and the rule's verdict as they come. */
export function ThicknessStation({
  rack,
  faces,
  film,
  asked: askedReadings,
  sets,
  readingsPerSpot,
  mayInspect,
  base,
  gauges,
  cured,
  mostUm,
  noted = [],
}: ThicknessProps) {
  const { units } = usePreferences();
  const { actions } = useShell();
  const router = useRouter();
  const [gauge, setGauge] = useState(gauges[0] ?? "");
  const [source, setSource] = useState<"typed" | "gauge">("typed");
  const [sound, setSound] = useState<SoundKind>("silent");
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const [busy, setBusy] = useState(false);
  const saveId = useRef<string | null>(null);
  /** The set being corrected: its readings are in the draft, and the new set will supersede it. */
  const [correcting, setCorrecting] = useState<{ recordId: string; label: string } | null>(null);
  const [reason, setReason] = useState("");
  const stored = useMemo(
    () => sets.filter((set) => set.recordId !== correcting?.recordId).flatMap((set) => set.readings),
    [sets, correcting],
  );
  const places = useMemo(
    () => faces.flatMap((f) => f.spots.map((s) => ({ face: f.id, spot: s.id, note: s.note }))),
    [faces],
  );
  const limits = useMemo(() => placeLimits(film), [film]);
  const { minUm, maxUm } = filmAsked(film);
  const taken = useCallback(
    (reading: GaugeReading, place: Place) => {
      saveId.current = null;
      const um = reading.valueUm - base.um;
      const result =
        um < limits.lowestUm || (limits.highestUm !== null && um > limits.highestUm)
          ? "out"
          : um < minUm
            ? "watch"
            : "in";
      sayReading(
        sound,
        result,
        `${place.spot}, ${Math.round(um)}${result === "in" ? "" : result === "out" ? ", out" : ", low"}`,
      );
    },
    [base, limits, minUm, sound],
  );
  const { draft, change, add, asked, answer, nextSpot, choose, full, foundMs, waiting } = useFilmDraft({
    rack,
    places,
    stored,
    readingsPerSpot,
    onTaken: taken,
  });
  const { state, said, say, canSerial, start, startSerial, fetchBatch, stop } = useGauge(
    (reading) => add(reading),
    units === "us" ? "mil" : "um",
  );
  const all: readonly Stored[] = useMemo(() => [...stored, ...draft], [stored, draft]);

  const chooseSpot = useCallback((_: string, spot: string) => choose(spot), [choose]);
  const context: EntryContext = useMemo(
    () => ({
      say: (u) =>
        u.kind !== "thickness" || (u.rack && u.rack !== rack)
          ? null
          : u.spot && !places.some((p) => p.spot === u.spot)
            ? `No spot ${u.spot} on this part`
            : `${u.spot ?? nextSpot?.spot ?? "all spots read"}, ${u.readings.map((r) => withUnit(r.valueUm, "thickness", units)).join(", ")} on rack ${rack}; Enter keeps`,
      take: (u) => {
        if (
          u.kind !== "thickness" ||
          (u.rack && u.rack !== rack) ||
          (u.spot && !places.some((p) => p.spot === u.spot)) ||
          (!u.spot && !nextSpot)
        )
          return false;
        setSource("typed");
        setMessage(null);
        for (const r of u.readings) add({ valueUm: r.valueUm, typed: r.typed }, u.spot);
        return true;
      },
    }),
    [rack, places, nextSpot, units, add],
  );
  useEntryContext(context);
  const streaming = state === "stream" || state === "serial";
  // A gauge streams on while nobody listens: once every spot is read it is let go.
  useEffect(() => {
    if (streaming && !nextSpot) stop();
  }, [streaming, nextSpot, stop]);

  const bySpot = new Map<string, { valueUm: number; rejectedReason: string | null }[]>();
  for (const r of all) {
    const mine = bySpot.get(r.spot) ?? [];
    mine.push({ valueUm: Math.max(0, r.valueUm - base.um), rejectedReason: r.rejectedReason });
    bySpot.set(r.spot, mine);
  }
  const spots: Spot[] = places.map((p) => ({ id: p.spot, readings: bySpot.get(p.spot) ?? [] }));
  const kept = all.filter((r) => !r.rejectedReason).map((r) => Math.max(0, r.valueUm - base.um));
  const meanOfAll = kept.length === 0 ? null : mean(kept);
  const means = spotMeans(spots);
  const meanBySpot = new Map(means.ok ? means.value.means.map((m) => [m.id, m.meanUm]) : []);
  const judged = judgeFilm(spots, film, askedReadings);
  const wanted = places.length * readingsPerSpot;
  const overRead = places.filter(
    (p) => (bySpot.get(p.spot) ?? []).filter((r) => !r.rejectedReason).length > readingsPerSpot,
  );
  const byFace = faceFilms(faces, meanBySpot);
  const meanUm = meanOfAll ?? 0;
  const everyMean = [...meanBySpot.values()];
  const advised = judged.ok
    ? adviseFilm({
        result: judged.value.result,
        thin: meanUm < minUm || everyMean.some((m) => m < limits.lowestUm),
        thick:
          (maxUm !== null && meanUm > maxUm) ||
          everyMean.some((m) => limits.highestUm !== null && m > limits.highestUm),
        cured,
        meanUm,
        mostUm,
        leastCoatUm: LEAST_COAT_UM,
      })
    : null;
  const spotResult = (id: string): SketchFace["spots"][number]["result"] => {
    const m = meanBySpot.get(id);
    if (nextSpot?.spot === id) return "next";
    if (m === undefined) return "open";
    if (!within(m, limits.lowestUm, limits.highestUm)) return "out";
    return within(m, minUm, maxUm) ? "in" : "watch";
  };
  const sketch: SketchFace[] = faces.map((f) => ({
    ...f,
    spots: f.spots.map((s) => ({ id: s.id, at: s.at, meanUm: meanBySpot.get(s.id) ?? null, result: spotResult(s.id) })),
  }));
  const lowest = [...meanBySpot.entries()].reduce<[string, number] | null>(
    (low, e) => (!low || e[1] < low[1] ? e : low),
    null,
  );

  async function record() {
    if (busy || draft.length === 0) return;
    if (correcting && reason.trim() === "")
      return setMessage({ good: false, text: "Say why the set is corrected; the old one stays on record with it." });
    setBusy(true);
    saveId.current ??= uuidv7();
    const outcome = await actions
      .save({
        kind: "thickness",
        id: saveId.current,
        idempotencyKey: `film:${saveId.current}`,
        happenedAt: new Date().toISOString(),
        rack,
        source,
        instrument: source === "gauge" && gauge ? gauge : null,
        typedUnit: units === "us" ? "mil" : "um",
        coatNo: 1,
        // What is unlike its neighbours was asked about as it came.
        sure: true,
        supersedes: correcting ? { recordId: correcting.recordId, reason } : null,
        readings: draft.map(({ face, spot, valueUm, typed, rejectedReason }) => ({
          face,
          spot,
          valueUm,
          typed,
          rejectedReason,
        })),
      })
      .catch(() => ({ ok: false as const, failure: { kind: "not-saved" } }));
    setBusy(false);
    if (!outcome.ok) return setMessage({ good: false, text: failureText(outcome.failure) });
    change(() => []);
    setCorrecting(null);
    setReason("");
    setMessage({
      good: true,
      text: correcting ? "Corrected; the old set stays on record." : `${countOf(draft.length, "reading")} recorded.`,
    });
    router.refresh();
  }

  return (
    <div className="mt-3 grid grid-cols-[auto_minmax(0,1fr)] gap-8 max-[820px]:grid-cols-1">
      <div>
        <PartSketch
          faces={sketch}
          units={units}
          marks={noted.map((p) => ({ ...p, label: lampWhatName[p.what as LampWhat] ?? p.what }))}
          scale={{ lowUm: limits.lowestUm, highUm: limits.highestUm ?? 2 * minUm }}
          onSpot={chooseSpot}
        />
        <NotedPlaces noted={noted} faces={faces} todo="Noted under the lamp, read there as well" />
        <p className="small soft m-0 flex items-center gap-3">
          <span className="inline-flex items-center gap-1">
            <span className="inline-block size-3 rounded-full" style={{ background: THIN_COLOUR }} /> thin
          </span>
          <span className="inline-flex items-center gap-1">
            <span className="inline-block size-3 rounded-full" style={{ background: THICK_COLOUR }} /> thick
          </span>
          within the rule’s limits
        </p>
        {nextSpot?.note && (
          <p className="small soft">
            {nextSpot.spot}: {nextSpot.note}
          </p>
        )}
      </div>
      <div>
        <FilmFigures
          meanUm={meanOfAll}
          sdUm={everyMean.length > 1 ? sampleSd(everyMean) : null}
          lowestUm={lowest?.[1] ?? null}
          limits={{ minUm, lowestUm: limits.lowestUm }}
          read={kept.length}
          asked={wanted}
          units={units}
        />
        <div className="mt-4">
          <FilmHistogram
            valuesUm={kept}
            minUm={minUm}
            maxUm={maxUm}
            lowestUm={limits.lowestUm}
            meanUm={meanOfAll}
            units={units}
          />
        </div>
        <RuleStanding judged={judged} units={units} />
        {base.kind !== "none" && <p className="small soft m-0 mt-1">Figures are film{baseTaken(base, units)}.</p>}
        {advised && everyMean.length === places.length && (
          <p className="m-0 mt-2" id="film-advice">
            <b>{filmDecisionName[advised.decision]}</b>: {filmDecisionWhy[advised.why]}.{" "}
            <Link className="link" href={`/racks/${rack}/${cured === "loose" ? "coat" : "release"}`}>
              {cured === "loose" ? "to the coat" : "to the decision"}
            </Link>
          </p>
        )}
        {mayInspect && (
          <StationKeys
            fresh={draft.length}
            busy={busy}
            record={() => void record()}
            gauge={gauge}
            gauges={gauges}
            chooseGauge={setGauge}
            reader={{ state, streaming, canSerial, more: nextSpot !== undefined && nextSpot !== null }}
            start={() => {
              setSource("gauge");
              start();
            }}
            stop={stop}
            fetchBatch={() => {
              setSource("gauge");
              void fetchBatch();
            }}
            startSerial={() => {
              setSource("gauge");
              void startSerial();
            }}
            undo={() => change((d) => d.slice(0, -1))}
            sound={sound}
            changeSound={setSound}
            message={message}
          />
        )}
        {asked && (
          <AskedReading
            typed={asked.reading.typed}
            strange={asked.strange}
            waiting={waiting()}
            units={units}
            answer={answer}
          />
        )}
        {foundMs !== null && <DraftSaid atMs={foundMs} drop={() => change(() => [])} what="What you read" />}
        {(said || full > 0) && (
          <output className="mt-2 block text-watch">
            {said}{" "}
            {full > 0 &&
              `${countOf(full, "reading")} more than the spots want ${full === 1 ? "was" : "were"} not taken.`}{" "}
            {said && (
              <button type="button" className="link small" onClick={() => say(null)}>
                read
              </button>
            )}
          </output>
        )}
        {overRead.length > 0 && (
          <p className="m-0 mt-2 text-watch">
            Read twice, or by two people: {overRead.map((p) => p.spot).join(", ")} have more than {readingsPerSpot}{" "}
            readings. All count; leave out what should not.
          </p>
        )}
        <FilmFaces faces={byFace} minUm={minUm} maxUm={maxUm} units={units} />
        <CorrectSet
          correcting={correcting?.label ?? null}
          reason={reason}
          changeReason={setReason}
          leave={() => {
            setCorrecting(null);
            change(() => []);
          }}
          sets={mayInspect && !correcting && draft.length === 0 ? sets : []}
          begin={(set) => {
            setCorrecting({ recordId: set.recordId, label: set.label });
            change(() => set.readings.map((r) => ({ ...r, key: uuidv7() })));
          }}
        />
        {draft.length > 0 && (
          <RejectList
            draft={draft}
            units={units}
            onReject={(key, reason) =>
              change((d) => d.map((r) => (r.key === key ? { ...r, rejectedReason: reason } : r)))
            }
          />
        )}
      </div>
    </div>
  );
}
