"use client";
import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useMemo, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { CaptureForm } from "../field/capture-form";
import { countOf, dayMonthYear } from "../format";
import { Shape } from "../marks/verdict";
import type { Device } from "./device";
import { to } from "./hash";
import { deviceKeeper, directKeeper } from "./keeper";
import type { Pack, PackStructure, PackZone } from "./pack";
import { transport } from "./use-sending";

/** A round is taken up again within so long; later it is another, ms. */
const ROUND_MS = 18 * 3_600_000;

/** One structure: its zones in the order of the round, or one of them to capture. */
export function StructureRound({
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
