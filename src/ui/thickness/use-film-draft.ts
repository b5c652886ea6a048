"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { type GaugeReading, type StrangeReading, strangeReading } from "@/core/thickness";
import { keepDraft, keptDraft } from "../forms/draft";
import { usePreferences } from "../preferences-context";

export type Stored = {
  readonly face: string;
  readonly spot: string;
  readonly valueUm: number;
  readonly rejectedReason: string | null;
};
export type Draft = Stored & { readonly typed: string; readonly key: string };
export type Place = { readonly face: string; readonly spot: string; readonly note: string };
type Asked = { readonly reading: GaugeReading; readonly spot: string | null; readonly strange: StrangeReading };
export type Answer = "as-read" | "as-meant" | "drop";

/**
 * Readings taken and not yet recorded. Each goes to the spot that is chosen, else to the first that wants one; one unlike
 * its neighbours is asked about, and what comes meanwhile waits its turn. What was read survives a reload.
 */
export function useFilmDraft({
  rack,
  places,
  stored,
  readingsPerSpot,
  onTaken,
}: {
  rack: string;
  places: readonly Place[];
  stored: readonly Stored[];
  readingsPerSpot: number;
  onTaken: (reading: GaugeReading, place: Place) => void;
}) {
  const { who } = usePreferences();
  const storeKey = `film ${rack}`;
  const [draft, setDraft] = useState<readonly Draft[]>([]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [asked, setAsked] = useState<Asked | null>(null);
  const [full, setFull] = useState(0);
  /** When what was found again had been read; null where nothing was. */
  const [foundMs, setFoundMs] = useState<number | null>(null);
  const now = useRef<{ draft: readonly Draft[]; asked: Asked | null; chosen: string | null }>({
    draft: [],
    asked: null,
    chosen: null,
  });
  const waiting = useRef<{ reading: GaugeReading; spot: string | null }[]>([]);
  /** Counts by spot, kept as readings come so that the thousandth costs what the first did. */
  const counts = useRef(new Map<string, number>());

  const countAll = useCallback(
    (drafts: readonly Draft[]) => {
      const map = new Map<string, number>();
      for (const r of [...stored, ...drafts]) if (!r.rejectedReason) map.set(r.spot, (map.get(r.spot) ?? 0) + 1);
      counts.current = map;
    },
    [stored],
  );
  const put = useCallback(
    (next: readonly Draft[]) => {
      now.current.draft = next;
      countAll(next);
      setDraft(next);
      keepDraft(who, storeKey, next.length > 0 ? { readings: next } : null, Date.now());
    },
    [countAll, storeKey, who],
  );
  const ask = useCallback((question: Asked | null) => {
    now.current.asked = question;
    setAsked(question);
  }, []);
  useEffect(() => {
    const kept = keptDraft(who, storeKey);
    const readings = kept?.changed.readings;
    const drafts = Array.isArray(readings) ? (readings as Draft[]) : [];
    now.current.draft = drafts;
    setDraft(drafts);
    setFoundMs(kept && drafts.length > 0 ? kept.atMs : null);
  }, [storeKey, who]);
  useEffect(() => countAll(now.current.draft), [countAll]);

  const placeFor = useCallback(
    (spot: string | null): Place | null => {
      if (spot) return places.find((p) => p.spot === spot) ?? null;
      const open = (p: Place) => (counts.current.get(p.spot) ?? 0) < readingsPerSpot;
      return places.find((p) => p.spot === now.current.chosen && open(p)) ?? places.find(open) ?? null;
    },
    [places, readingsPerSpot],
  );
  const take = useCallback(
    (reading: GaugeReading, spot: string | null): boolean => {
      const place = placeFor(spot);
      if (!place) {
        setFull((n) => n + 1);
        return false;
      }
      const { face, spot: id } = place;
      put([
        ...now.current.draft,
        { face, spot: id, valueUm: reading.valueUm, typed: reading.typed, rejectedReason: null, key: uuidv7() },
      ]);
      onTaken(reading, place);
      return true;
    },
    [placeFor, put, onTaken],
  );
  const add = useCallback(
    (reading: GaugeReading, spot: string | null = null): void => {
      if (now.current.asked) {
        waiting.current.push({ reading, spot });
        return;
      }
      const before = [...stored, ...now.current.draft].filter((r) => !r.rejectedReason).map((r) => r.valueUm);
      const strange = strangeReading(reading.valueUm, before.slice(-12));
      if (strange) ask({ reading, spot, strange });
      else take(reading, spot);
    },
    [stored, ask, take],
  );
  const answer = useCallback(
    (choice: Answer): void => {
      const question = now.current.asked;
      if (!question) return;
      ask(null);
      const { reading, spot, strange } = question;
      if (choice === "as-read") take(reading, spot);
      if (choice === "as-meant" && strange.kind === "unit-jump") take({ ...reading, valueUm: strange.asUm }, spot);
      const rest = waiting.current;
      waiting.current = [];
      for (const next of rest) {
        // The rest of the batch is in the same unit as the one just answered: not asked reading by reading.
        const before = [...stored, ...now.current.draft].filter((r) => !r.rejectedReason).map((r) => r.valueUm);
        const again = strangeReading(next.reading.valueUm, before.slice(-12));
        if (
          choice === "as-meant" &&
          strange.kind === "unit-jump" &&
          again?.kind === "unit-jump" &&
          again.slip === strange.slip &&
          !now.current.asked
        )
          take({ ...next.reading, valueUm: again.asUm }, next.spot);
        else add(next.reading, next.spot);
      }
    },
    [stored, ask, take, add],
  );
  const choose = useCallback((spot: string | null) => {
    now.current.chosen = spot;
    setChosen(spot);
  }, []);
  const change = useCallback(
    (next: (d: readonly Draft[]) => readonly Draft[]) => {
      setFull(0);
      put(next(now.current.draft));
      if (now.current.draft.length === 0) setFoundMs(null);
    },
    [put],
  );

  const nextSpot = useMemo(() => {
    const count = new Map<string, number>();
    for (const r of [...stored, ...draft]) if (!r.rejectedReason) count.set(r.spot, (count.get(r.spot) ?? 0) + 1);
    const open = (p: Place) => (count.get(p.spot) ?? 0) < readingsPerSpot;
    return places.find((p) => p.spot === chosen && open(p)) ?? places.find(open) ?? null;
  }, [stored, draft, places, chosen, readingsPerSpot]);
  return { draft, change, add, asked, answer, nextSpot, choose, full, foundMs, waiting: () => waiting.current.length };
}
