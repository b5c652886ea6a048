"use client";
import { useState } from "react";
import { countOf, dateAndTime, dayMonthYear } from "../format";
import { Verdict } from "../marks/verdict";
import { visitDueName } from "../words/field-zones";
import type { Fetched } from "./fetch-pack";
import { to } from "./hash";
import type { Pack } from "./pack";

/** Structures by when they are due; those taken along can be walked without a network. */
export function Taken({
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
