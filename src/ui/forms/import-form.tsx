"use client";
import { type FormEvent, useRef, useState } from "react";
import { type FileKind, nearestTimeOfDay, type TraceLayout } from "@/core/instrument-files";
import type { ImportOutcome } from "@/server/imports/import-file";
import type { TraceLoad } from "@/server/imports/trace-target";
import type { TraceAsked } from "@/server/imports/understand-file";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { dateAndTime } from "../format";
import { isQuestion } from "../frame/line-actions";
import { usePreferences } from "../preferences-context";
import { traceFaultWords } from "../words/cure";
import { failureText } from "../words/failures";
import { AskedList } from "./asked-list";
import { SetAside } from "./set-aside";
import { TraceColumns } from "./trace-columns";
import { ORDER_OF_WORK } from "./use-recorder";

const kindsAsked: readonly (readonly [FileKind, string])[] = [
  ["gauge", "Film readings"],
  ["oven", "An oven trace"],
  ["bath", "A bath log"],
];
const loadSaid = (l: TraceLoad): string =>
  `${l.loadNo}, ${l.oven}: in ${l.doorLocal.slice(5, 16).replace("T", " ")}${l.pulledLocal ? `, out ${l.pulledLocal.slice(11, 16)}` : ", still in"}; rack ${l.racks.map((r) => r.number).join(", ")}`;
/** When a trace of a load began: its door, or the file's time of day nearest to it. */
const startIn = (doorLocal: string, timeOfDayS: number | null): string => {
  if (timeOfDayS === null) return doorLocal;
  const door = Date.parse(`${doorLocal}Z`);
  return new Date(nearestTimeOfDay(door, timeOfDayS)).toISOString().slice(0, 19);
};

/** Two steps: what was understood, then store all or nothing. */
export function ImportForm({
  upload,
  ovens,
}: {
  upload: (form: FormData) => Promise<ImportOutcome>;
  ovens: readonly string[];
}) {
  const { units, timeZone } = usePreferences();
  /** How a trace's columns are read, where somebody said so; and the load it is of. */
  const [layout, setLayout] = useState<TraceLayout | null>(null);
  const [load, setLoad] = useState<string | null>(null);
  const [start, setStart] = useState("");
  const [inSpite, setInSpite] = useState("");
  const form = useRef<HTMLFormElement>(null);
  const [outcome, setOutcome] = useState<ImportOutcome | null>(null);
  const [busy, setBusy] = useState<"read" | "store" | null>(null);
  /** A value that looks like a slip was asked about: it is kept once it was looked at. */
  const [asks, setAsks] = useState(false);
  /** What was refused for its order of work may be set aside. */
  const [order, setOrder] = useState(false);
  const [storeFailure, setStoreFailure] = useState<string | null>(null);
  const fromRecorder = async () => {
    const response = await fetch("/api/instruments/oven-recorder").catch(() => null);
    if (!response?.ok) return setOutcome({ ok: false, failure: { kind: "no-recorder" } });
    const files = new DataTransfer();
    files.items.add(new File([await response.text()], "recorder.csv", { type: "text/csv" }));
    const input = form.current?.elements.namedItem("file");
    if (input instanceof HTMLInputElement) input.files = files.files;
    anew();
    await send(false, { spite: "", read: null });
  };
  const choose = (recordId: string, loads: readonly TraceLoad[], timeOfDayS: number | null) => {
    setLoad(recordId);
    const chosen = loads.find((l) => l.recordId === recordId);
    if (chosen) setStart(startIn(chosen.doorLocal, timeOfDayS));
  };
  const anew = () => {
    setOutcome(null);
    setStoreFailure(null);
    setInSpite("");
    setLayout(null);
    setLoad(null);
    setStart("");
  };
  const send = async (
    store: boolean,
    {
      spite = inSpite,
      leftOut = "",
      read = layout,
      kind = "",
    }: { spite?: string; leftOut?: string; read?: TraceLayout | null; kind?: string } = {},
  ) => {
    if (!form.current || busy) return;
    const data = new FormData(form.current);
    const file = data.get("file");
    if (file instanceof File) data.set("size", String(file.size));
    if (store) data.set("store", "yes");
    if (spite) data.set("inSpite", spite);
    if (leftOut) data.set("leftOut", leftOut);
    if (read) data.set("layout", JSON.stringify(read));
    if (kind) data.set("kind", kind);
    if (load) data.set("load", load);
    setBusy(store ? "store" : "read");
    const next = await upload(data).catch((): ImportOutcome => ({ ok: false, failure: { kind: "not-saved" } }));
    setBusy(null);
    // When storing is refused, what was understood stays on screen with the reason beside it.
    setStoreFailure(
      !next.ok && store
        ? `${next.failure.line ? `Round ${String(next.failure.line)} of the file: ` : ""}${failureText(next.failure)}`
        : null,
    );
    setOrder(!next.ok && store && ORDER_OF_WORK.has(next.failure.kind));
    if (!next.ok && store) setAsks(isQuestion(next.failure.kind));
    if (next.ok || !store) setOutcome(next);
    const proposed = next.ok && !store ? next.understood.proposed : null;
    if (proposed && load === null) {
      setLoad(proposed.load ?? "");
      setStart(proposed.startLocal ?? "");
    }
  };
  const readAs = (next: TraceLayout) => {
    setLayout(next);
    void send(false, { read: next, kind: "oven" });
  };
  const failure = outcome && !outcome.ok ? outcome.failure : null;
  const understood = outcome?.ok ? outcome.understood : null;
  const chosen = understood?.loads.find((l) => l.recordId === load) ?? null;
  const problems = Array.isArray(failure?.problems)
    ? (failure.problems as { line: number; why: string; text: string }[])
    : [];
  return (
    <form
      ref={form}
      className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-4"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        void send(false);
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        <div className="field w-[340px] max-w-full">
          <label htmlFor="file">File</label>
          <input
            id="file"
            name="file"
            type="file"
            accept=".csv,.tsv,.txt,.xlsx,text/*"
            className="input"
            required
            onChange={anew}
          />
        </div>
        <button type="submit" className="btn pri" disabled={busy !== null}>
          {busy === "read" ? "Reading …" : "Read it"}
        </button>
        <button type="button" className="btn" disabled={busy !== null} onClick={() => void fromRecorder()}>
          Take it from the oven recorder
        </button>
      </div>
      {failure?.kind === "file-of-two-kinds" && (
        <div className="flex flex-wrap gap-2">
          {kindsAsked.map(([kind, words]) => (
            <button
              key={kind}
              type="button"
              className="btn"
              disabled={busy !== null}
              onClick={() => void send(false, { kind })}
            >
              {words}
            </button>
          ))}
        </div>
      )}
      {failure?.kind === "unit-unknown" && failure.of !== "oven" && (
        <div className="field w-52">
          <label htmlFor="unit">Unit of the readings</label>
          <Choice id="unit" name="unit" className="input">
            <option value="um">µm</option>
            <option value="mil">mil</option>
          </Choice>
        </div>
      )}
      {failure?.kind === "ambiguous-dates" && !failure.asked && (
        <div className="field w-52">
          <label htmlFor="dates">Dates are</label>
          <Choice id="dates" name="dates" className="input">
            <option value="day">day first</option>
            <option value="month">month first</option>
          </Choice>
        </div>
      )}
      {failure && (
        <div role="alert" className="border-l-4 border-out pl-3">
          <p className="font-bold text-out">{failureText(failure)}</p>
          {problems.slice(0, 30).map((p) => (
            <div key={`${p.line}${p.text}`} className="row max-w-[640px] grid-cols-[80px_120px_1fr]">
              <span className="fig">line {p.line}</span>
              <span className="fig">{p.text.slice(0, 24)}</span>
              <span>{p.why}</span>
            </div>
          ))}
          {problems.length > 30 && <p className="soft">and {problems.length - 30} more lines</p>}
        </div>
      )}
      {failure?.asked !== undefined && <TraceColumns asked={failure.asked as TraceAsked} racks={[]} change={readAs} />}
      {understood && outcome?.ok && (
        <>
          {understood.trace && outcome.stored === null && (
            <TraceColumns asked={understood.trace} racks={chosen?.racks ?? []} change={readAs} />
          )}
          <div className="ruled grid grid-cols-[minmax(0,380px)_minmax(0,1fr)] gap-8 max-[900px]:grid-cols-1">
            <div>
              <h2>
                Understood as{" "}
                {{ gauge: "film gauge readings", oven: "an oven trace", bath: "a bath log" }[understood.kind]}
              </h2>
              {[
                ...(understood.writtenAs ? [["Written as", understood.writtenAs] as const] : []),
                ...(understood.sheetsLeftOut.length > 0
                  ? [["Sheets left out", understood.sheetsLeftOut.join(", ")] as const]
                  : []),
                ...(understood.remembered
                  ? [
                      [
                        "Columns",
                        `as ${understood.remembered.by} had them read, ${dateAndTime(new Date(understood.remembered.at), timeZone)}`,
                      ] as const,
                    ]
                  : []),
                ...understood.lines,
              ].map(([name, value]) => (
                <div key={name} className="row grid-cols-[150px_minmax(0,1fr)]">
                  <span className="soft">{name}</span>
                  <span className="fig">{value}</span>
                </div>
              ))}
              {understood.asked.length > 0 && (
                <>
                  <h2 className="mt-4 text-watch">Unlike the ones beside them</h2>
                  <AskedList asked={understood.asked} count={understood.asked.length} />
                </>
              )}
              {understood.faults.length > 0 && (
                <>
                  <h2 className="mt-4 text-watch">Looks wrong</h2>
                  {understood.faults.map((f) => (
                    <div key={f.kind + ("channel" in f ? f.channel : "")} className="mt-1">
                      {traceFaultWords(f, units)}
                      {f.kind === "fahrenheit-as-celsius" && (
                        <button
                          type="button"
                          className="btn mt-1 block"
                          onClick={() => {
                            setInSpite("degF");
                            void send(false, { spite: "degF" });
                          }}
                        >
                          Read it as °F
                        </button>
                      )}
                    </div>
                  ))}
                </>
              )}
              {understood.leftOut.length > 0 && (
                <>
                  <h2 className="mt-4">Left out</h2>
                  {understood.leftOut.slice(0, 20).map((l) => (
                    <div key={l.line} className="row grid-cols-[70px_110px_minmax(0,1fr)]">
                      <span className="fig">line {l.line}</span>
                      <span>{l.why}</span>
                      <span className="fig small faint truncate">{l.text}</span>
                    </div>
                  ))}
                </>
              )}
            </div>
            <div className="max-h-[340px] overflow-auto">
              <table className="w-full border-collapse text-[13.5px]">
                <thead>
                  <tr className="small soft text-left">
                    {understood.columns.map((c) => (
                      <th key={c} className="sticky top-0 bg-bench py-1 pr-3 font-normal">
                        {c}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {understood.sample.slice(0, 200).map((row) => (
                    <tr key={row.join("|")} className="border-t border-rule">
                      {row.map((cell, i) => (
                        <td key={understood.columns[i]} className="fig py-1 pr-3">
                          {cell}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </div>
          {outcome.stored === null ? (
            <div className="flex flex-wrap items-end gap-3">
              {understood.kind === "oven" && understood.loads.length > 0 && (
                <div className="field w-[430px] max-w-full">
                  <label htmlFor="trace-load">Load it is of</label>
                  <Choice
                    id="trace-load"
                    className="input"
                    value={load ?? ""}
                    onChange={(id) => choose(id, understood.loads, understood.timeOfDayS)}
                  >
                    <option value="">none of these: of a rack</option>
                    {understood.loads.map((l) => (
                      <option key={l.recordId} value={l.recordId}>
                        {loadSaid(l)}
                      </option>
                    ))}
                  </Choice>
                </div>
              )}
              {understood.needs.includes("rack") && !chosen && (
                <div className="field w-32">
                  <label htmlFor="rack">For rack</label>
                  <input id="rack" name="rack" className="input fig" required />
                </div>
              )}
              {understood.kind === "oven" && !chosen && (
                <div className="field w-32">
                  <label htmlFor="place">Place in oven</label>
                  <input id="place" name="place" className="input" />
                </div>
              )}
              {understood.kind === "oven" && !chosen && ovens.length > 1 && (
                <div className="field w-32">
                  <label htmlFor="import-oven">Oven</label>
                  <Choice id="import-oven" name="oven" className="input">
                    {ovens.map((o) => (
                      <option key={o}>{o}</option>
                    ))}
                  </Choice>
                </div>
              )}
              {understood.kind === "oven" && (
                <div className="field w-60">
                  <label htmlFor="startedLocal">
                    Trace began{" "}
                    <span className="soft">
                      {understood.proposed?.startFrom === "file"
                        ? "as the file says"
                        : chosen
                          ? "as its door closed"
                          : "by the shop's clock"}
                    </span>
                  </label>
                  <input
                    id="startedLocal"
                    name="startedLocal"
                    type="datetime-local"
                    step="1"
                    className="input"
                    required
                    value={start}
                    onChange={(e) => setStart(e.target.value)}
                  />
                </div>
              )}
              {(understood.asked.length > 0 || asks) && (
                <label className="flex min-h-11 items-center gap-2">
                  <Tick name="sure" value="yes" required /> looked at, they stand as read
                </label>
              )}
              <button
                type="button"
                className="btn pri"
                disabled={busy !== null}
                onClick={() => {
                  if (form.current?.reportValidity()) void send(true);
                }}
              >
                {busy === "store" ? "Storing …" : "Store all of it"}
              </button>
            </div>
          ) : (
            <p role="status" className="font-bold text-in">
              {outcome.already
                ? "This file is already on record for this target; nothing was stored twice."
                : `${outcome.stored} ${understood.kind === "oven" ? "samples" : "readings"} stored.`}
            </p>
          )}
          {storeFailure && (
            <p role="alert" className="text-out">
              {storeFailure}
            </p>
          )}
          <SetAside setAside={order ? (reason) => send(true, { leftOut: reason }) : null} busy={busy !== null} />
        </>
      )}
    </form>
  );
}
