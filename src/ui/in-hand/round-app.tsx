"use client";
import { useLiveQuery } from "dexie-react-hooks";
import { setNonce } from "get-nonce";
import { type ReactNode, useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { v7 as uuidv7 } from "uuid";
import { CaptureForm } from "../field/capture-form";
import { Tick } from "../fields/tick";
import { countOf, dateAndTime, dayMonthYear } from "../format";
import { Shape, Verdict } from "../marks/verdict";
import { PreferencesProvider } from "../preferences-context";
import { cautions } from "../words/cautions";
import { visitDueName } from "../words/field-zones";
import { type Device, keepPack, roomLeft, SCANT } from "./device";
import { deviceKeeper, directKeeper } from "./keeper";
import { openDevice } from "./open-device";
import type { Pack, PackStructure, PackZone, SentPack } from "./pack";
import { Unsent, useCounts } from "./unsent";
import { Unsettled } from "./unsettled";
import { transport, useSending } from "./use-sending";

/** A pack older than this is fetched anew when there is a network, ms. */
const STALE_MS = 10 * 60_000;
/** A round is taken up again within so long; later it is another, ms. */
const ROUND_MS = 18 * 3_600_000;

/** Where in the round, as the address says it after the stroke: `#CODE/zone`. */
function useHash(): readonly [string | null, string | null] {
  const hash = useSyncExternalStore(
    (changed) => {
      window.addEventListener("hashchange", changed);
      return () => window.removeEventListener("hashchange", changed);
    },
    () => window.location.hash,
    () => "",
  );
  return useMemo(() => {
    try {
      const [code = "", ...zone] = hash.slice(1).split("/");
      return [code ? decodeURIComponent(code) : null, zone.length > 0 ? decodeURIComponent(zone.join("/")) : null];
    } catch {
      return [null, null];
    }
  }, [hash]);
}
const to = (code: string, zone?: string): string =>
  `#${encodeURIComponent(code)}${zone === undefined ? "" : `/${encodeURIComponent(zone)}`}`;
const useOnline = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      window.addEventListener("online", changed);
      window.addEventListener("offline", changed);
      return () => {
        window.removeEventListener("online", changed);
        window.removeEventListener("offline", changed);
      };
    },
    () => navigator.onLine,
    () => true,
  );

type Opened = { readonly device: Device | null; readonly pack: Pack | null; readonly packs: readonly Pack[] };
type Fetched =
  | { readonly kind: "fetched"; readonly pack: Pack }
  | { readonly kind: "signed-out" | "refused" | "not-reached" };

async function fetchPack(asked: readonly string[]): Promise<Fetched> {
  try {
    const query = asked.map((code) => `of=${encodeURIComponent(code)}`).join("&");
    const answer = await fetch(`/api/field/pack${query ? `?${query}` : ""}`, {
      cache: "no-store",
      signal: AbortSignal.timeout(30_000),
    });
    if (answer.status === 401) return { kind: "signed-out" };
    if (answer.status === 403) return { kind: "refused" };
    if (!answer.ok) return { kind: "not-reached" };
    const { serverMs, ...pack } = (await answer.json()) as SentPack;
    return { kind: "fetched", pack: { ...pack, clock: { serverMs, deviceMs: Date.now() } } };
  } catch {
    return { kind: "not-reached" };
  }
}

/** Photos of earlier visits that are held beside today's; as far as there is room, and none is waited for. */
async function fetchSeen(device: Device, pack: Pack): Promise<void> {
  const wanted = new Set(pack.structures.flatMap((s) => s.zones.flatMap((z) => (z.photo ? [z.photo.fileId] : []))));
  const there = await device.kept.where("of").equals("seen").primaryKeys();
  await device.kept.bulkDelete(there.filter((id) => !wanted.has(id)));
  for (const id of wanted) {
    if (there.includes(id)) continue;
    const free = await roomLeft();
    if (free !== null && free < SCANT) return;
    const answer = await fetch(`/api/files/${id}`);
    if (!answer.ok) continue;
    const blob = await answer.blob();
    await device.kept.put({ id, of: "seen", type: blob.type, bytes: await blob.arrayBuffer() });
  }
}

/** The round: works from what lies on the device, with a network or without. */
export function RoundApp({ theme }: { theme: "light" | "dark" }) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [came, setCame] = useState<Fetched["kind"] | "asking">("asking");
  const [asked, setAsked] = useState<readonly string[]>([]);
  const [sun, setSun] = useState(false);
  const [code, zone] = useHash();
  const online = useOnline();
  const device = opened?.device ?? null;
  const pack = opened?.pack ?? null;
  const sending = useSending(device, pack?.user ?? null);
  const counts = useCounts(device, pack?.user ?? null);

  useEffect(() => setNonce(document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? ""), []);
  useEffect(() => {
    setSun(localStorage.getItem("round-sun") === "yes");
    // Kept on the device for when there is no network; where it is refused, the page works with one.
    if (process.env.NODE_ENV === "production")
      navigator.serviceWorker?.register("/worker/sw.js", { scope: "/" }).catch(() => {});
    void openDevice().then(async (there) => {
      const packs = there ? await there.packs.toArray() : [];
      const last = [...packs].sort((a, b) => b.clock.serverMs - a.clock.serverMs)[0] ?? null;
      setOpened({ device: there, pack: last, packs });
      setAsked(last?.structures.map((s) => s.code) ?? []);
    });
  }, []);
  useEffect(() => {
    document.documentElement.dataset.theme = sun ? "light" : theme;
  }, [sun, theme]);

  const fetchNow = useCallback(
    async (codes: readonly string[]) => {
      setCame("asking");
      const got = await fetchPack(codes);
      setCame(got.kind);
      if (got.kind !== "fetched") return;
      if (device) {
        await keepPack(device, got.pack).catch(() => {});
        void fetchSeen(device, got.pack).catch(() => {});
      }
      setOpened((was) => was && { ...was, pack: got.pack });
    },
    [device],
  );
  // Fetched when it is stale, and again once everything is sent: what was captured then stands in it.
  const packMs = pack?.clock.serverMs ?? 0;
  const sentAll = sending.ended?.why === "sent" && counts.waiting === 0;
  const wanted = code && !pack?.structures.some((s) => s.code.toLowerCase() === code.toLowerCase()) ? code : null;
  const ready = opened !== null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked when it opens, when the network is back and for a structure that is not there
  useEffect(() => {
    if (!ready) return;
    if (wanted || Date.now() - (pack?.clock.deviceMs ?? 0) > STALE_MS || came === "not-reached")
      void fetchNow(wanted ? [...asked, wanted] : asked);
    else setCame("fetched");
  }, [ready, online, wanted]);
  const sentCount = useLiveQuery(
    async () => (device && pack ? device.captures.where("[user+state]").equals([pack.user, "sent"]).count() : 0),
    [device, pack?.user],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the last of them is sent
  useEffect(() => {
    if (sentAll && (sentCount ?? 0) > 0 && packMs > 0) void fetchNow(asked);
  }, [sentAll, sentCount]);

  if (!opened) return <Shell sun={sun}>Opening what lies on this device …</Shell>;
  const structure = pack?.structures.find((s) => s.code.toLowerCase() === code?.toLowerCase()) ?? null;
  const top = (
    <header className="grid gap-2 border-b border-rule pb-3">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <a
          className="link inline-flex min-h-11 items-center"
          href={structure ? (zone ? to(structure.code) : "#") : "/field"}
        >
          ‹ {structure ? (zone ? structure.name : "All structures") : "Field"}
        </a>
        <label className="flex min-h-11 items-center gap-2">
          <Tick
            name="sun"
            checked={sun}
            onChange={(on) => {
              setSun(on);
              localStorage.setItem("round-sun", on ? "yes" : "no");
            }}
          />{" "}
          In the sun
        </label>
      </div>
      <Unsent
        counts={counts}
        ended={sending.ended}
        busy={sending.busy}
        online={online}
        kick={() => void sending.kick()}
      />
      {!opened.device && (
        <p role="alert" className="m-0 text-out">
          This browser keeps nothing (private window, or storage is off). Stay where there is a network: each zone is
          sent as you record it, and without a network nothing can be kept.
        </p>
      )}
      {opened.device && !window.isSecureContext && (
        <p role="alert" className="m-0 text-watch">
          This address is not secure (http). What you capture is kept, but the browser does not keep this page itself:
          leave it open while there is no network, or have it served over https.
        </p>
      )}
      <Room device={opened.device} />
    </header>
  );
  if (!pack)
    return (
      <Shell sun={sun}>
        {top}
        <Nothing came={came} again={() => void fetchNow(asked)} />
      </Shell>
    );
  return (
    <PreferencesProvider
      value={{
        units: pack.units,
        theme: sun ? "light" : theme,
        shortcuts: false,
        timeZone: pack.timeZone,
        decimalMark: pack.decimalMark,
        who: pack.who,
        administers: false,
        setsUp: false,
      }}
    >
      <Shell sun={sun}>
        {top}
        {opened.device && (
          <Unsettled
            device={opened.device}
            user={pack.user}
            timeZone={pack.timeZone}
            again={() => void sending.kick()}
          />
        )}
        {structure ? (
          <Structure
            key={structure.code}
            device={opened.device}
            pack={pack}
            structure={structure}
            zone={zone}
            kept={() => void sending.kick()}
          />
        ) : (
          <Taken
            pack={pack}
            came={came}
            missing={code}
            online={online}
            fetchWith={(codes) => {
              setAsked(codes);
              void fetchNow(codes);
            }}
            asked={asked}
          />
        )}
        <div className="caution mt-6 grid gap-1.5">
          {cautions.field?.map((c) => (
            <p key={c} className="m-0">
              {c}
            </p>
          ))}
        </div>
      </Shell>
    </PreferencesProvider>
  );
}

function Shell({ sun, children }: { sun: boolean; children: ReactNode }) {
  return (
    <main
      className="mx-auto min-h-dvh max-w-[680px] bg-bench px-4 py-3"
      style={sun ? { zoom: 1.22, maxWidth: 560 } : undefined}
    >
      {children}
    </main>
  );
}

/** How much room the device has, where it is scant: said before anything is lost. */
function Room({ device }: { device: Device | null }) {
  const [free, setFree] = useState<number | null>(null);
  const kept = useLiveQuery(() => device?.kept.count() ?? 0, [device]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked again as photos come and go
  useEffect(() => void roomLeft().then(setFree), [kept]);
  if (!device || free === null || free > SCANT) return null;
  return (
    <p role="alert" className="m-0 text-watch">
      This device has {Math.round(free / 1e6)} MB left for photos, about {Math.floor(free / 0.8e6)} of them. Send what
      waits or free some room before you go on.
    </p>
  );
}

function Nothing({ came, again }: { came: Fetched["kind"] | "asking"; again: () => void }) {
  if (came === "asking") return <p className="mt-4">Taking along the structures that are due …</p>;
  return (
    <div className="mt-4 grid gap-3">
      {came === "signed-out" ? (
        <p className="m-0">
          Nobody is signed in here.{" "}
          <a className="btn pri" href="/sign-in?to=%2Fround">
            Sign in
          </a>
        </p>
      ) : came === "refused" ? (
        <p className="m-0">A round is walked by an inspector. Sign in as one.</p>
      ) : (
        <>
          <p className="m-0">
            Nothing was taken along on this device yet, and there is no network. Open this page once where there is one:
            the structures that are due come with it.
          </p>
          <p className="m-0">
            <button type="button" className="btn" onClick={again}>
              Try again
            </button>
          </p>
        </>
      )}
    </div>
  );
}

/** Structures by when they are due; those taken along can be walked without a network. */
function Taken({
  pack,
  came,
  missing,
  online,
  fetchWith,
  asked,
}: {
  pack: Pack;
  came: Fetched["kind"] | "asking";
  missing: string | null;
  online: boolean;
  fetchWith: (codes: readonly string[]) => void;
  asked: readonly string[];
}) {
  const [filter, setFilter] = useState("");
  const taken = new Set(pack.structures.map((s) => s.code));
  const words = filter.trim().toLowerCase();
  const shown = pack.lines.filter((l) => `${l.code} ${l.name} ${l.site} ${l.customer}`.toLowerCase().includes(words));
  const now = new Date(Date.now() - pack.clock.deviceMs + pack.clock.serverMs);
  return (
    <>
      <h1 className="mt-3">Structures</h1>
      <p className="m-0">
        {pack.name}. Taken along {dateAndTime(new Date(pack.clock.serverMs), pack.timeZone)}:{" "}
        {countOf(taken.size, "structure")} with all their zones.
      </p>
      <p className="m-0 mt-2">
        {came === "asking" ? (
          <span className="soft">Fetching …</span>
        ) : came === "signed-out" ? (
          <a className="btn" href="/sign-in?to=%2Fround">
            Sign in to fetch anew
          </a>
        ) : (
          <button type="button" className="btn" disabled={!online} onClick={() => fetchWith(asked)}>
            Fetch anew
          </button>
        )}
      </p>
      {missing && came !== "asking" && (
        <p role="alert" className="text-watch">
          {missing} is not among what was taken along, and cannot be fetched now. Look for it below once there is a
          network.
        </p>
      )}
      <div className="field mt-3">
        <label htmlFor="round-find">Find by name, site, customer or code</label>
        <input
          id="round-find"
          className="input"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
          autoComplete="off"
        />
      </div>
      {shown.length === 0 && (
        <p className="py-3">{words ? `No structure is called “${filter}”.` : "No structure is on record yet."}</p>
      )}
      <div className="ruled mt-3">
        {shown.map((l) => {
          const late = new Date(l.due.at) <= now;
          return (
            <div key={l.code} className="row min-h-[64px] grid-cols-[minmax(0,1fr)_auto] items-center">
              <span>
                <b className="text-[17px]">{l.name}</b>
                <span className="small soft block">
                  {l.site} · {l.code}
                </span>
                <Verdict result={late ? "watch" : "in"}>
                  {l.due.why === "never-seen"
                    ? "Never looked at"
                    : `${late ? "Due since" : "Due"} ${dayMonthYear(new Date(l.due.at), pack.timeZone)}`}
                </Verdict>
                <span className="small soft block">{visitDueName[l.due.why]}</span>
              </span>
              {taken.has(l.code) ? (
                <a className="btn pri" href={to(l.code)}>
                  Walk it
                </a>
              ) : (
                <button
                  type="button"
                  className="btn"
                  disabled={!online}
                  onClick={() => fetchWith([...new Set([...asked, l.code])])}
                >
                  Take along
                </button>
              )}
            </div>
          );
        })}
      </div>
    </>
  );
}

/** One structure: its zones in the order of the round, or one of them to capture. */
function Structure({
  device,
  pack,
  structure,
  zone: asked,
  kept,
}: {
  device: Device | null;
  pack: Pack;
  structure: PackStructure;
  zone: string | null;
  kept: () => void;
}) {
  const [memory] = useState(() => structure.round.id);
  const key = `${pack.user} ${structure.code}`;
  const round = useLiveQuery(async () => {
    if (!device) return memory;
    const begun = await device.rounds.get(key);
    return begun && Math.abs(Date.now() - begun.begunMs) < ROUND_MS ? begun.id : null;
  }, [device, key]);
  useEffect(() => {
    if (round !== null || !device) return;
    // Taken up from another device where that has begun it, else one of its own.
    const open = Date.now() - pack.clock.deviceMs < ROUND_MS && structure.round.done.length > 0;
    void device.rounds.put({ key, id: open ? structure.round.id : uuidv7(), begunMs: Date.now() });
  }, [round, device, key, pack, structure]);
  const [direct, setDirect] = useState<ReadonlySet<string>>(new Set());
  const here = useLiveQuery(
    async () =>
      device && round
        ? (
            await device.captures.where("[user+structure+round]").equals([pack.user, structure.code, round]).toArray()
          ).map((c) => ({ zone: c.zone, state: c.state }))
        : [],
    [device, round, pack.user, structure.code],
  );
  const keeper = useMemo(() => {
    if (!round) return null;
    const of = { user: pack.user, structure: structure.code, round, clock: pack.clock };
    return device ? deviceKeeper(device, of, kept) : directKeeper(of, transport);
  }, [device, round, pack.user, pack.clock, structure.code, kept]);
  const shown = structure.zones.find((z) => z.name === asked)?.photo ?? null;
  const before = useLiveQuery(async () => {
    const there = shown && device ? await device.kept.get(shown.fileId) : undefined;
    return there ? new Blob([there.bytes], { type: there.type }) : null;
  }, [device, shown?.fileId]);
  if (!round || !keeper || here === undefined) return <p className="mt-4">Opening the round …</p>;
  const stateOf = (name: string) => here.filter((c) => c.zone === name).at(-1)?.state ?? null;
  const done = (name: string) =>
    stateOf(name) !== null || direct.has(name) || (round === structure.round.id && structure.round.done.includes(name));
  const { zones } = structure;
  const zone = zones.find((z) => z.name === asked) ?? null;
  const left = zones.filter((z) => !done(z.name));
  const next = (after: PackZone): string => {
    const at = zones.indexOf(after);
    const goes = [...zones.slice(at + 1), ...zones.slice(0, at)].find((z) => !done(z.name));
    return goes ? to(structure.code, goes.name) : to(structure.code);
  };
  return (
    <>
      <div className="small soft mt-3">
        {structure.site} · {structure.customer}
      </div>
      <h1 className="m-0">{zone ? zone.name : structure.name}</h1>
      <p className="m-0" role="status">
        {zones.length - left.length} of {countOf(zones.length, "zone")} done
        {zone ? "" : structure.exposure ? `; ${structure.exposure}` : ""}
      </p>
      {zones.length === 0 && (
        <p>
          No zone is on record. Put its zones on record first, at its page: edges, seams, feet, a sheltered place to
          compare with.{" "}
          <a className="btn" href={`/field/${encodeURIComponent(structure.code.toLowerCase())}`}>
            Its page
          </a>
        </p>
      )}
      {zone ? (
        <>
          <p className="mt-2 mb-0">
            {zone.place}. <span className="soft">Last: {zone.last}.</span>
          </p>
          {zone.visits.length > 1 && (
            <ul className="small soft m-0 mt-1 pl-4">
              {zone.visits.map((v) => (
                <li key={`${v.at} ${v.by}`}>
                  {dayMonthYear(new Date(v.at), pack.timeZone)}, {v.by}: {v.said}
                </li>
              ))}
            </ul>
          )}
          {stateOf(zone.name) && (
            <p className="m-0 mt-2 text-watch">
              Captured in this round already; what you record now is kept beside it.
            </p>
          )}
          <div className="mt-4">
            <CaptureForm
              key={`${zone.name} ${round}`}
              structure={structure.code}
              zone={zone.name}
              round={round}
              seamMm={zone.lengthMm}
              keeper={keeper}
              before={
                before ? { blob: before, when: dayMonthYear(new Date(zone.photo?.at ?? 0), pack.timeZone) } : null
              }
              next={() => {
                if (!device) setDirect((was) => new Set([...was, zone.name]));
                window.location.hash = next(zone);
                window.scrollTo(0, 0);
              }}
            />
          </div>
        </>
      ) : (
        <>
          {left[0] && (
            <p className="mt-3">
              <a className="btn pri" href={to(structure.code, left[0].name)}>
                {left.length === zones.length ? "Begin with" : "Go on with"} {left[0].name}
              </a>
            </p>
          )}
          {zones.length > 0 && left.length === 0 && (
            <p className="mt-3">
              <b>Every zone is done.</b>{" "}
              <a className="btn" href={`/field/${encodeURIComponent(structure.code.toLowerCase())}`}>
                See how it stands
              </a>
            </p>
          )}
          <nav aria-label="Zones" className="ruled mt-3">
            {zones.map((z) => {
              const state = stateOf(z.name);
              return (
                <a
                  key={z.name}
                  href={to(structure.code, z.name)}
                  className="row min-h-[60px] grid-cols-[minmax(0,1fr)_auto] items-center text-ink no-underline"
                >
                  <span>
                    <b className="text-[17px]">{z.name}</b>
                    <span className="small soft block">{z.place}</span>
                    <span className="small block">{z.last}</span>
                  </span>
                  <span className="text-right">
                    <b>{done(z.name) ? "✓ done" : ""}</b>
                    <span className="small soft block">
                      {state === null || state === "sent" ? "" : state === "waiting" ? "not sent yet" : "needs you"}
                    </span>
                    {!done(z.name) && (
                      <span className="small inline-flex items-baseline gap-1">
                        <Shape result={z.protection} /> protection
                      </span>
                    )}
                  </span>
                </a>
              );
            })}
          </nav>
        </>
      )}
    </>
  );
}
