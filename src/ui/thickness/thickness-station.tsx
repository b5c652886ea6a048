"use client";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { describeValues } from "@/core/statistics";
import { judgeNominal, judgeSpotArea, type Spot, spotLimits, spotMeans } from "@/core/thickness";
import { FilmHistogram } from "../charts/film-histogram";
import { PartSketch, type SketchFace } from "../charts/part-sketch";
import { withUnit } from "../format";
import { TextField } from "../forms/text-field";
import { type EntryContext, useEntryContext, useShell } from "../frame/shell";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";
import { FilmFigures, RuleStanding } from "./film-readout";
import { RejectList } from "./reject-list";

type Face = {
  id: string;
  name: string;
  outline: readonly (readonly [number, number])[];
  recessFromY: number | null;
  spots: readonly { id: string; at: readonly [number, number]; note: string }[];
};
type Stored = { face: string; spot: string; valueUm: number; rejectedReason: string | null };
type Draft = Stored & { typed: string; key: string };
type Film =
  | { rule: "spot-area"; minUm: number; maxUm: number | null; level: 1 | 2 | 3 | 4 | 5 }
  | { rule: "nominal"; nominalUm: number; maxUm: number | null };
export type ThicknessProps = {
  rack: string;
  faces: readonly Face[];
  film: Film;
  sets: readonly {
    readonly recordId: string;
    readonly label: string;
    readonly readings: readonly (Stored & { typed: string })[];
  }[];
  readingsPerSpot: number;
  mayInspect: boolean;
};

/** The film station: spots on the sketch, readings typed or streamed, statistics and the rule's verdict as they come. */
export function ThicknessStation({ rack, faces, film, sets, readingsPerSpot, mayInspect }: ThicknessProps) {
  const { units } = usePreferences();
  const { actions } = useShell();
  const router = useRouter();
  const draftKey = `film-draft-${rack}`;
  const [draft, setDraft] = useState<Draft[]>([]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [source, setSource] = useState<"typed" | "gauge">("typed");
  const [streaming, setStreaming] = useState(false);
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

  // What was read but not yet recorded survives a reload or an ended session.
  useEffect(() => {
    const kept = sessionStorage.getItem(draftKey);
    if (kept) setDraft(JSON.parse(kept) as Draft[]);
  }, [draftKey]);
  const change = useCallback(
    (next: (d: Draft[]) => Draft[]) => {
      saveId.current = null;
      setDraft((d) => {
        const after = next(d);
        if (after.length) sessionStorage.setItem(draftKey, JSON.stringify(after));
        else sessionStorage.removeItem(draftKey);
        return after;
      });
    },
    [draftKey],
  );

  const all: readonly Stored[] = useMemo(() => [...stored, ...draft], [stored, draft]);
  const places = useMemo(
    () => faces.flatMap((f) => f.spots.map((s) => ({ face: f.id, spot: s.id, note: s.note }))),
    [faces],
  );
  const count = useCallback(
    (spot: string, readings: readonly Stored[]) => readings.filter((r) => r.spot === spot && !r.rejectedReason).length,
    [],
  );
  const nextSpot = useMemo(
    () =>
      places.find((p) => p.spot === chosen && count(p.spot, all) < readingsPerSpot) ??
      places.find((p) => count(p.spot, all) < readingsPerSpot) ??
      null,
    [places, chosen, all, count, readingsPerSpot],
  );

  const addReading = useCallback(
    (valueUm: number, typed: string, spotId?: string | null) => {
      change((d) => {
        const now = [...stored, ...d];
        const wanted = spotId
          ? places.find((p) => p.spot === spotId)
          : (places.find((p) => p.spot === chosen && count(p.spot, now) < readingsPerSpot) ??
            places.find((p) => count(p.spot, now) < readingsPerSpot));
        return wanted
          ? [...d, { face: wanted.face, spot: wanted.spot, valueUm, typed, rejectedReason: null, key: uuidv7() }]
          : d;
      });
    },
    [change, stored, places, chosen, count, readingsPerSpot],
  );

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
        for (const r of u.readings) addReading(r.valueUm, r.typed, u.spot);
        return true;
      },
    }),
    [rack, places, nextSpot, units, addReading],
  );
  useEntryContext(context);

  useEffect(() => {
    if (!streaming) return;
    const events = new EventSource("/api/instruments/film-gauge");
    events.onmessage = (e) => {
      const value = Number.parseFloat(String(e.data));
      if (Number.isFinite(value)) addReading(value, String(e.data));
    };
    events.onerror = () => {
      setStreaming(false);
      setMessage({
        good: false,
        text: "The gauge does not answer. Check that it is on, then start it again; readings can be typed meanwhile.",
      });
    };
    return () => events.close();
  }, [streaming, addReading]);
  useEffect(() => {
    if (streaming && !nextSpot) setStreaming(false);
  }, [streaming, nextSpot]);

  const spots: Spot[] = places.map((p) => ({ id: p.spot, readings: all.filter((r) => r.spot === p.spot) }));
  const kept = all.filter((r) => !r.rejectedReason).map((r) => r.valueUm);
  const stats = describeValues(kept);
  const means = spotMeans(spots);
  const meanBySpot = new Map(means.ok ? means.value.means.map((m) => [m.id, m.meanUm]) : []);
  const overSpots = describeValues([...meanBySpot.values()]);
  const judged =
    film.rule === "spot-area"
      ? judgeSpotArea([{ id: "piece", spots }], film)
      : judgeNominal([...meanBySpot.values()], film);
  const limits =
    film.rule === "spot-area" ? spotLimits(film) : { lowestUm: 0.8 * film.nominalUm, highestUm: film.maxUm };
  const minUm = film.rule === "spot-area" ? film.minUm : film.nominalUm;
  const asked = places.length * readingsPerSpot;
  const spotResult = (id: string): SketchFace["spots"][number]["result"] => {
    const m = meanBySpot.get(id);
    if (nextSpot?.spot === id) return "next";
    if (m === undefined) return "open";
    const found =
      judged.ok && judged.value.kind === "spot-area-verdict"
        ? judged.value.areas[0]?.spots.find((s) => s.id === id)?.result
        : m < limits.lowestUm
          ? "too-thin"
          : m < minUm
            ? "thin"
            : "in";
    return found === "in" || found === undefined ? "in" : found.startsWith("too-") ? "out" : "watch";
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
        typedUnit: units === "us" ? "mil" : "um",
        coatNo: 1,
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
      text: correcting ? "Corrected; the old set stays on record." : `${draft.length} readings recorded.`,
    });
    router.refresh();
  }

  return (
    <div className="mt-3 grid grid-cols-[auto_minmax(0,1fr)] gap-8 max-[820px]:grid-cols-1">
      <div>
        <PartSketch faces={sketch} units={units} onSpot={(_, spot) => setChosen(spot)} />
        {nextSpot?.note && (
          <p className="small soft">
            {nextSpot.spot}: {nextSpot.note}
          </p>
        )}
      </div>
      <div>
        <FilmFigures
          meanUm={stats.ok ? stats.value.mean : null}
          sdUm={overSpots.ok ? overSpots.value.sampleSd : null}
          lowestUm={lowest?.[1] ?? null}
          limits={{ minUm, lowestUm: limits.lowestUm }}
          read={kept.length}
          asked={asked}
          units={units}
        />
        <div className="mt-4">
          <FilmHistogram
            valuesUm={kept}
            minUm={minUm}
            maxUm={film.maxUm}
            lowestUm={limits.lowestUm}
            meanUm={stats.ok ? stats.value.mean : null}
            units={units}
          />
        </div>
        <RuleStanding judged={judged} units={units} />
        {mayInspect && (
          <div className="no-print mt-4 flex flex-wrap items-center gap-3">
            <button type="button" className="btn pri" onClick={record} disabled={draft.length === 0 || busy}>
              {busy
                ? "Recording …"
                : draft.length === 0
                  ? "Nothing new to record"
                  : `Record ${draft.length} ${draft.length === 1 ? "reading" : "readings"}`}
            </button>
            <button
              type="button"
              className="btn"
              onClick={() => {
                setSource("gauge");
                setStreaming(!streaming);
              }}
              disabled={!nextSpot && !streaming}
            >
              {streaming ? "Stop gauge" : "Start gauge 731"}
            </button>
            {draft.length > 0 && (
              <button type="button" className="btn" onClick={() => change((d) => d.slice(0, -1))}>
                Drop last
              </button>
            )}
            {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
          </div>
        )}
        {correcting && (
          <div className="mt-3 max-w-[520px] border-l-4 border-sorrel pl-3">
            <p>Correcting the set of {correcting.label}. Leave readings out below, drop the last, or type new ones.</p>
            <TextField
              id="correct-reason"
              label="Why it is corrected"
              text={reason}
              change={setReason}
              most={400}
              className="mt-1"
            />
            <button
              type="button"
              className="btn mt-2"
              onClick={() => {
                setCorrecting(null);
                change(() => []);
              }}
            >
              Leave it as it was
            </button>
          </div>
        )}
        {mayInspect && !correcting && draft.length === 0 && sets.length > 0 && (
          <p className="no-print mt-3 flex flex-wrap gap-x-4">
            {sets.map((set) => (
              <button
                key={set.recordId}
                type="button"
                className="link min-h-11 soft"
                onClick={() => {
                  setCorrecting({ recordId: set.recordId, label: set.label });
                  change(() => set.readings.map((r) => ({ ...r, key: uuidv7() })));
                }}
              >
                Correct the set of {set.label}
              </button>
            ))}
          </p>
        )}
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
