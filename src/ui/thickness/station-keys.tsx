import { Choice } from "../fields/choice";
import type { SoundKind } from "./reading-sound";
import { SoundChoice } from "./sound-choice";
import type { useGauge } from "./use-gauge";

/** What the hand reaches for at the film station: record, the gauge, undo, its sound. */
export function StationKeys({
  fresh,
  busy,
  record,
  gauge,
  gauges,
  chooseGauge,
  reader,
  start,
  stop,
  fetchBatch,
  startSerial,
  undo,
  sound,
  changeSound,
  message,
}: {
  /** Readings not recorded yet. */
  fresh: number;
  busy: boolean;
  record: () => void;
  gauge: string;
  gauges: readonly string[];
  chooseGauge: (gauge: string) => void;
  /** `more` is whether a spot is left to read. */
  reader: {
    readonly state: ReturnType<typeof useGauge>["state"];
    readonly streaming: boolean;
    readonly canSerial: boolean;
    readonly more: boolean;
  };
  start: () => void;
  stop: () => void;
  fetchBatch: () => void;
  startSerial: () => void;
  undo: () => void;
  sound: SoundKind;
  changeSound: (sound: SoundKind) => void;
  message: { readonly good: boolean; readonly text: string } | null;
}) {
  const { state, streaming, canSerial, more } = reader;
  return (
    <div className="no-print mt-4 flex flex-wrap items-center gap-3">
      <button type="button" className="btn pri" onClick={record} disabled={fresh === 0 || busy}>
        {busy
          ? "Recording …"
          : fresh === 0
            ? "Nothing new to record"
            : `Record ${fresh} ${fresh === 1 ? "reading" : "readings"}`}
      </button>
      <button type="button" className="btn" onClick={streaming ? stop : start} disabled={!more && !streaming}>
        {streaming ? "Stop the gauge" : `Start gauge ${gauge}`}
      </button>
      <button type="button" className="btn" disabled={!more || state !== "off"} onClick={fetchBatch}>
        {state === "batch" ? "Fetching …" : "Fetch its batch"}
      </button>
      {canSerial && (
        <button type="button" className="btn" disabled={!more || state !== "off"} onClick={startSerial}>
          Gauge on this computer
        </button>
      )}
      {fresh > 0 && (
        <button type="button" className="btn" onClick={undo}>
          Undo last
        </button>
      )}
      <SoundChoice label="each reading" sound={sound} change={changeSound} />
      {gauges.length > 1 && (
        <label className="small soft inline-flex min-h-11 items-center gap-1.5">
          gauge
          <Choice className="input" value={gauge} onChange={chooseGauge}>
            {gauges.map((g) => (
              <option key={g}>{g}</option>
            ))}
          </Choice>
        </label>
      )}
      {message && <output className={message.good ? "text-in" : "text-out"}>{message.text}</output>}
    </div>
  );
}
