"use client";
import { useLiveQuery } from "dexie-react-hooks";
import { useState } from "react";
import { dateAndTime } from "../format";
import { Shape } from "../marks/verdict";
import { failureText } from "../words/failures";
import { type Capture, type Device, giveDay } from "./device";

/** Captures that need their person: of which the day is asked, or that were refused. None leaves by itself. */
export function Unsettled({
  device,
  user,
  timeZone,
  again,
}: {
  device: Device;
  user: string;
  timeZone: string;
  again: () => void;
}) {
  const rows =
    useLiveQuery(
      () =>
        device.captures
          .where("[user+state]")
          .anyOf([
            [user, "asks-day"],
            [user, "refused"],
          ])
          .sortBy("seq"),
      [device, user],
    ) ?? [];
  if (rows.length === 0) return null;
  return (
    <section className="ruled mt-4" aria-label="Captures that need you">
      <h2>These need you</h2>
      {rows.map((c) => (
        <Unsettled1 key={c.seq} capture={c} device={device} timeZone={timeZone} again={again} />
      ))}
    </section>
  );
}

/** The readings of a capture with nothing that names a photo. */
const withoutPhotos = (entry: Capture["entry"]): Capture["entry"] =>
  entry?.kind === "zone-visit"
    ? {
        ...entry,
        photos: [],
        flake: entry.flake ? { ...entry.flake, frontPhoto: null, backPhoto: null } : null,
      }
    : entry;

function Unsettled1({
  capture,
  device,
  timeZone,
  again,
}: {
  capture: Capture;
  device: Device;
  timeZone: string;
  again: () => void;
}) {
  const [day, setDay] = useState("");
  const [sure, setSure] = useState(false);
  const retry = async (over: Partial<Capture>) => {
    await device.captures.update(capture.seq, { state: "waiting", failure: null, ...over });
    again();
  };
  return (
    <div className="row grid gap-2 py-3">
      <p className="m-0">
        <Shape result="out" label={false} />{" "}
        <b>
          {capture.structure}, {capture.zone}
        </b>{" "}
        <span className="soft">captured {dateAndTime(new Date(capture.capturedMs), timeZone)} by this device</span>
      </p>
      {capture.failure && <p className="m-0 text-out">{failureText(capture.failure)}</p>}
      {capture.state === "asks-day" ? (
        <p className="m-0 flex flex-wrap items-end gap-3">
          <span className="field">
            <label htmlFor={`day-${capture.seq}`}>Day it was captured</label>
            <input
              id={`day-${capture.seq}`}
              type="datetime-local"
              className="input num"
              value={day}
              onChange={(e) => setDay(e.target.value)}
            />
          </span>
          <button
            type="button"
            className="btn pri"
            disabled={Number.isNaN(new Date(day).getTime())}
            onClick={async () => {
              await giveDay(device, capture.seq, new Date(day).toISOString());
              again();
            }}
          >
            That was the day
          </button>
        </p>
      ) : (
        <p className="m-0 flex flex-wrap gap-3">
          <button type="button" className="btn" onClick={() => retry({})}>
            Send it again
          </button>
          {capture.photos.some((p) => !p.sent) && (
            <button
              type="button"
              className="btn"
              onClick={() => retry({ photos: [], entry: withoutPhotos(capture.entry) })}
            >
              Send it without its photos
            </button>
          )}
          {sure ? (
            <button
              type="button"
              className="btn"
              onClick={async () => {
                await device.kept.bulkDelete(capture.photos.map((p) => p.id));
                await device.captures.delete(capture.seq);
              }}
            >
              Yes, throw this capture away for good
            </button>
          ) : (
            <button type="button" className="btn" onClick={() => setSure(true)}>
              Throw it away
            </button>
          )}
        </p>
      )}
    </div>
  );
}
