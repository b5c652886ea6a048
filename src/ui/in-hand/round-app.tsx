"use client";
import { useLiveQuery } from "dexie-react-hooks";
import { setNonce } from "get-nonce";
import { type ReactNode, useCallback, useEffect, useState, useSyncExternalStore } from "react";
import { Tick } from "../fields/tick";
import { PreferencesProvider } from "../preferences-context";
import { cautions } from "../words/cautions";
import { type Device, keepPack, roomLeft, SCANT } from "./device";
import { type Fetched, fetchPack, fetchSeen } from "./fetch-pack";
import { to, useHash } from "./hash";
import { openDevice } from "./open-device";
import type { Pack } from "./pack";
import { StructureRound } from "./structure-round";
import { Taken } from "./taken";
import { Unsent, useCounts } from "./unsent";
import { Unsettled } from "./unsettled";
import { useSending } from "./use-sending";

/** A pack older than this is fetched anew when there is a network, ms. */
const STALE_MS = 10 * 60_000;

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

type Opened = { readonly device: Device | null; readonly pack: Pack | null };
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
      setOpened({ device: there, pack: last });
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
          <StructureRound
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
