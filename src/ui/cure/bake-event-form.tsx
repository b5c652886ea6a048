"use client";
import { type FormEvent, useState } from "react";
import {
  type BakeEventKind,
  type CoolingMethod,
  coolingMethods,
  type InfraredAim,
  infraredAims,
  infraredDoubt,
  isHardCooling,
} from "@/core/cure";
import { fahrenheitToC } from "@/core/units";
import { Choice } from "../fields/choice";
import { Recorded } from "../forms/recorded";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { aimName, bakeEventName, coolingName, doubtWords } from "../words/cure";
import { failureText } from "../words/failures";

const taps = ["melted", "touched-up", "door-opened", "door-shut", "heat-off"] as const;

/** What happens to a load, each in one tap; a reading by infrared with where it was pointed; plugs counted out. */
export function BakeEventForm({
  oven,
  load,
  plugsIn,
  pulled,
  racks = [],
}: {
  oven: string;
  load: string;
  /** Plugs and masks that went in, all racks together; null where nobody counted. */
  plugsIn: number | null;
  pulled: boolean;
  /** Of several racks in the load, the slowest to cool first: a reading says which of them was read. */
  racks?: readonly string[];
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`bake event ${oven} ${load}`, {
    value: "",
    emissivity: "0.95",
    aim: "coated-part" as InfraredAim,
    plugs: "",
    setTo: "",
    onRack: racks[0] ?? "",
    how: "still-air" as CoolingMethod,
  });
  const [value, setValue] = held.field("value");
  const [emissivity, setEmissivity] = held.field("emissivity");
  const [aim, setAim] = held.field("aim");
  const [plugs, setPlugs] = held.field("plugs");
  const [setTo, setSetTo] = held.field("setTo");
  const [onRack, setOnRack] = held.field("onRack");
  const [how, setHow] = held.field("how");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const us = units === "us";
  const number = (text: string) => {
    const read = parseTyped(text);
    return read.ok ? read.value : Number.NaN;
  };
  const record = (
    event: BakeEventKind,
    over: {
      valueC?: number;
      emissivity?: number;
      aim?: InfraredAim | null;
      count?: number;
      asked?: number | null;
      method?: CoolingMethod;
      rack?: string | null;
    } = {},
  ) => send({ kind: "bake-event", oven, loadNo: load, event, note: "", ...over });
  const doubt = infraredDoubt({ atS: 0, metalC: 0, emissivity: number(emissivity), aim });
  const readingC = us ? fahrenheitToC(number(value)) : number(value);
  const reading = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (!Number.isFinite(readingC)) return setProblem(failureText({ kind: "not-a-number", text: value }));
    if (!doubt.ok) return setProblem(failureText(doubt.error));
    const sent = await record(pulled ? "cool" : "infrared", {
      valueC: readingC,
      emissivity: number(emissivity),
      aim: pulled ? null : aim,
      rack: pulled && racks.length > 1 ? onRack : null,
    });
    if (sent) setValue("");
  };
  const setAnew = async () => {
    setProblem(null);
    const typed = number(setTo);
    if (!Number.isFinite(typed)) return setProblem(failureText({ kind: "not-a-number", text: setTo }));
    if (await record("set-point", { valueC: us ? fahrenheitToC(typed) : typed })) setSetTo("");
  };
  const plugsOut = async () => {
    setProblem(null);
    const count = number(plugs);
    if (!Number.isInteger(count)) return setProblem(failureText({ kind: "plugs-need-count" }));
    if (await record("plugs-out", { count, asked: plugsIn })) setPlugs("");
  };
  return (
    <div className="grid gap-4">
      {!pulled && (
        <div className="flex flex-wrap gap-2">
          {taps.map((event) => (
            <button key={event} type="button" className="btn" disabled={busy} onClick={() => void record(event)}>
              {bakeEventName[event]}
            </button>
          ))}
        </div>
      )}
      <form onSubmit={reading} noValidate className="grid gap-2">
        {held.said}
        <div className="flex flex-wrap items-end gap-3">
          <div className="w-[120px]">
            <TypedNumber
              id="ir-value"
              label={pulled ? `Metal now, ${us ? "°F" : "°C"}` : `Infrared, ${us ? "°F" : "°C"}`}
              text={value}
              change={setValue}
            />
          </div>
          <div className="w-[100px]">
            <TypedNumber id="ir-emissivity" label="Emissivity" text={emissivity} change={setEmissivity} />
          </div>
          {pulled && racks.length > 1 && (
            <div className="field w-[110px]">
              <label htmlFor="ir-rack">On rack</label>
              <Choice id="ir-rack" className="input" value={onRack} onChange={setOnRack}>
                {racks.map((r) => (
                  <option key={r}>{r}</option>
                ))}
              </Choice>
            </div>
          )}
          {!pulled && (
            <div className="field w-[150px]">
              <label htmlFor="ir-aim">Pointed at</label>
              <Choice id="ir-aim" className="input" value={aim} onChange={(value) => setAim(value as InfraredAim)}>
                {infraredAims.map((a) => (
                  <option key={a} value={a}>
                    {aimName[a]}
                  </option>
                ))}
              </Choice>
            </div>
          )}
          <button type="submit" className="btn" disabled={busy}>
            {pulled ? "Record its heat" : "Record the reading"}
          </button>
        </div>
        {doubt.ok && doubt.value && <p className="small m-0 text-watch">{doubtWords[doubt.value]}</p>}
      </form>
      {!pulled && (
        <div className="flex flex-wrap items-end gap-3">
          <div className="w-[120px]">
            <TypedNumber id="set-anew" label={`Set to, ${us ? "°F" : "°C"}`} text={setTo} change={setSetTo} />
          </div>
          <button type="button" className="btn" disabled={busy} onClick={() => void setAnew()}>
            Oven set anew
          </button>
        </div>
      )}
      {pulled && (
        <div className="flex flex-wrap items-end gap-3">
          <div className="field w-[190px]">
            <label htmlFor="cool-how">It cools</label>
            <Choice id="cool-how" className="input" value={how} onChange={(value) => setHow(value as CoolingMethod)}>
              {coolingMethods.map((m) => (
                <option key={m} value={m}>
                  {coolingName[m]}
                </option>
              ))}
            </Choice>
          </div>
          <button type="button" className="btn" disabled={busy} onClick={() => void record("cooling", { method: how })}>
            Record how
          </button>
          {isHardCooling(how) && (
            <p className="small m-0 text-watch">Forced or cold air on hot powder shows in its finish.</p>
          )}
        </div>
      )}
      {(pulled || plugsIn !== null) && (
        <div className="flex flex-wrap items-end gap-3">
          <div className="w-[130px]">
            <TypedNumber
              id="plugs-out"
              label={`Plugs out${plugsIn === null ? "" : `, of ${plugsIn} in`}`}
              text={plugs}
              change={setPlugs}
            />
          </div>
          <button type="button" className="btn" disabled={busy} onClick={() => void plugsOut()}>
            Plugs counted
          </button>
          {plugsIn !== null && plugs !== "" && Number.isInteger(number(plugs)) && number(plugs) !== plugsIn && (
            <p className="m-0 text-out">
              {number(plugs) < plugsIn
                ? `${plugsIn - number(plugs)} still in a part: look for them before it is packed.`
                : "More came out than were counted in: count again."}
            </p>
          )}
        </div>
      )}
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
      <Recorded message={message} />
    </div>
  );
}
