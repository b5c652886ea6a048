"use client";
import { type FormEvent, useEffect, useRef, useState } from "react";
import type { StrangeReading } from "@/core/thickness";
import type { ManyOutcome as Outcome } from "@/server/imports/import-many";
import { Choice } from "../fields/choice";
import Link from "../link";
import { failureText } from "../words/failures";
import { AskedList } from "./asked-list";

type Failure = { readonly kind: string; readonly [detail: string]: unknown };
const MB = 1e6;

/** The last line of the answer carries what came of it. */
function outcomeOf(text: string): Outcome {
  const last = text.trim().split("\n").at(-1) ?? "";
  try {
    const said = JSON.parse(last) as { outcome?: Outcome } & Failure;
    return said.outcome ?? { ok: false, failure: said };
  } catch {
    return { ok: false, failure: { kind: "not-saved" } };
  }
}

/** A history of readings in one file: read as it goes up, stored whole or not at all, and stopped at any moment. */
export function ManyReadingsForm() {
  const request = useRef<XMLHttpRequest | null>(null);
  const [sent, setSent] = useState<{ readonly bytes: number; readonly of: number } | null>(null);
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  useEffect(() => () => request.current?.abort(), []);
  const element = useRef<HTMLFormElement>(null);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    send(false);
  };
  const send = (sure: boolean) => {
    const form = new FormData(element.current ?? undefined);
    const file = form.get("many");
    if (!(file instanceof File) || file.size === 0) return;
    const query = new URLSearchParams(sure ? { sure: "yes" } : {});
    for (const name of ["rack", "unit"]) {
      const value = String(form.get(`many-${name}`) ?? "").trim();
      if (value !== "") query.set(name, value);
    }
    const xhr = new XMLHttpRequest();
    request.current = xhr;
    setOutcome(null);
    setSent({ bytes: 0, of: file.size });
    xhr.upload.onprogress = (p) => setSent({ bytes: p.loaded, of: file.size });
    const done = (result: Outcome) => {
      request.current = null;
      setSent(null);
      setOutcome(result);
    };
    xhr.onload = () => done(outcomeOf(xhr.responseText));
    xhr.onerror = () => done({ ok: false, failure: { kind: "not-saved" } });
    xhr.onabort = () => done({ ok: false, failure: { kind: "import-stopped" } });
    xhr.open("POST", `/api/imports/readings?${query}`);
    xhr.setRequestHeader("content-type", "text/plain");
    xhr.send(file);
  };
  const failure = outcome && !outcome.ok ? outcome.failure : null;
  const problems = Array.isArray(failure?.problems)
    ? (failure.problems as { line: number; why: string; text: string }[])
    : [];
  const asked = Array.isArray(failure?.asked)
    ? (failure.asked as { line: number; text: string; strange: StrangeReading }[])
    : [];
  return (
    <form ref={element} onSubmit={submit} className="grid gap-3">
      <p className="soft m-0">
        A table with a heading and columns for film and spot, and for the rack where it holds several. A million
        readings take some seconds; all of them are stored, or none.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <div className="field w-[340px]">
          <label htmlFor="many">File of readings</label>
          <input id="many" name="many" type="file" accept=".csv,.tsv,.txt,text/*" className="input" required />
        </div>
        <div className="field w-[150px]">
          <label htmlFor="many-rack">Rack, if it names none</label>
          <input id="many-rack" name="many-rack" className="input" maxLength={20} />
        </div>
        <div className="field w-[150px]">
          <label htmlFor="many-unit">Unit, if it names none</label>
          <Choice id="many-unit" name="many-unit" className="input">
            <option value="">as in the file</option>
            <option value="um">µm</option>
            <option value="mil">mil</option>
          </Choice>
        </div>
        {sent === null ? (
          <button key="send" type="submit" className="btn pri">
            Import all of it
          </button>
        ) : (
          // A button of its own: one that turned into the other while it is pressed would send the file again.
          <button key="stop" type="button" className="btn" onClick={() => request.current?.abort()}>
            Stop, keep nothing
          </button>
        )}
      </div>
      {sent && (
        <p className="m-0 flex items-center gap-3" role="status">
          <progress className="h-3 w-[280px]" value={sent.bytes} max={sent.of} aria-label="Read so far" />
          <span className="fig">
            {(sent.bytes / MB).toFixed(1)} of {(sent.of / MB).toFixed(1)} MB
          </span>
          {sent.bytes >= sent.of && <span className="soft">storing …</span>}
        </p>
      )}
      {outcome?.ok && (
        <output className="text-in">
          {outcome.already
            ? "This file was imported before: nothing was stored twice."
            : `${outcome.readings.toLocaleString("en-GB")} readings on ${outcome.racks} ${outcome.racks === 1 ? "rack" : "racks"} stored${outcome.leftOut > 0 ? `; ${outcome.leftOut} marked as none were left out` : ""}.`}{" "}
          <Link className="link" href="/records">
            To the records
          </Link>
        </output>
      )}
      {failure && (
        <div role="alert" className="border-l-4 border-out pl-3 text-out">
          {failureText(failure)}
          {problems.map((p) => (
            <p key={p.line} className="m-0">
              line {p.line}: “{p.text}”, {p.why}
            </p>
          ))}
        </div>
      )}
      {asked.length > 0 && (
        <>
          <AskedList asked={asked} count={Number(failure?.count ?? asked.length)} />
          <button type="button" className="btn justify-self-start" onClick={() => send(true)}>
            They stand as read: import all of it
          </button>
        </>
      )}
    </form>
  );
}
