"use client";
import { v7 as uuidv7 } from "uuid";
import { checkGauge, type GaugeTolerance } from "@/core/thickness";
import { milToUm } from "@/core/units";
import { fieldsOf } from "../fields/in-form";
import { withUnit } from "../format";
import { Entry } from "../forms/entry";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { parseTyped } from "../parse-typed";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

type Row = { readonly key: string; readonly shim: string; readonly tolerance: string; readonly readings: string };
const blank = (key = uuidv7()): Row => ({ key, shim: "", tolerance: "", readings: "" });

/** A gauge on its shims: what each should read, what it reads, judged as it is typed. */
export function GaugeCheckForm({
  gauge,
  tolerance,
  shims,
}: {
  gauge: string;
  tolerance: GaugeTolerance;
  /** The shims of the last check. */
  shims: readonly { readonly certifiedUm: number; readonly toleranceUm: number }[];
}) {
  const { units } = usePreferences();
  const us = units === "us";
  const show = (um: number) => String(Math.round((us ? um / 25.4 : um) * 1000) / 1000);
  const held = useEntryForm(`gauge ${gauge}`, {
    rows: (shims.length > 0
      ? shims.map((s, i) => ({
          key: String(i),
          shim: show(s.certifiedUm),
          tolerance: show(s.toleranceUm),
          readings: "",
        }))
      : [blank("0"), blank("1")]) as readonly Row[],
    note: "",
  });
  const [rows, setRows] = held.field("rows");
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const put = (i: number, over: Partial<Row>) => setRows(rows.map((r, n) => (n === i ? { ...r, ...over } : r)));
  const um = (text: string): number | null => {
    const read = parseTyped(text);
    return read.ok ? (us ? milToUm(read.value) : read.value) : null;
  };
  const shimOf = (row: Row) => {
    const readingsUm = row.readings
      .split(/[\s;]+/)
      .filter((w) => w !== "")
      .map(um);
    const certifiedUm = um(row.shim);
    const toleranceUm = row.tolerance.trim() === "" ? 0 : um(row.tolerance);
    if (certifiedUm === null || toleranceUm === null || readingsUm.some((r) => r === null)) return null;
    return { certifiedUm, toleranceUm, readingsUm: readingsUm.filter((r): r is number => r !== null) };
  };
  const filled = rows.filter((r) => r.shim.trim() !== "" || r.readings.trim() !== "");
  return (
    <Entry
      held={held}
      id="gauge"
      sending={recorder}
      button="Record the check"
      primary
      send={async ({ refuse }) => {
        const sent = filled.map(shimOf);
        const bad = sent.indexOf(null);
        if (bad >= 0) refuse(null, `Shim ${bad + 1}: type its thickness and the readings with spaces between.`);
        const shims = sent.flatMap((s) => s ?? []);
        const judged = checkGauge(shims, tolerance);
        if (!judged.ok) refuse(null, failureText(judged.error));
        const { note } = held.values;
        const kept = await recorder.send({ kind: "gauge-check", instrument: gauge, shims, note });
        if (kept) setRows(rows.map((r) => ({ ...r, readings: "" })));
        return kept;
      }}
    >
      {rows.map((row, i) => {
        const shim = shimOf(row);
        const judged = shim && shim.readingsUm.length > 0 ? checkGauge([shim], tolerance) : null;
        const one = judged?.ok ? judged.value.shims[0] : null;
        return (
          <div
            key={row.key}
            className="grid grid-cols-[100px_100px_minmax(0,1fr)_190px] items-end gap-3 max-[700px]:grid-cols-2"
          >
            <TypedNumber
              id={`shim-${i}`}
              label={`Shim, ${us ? "mil" : "µm"}`}
              text={row.shim}
              change={(shim) => put(i, { shim })}
            />
            <TypedNumber
              id={`shim-tol-${i}`}
              label="its ±"
              text={row.tolerance}
              change={(tolerance) => put(i, { tolerance })}
            />
            <div className="field max-[700px]:col-span-2">
              <label htmlFor={`shim-read-${i}`}>Three readings or more</label>
              <input
                id={`shim-read-${i}`}
                className="input fig"
                value={row.readings}
                onChange={(e) => put(i, { readings: e.target.value })}
              />
            </div>
            <span className="pb-2">
              {one ? (
                <Verdict result={one.holds ? "in" : "out"}>
                  {one.errorUm >= 0 ? "+" : "−"}
                  {withUnit(Math.abs(one.errorUm), "thickness", units)} of ±{" "}
                  {withUnit(one.allowedUm, "thickness", units)}
                </Verdict>
              ) : (
                <span className="soft small">{judged && !judged.ok ? failureText(judged.error) : ""}</span>
              )}
            </span>
          </div>
        );
      })}
      <p className="m-0">
        <button type="button" className="link min-h-11" onClick={() => setRows([...rows, blank()])}>
          one more shim
        </button>
      </p>
      <F.Words name="note" label="Note: before or after which work, probe, battery" most={400} />
    </Entry>
  );
}
