"use client";
import { type FormEvent, useState } from "react";
import { curedFromHeight } from "@/core/powder";
import { milToUm, parseNumber } from "@/core/units";
import { Choice } from "../fields/choice";
import { withUnit } from "../format";
import { RecordRow } from "../forms/recorded";
import { TypedNumber } from "../forms/typed-number";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Grade, Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** Height of the loose powder at a spot, and the film it will cure to by the ratio this powder has shown. */
export function PowderHeightForm({
  rack,
  spots,
  pairs,
  film,
}: {
  rack: string;
  spots: readonly { readonly face: string; readonly spot: string }[];
  pairs: readonly { readonly heightUm: number; readonly curedUm: number }[];
  film: { readonly minUm: number; readonly maxUm: number | null };
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`powder height ${rack}`, { spot: spots[0]?.spot ?? "", text: "" });
  const [spot, setSpot] = held.field("spot");
  const [text, setText] = held.field("text");
  const { send, message, busy } = useRecorder(held);
  const [problem, setProblem] = useState<string | null>(null);
  const read = text.trim() === "" ? null : parseNumber(text);
  const heightUm = read?.ok ? (units === "us" ? milToUm(read.value) : read.value) : null;
  const cured = heightUm === null ? null : curedFromHeight(heightUm, pairs);
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    if (read && !read.ok) return setProblem(failureText(read.error));
    const at = spots.find((s) => s.spot === spot);
    if (heightUm === null || !at) return setProblem("Type the height of the powder.");
    if (cured && !cured.ok) return setProblem(failureText(cured.error));
    if (await send({ kind: "powder-height", rack, readings: [{ ...at, heightUm }] })) setText("");
  };
  const inside =
    cured?.ok && cured.value.curedUm >= film.minUm && (film.maxUm === null || cured.value.curedUm <= film.maxUm);
  return (
    <form onSubmit={submit} noValidate className="flex flex-wrap items-end gap-3">
      {held.said}
      <div className="field w-[110px]">
        <label htmlFor="height-spot">Spot</label>
        <Choice id="height-spot" className="input" value={spot} onChange={setSpot}>
          {spots.map((s) => (
            <option key={s.spot}>{s.spot}</option>
          ))}
        </Choice>
      </div>
      <div className="w-[170px]">
        <TypedNumber
          id="height-um"
          label={`Height of the powder, ${units === "us" ? "mil" : "µm"}`}
          text={text}
          change={setText}
        />
      </div>
      {cured?.ok && (
        <span className="pb-2">
          <Verdict result={inside ? "in" : "watch"}>
            cures to about {withUnit(cured.value.curedUm, "thickness", units)}
          </Verdict>{" "}
          <Grade grade={cured.value.grade} />{" "}
          <span className="small soft">
            {cured.value.n === 0
              ? "by the usual ratio: no pair of this powder was read yet"
              : `${cured.value.range ? `${withUnit(cured.value.range[0], "thickness", units)} to ${withUnit(cured.value.range[1], "thickness", units)}, ` : ""}ratio ${cured.value.ratio.toFixed(2)} from ${cured.value.n} pairs`}
          </span>
        </span>
      )}
      {problem && (
        <span role="alert" className="pb-2 text-out">
          {problem}
        </span>
      )}
      <RecordRow busy={busy} message={message} primary={false}>
        Record the height
      </RecordRow>
    </form>
  );
}
