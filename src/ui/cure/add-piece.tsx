"use client";
import { type FormEvent, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { heatsAsPlateMm, type Metal, metals, type PowderSchedule, plateTimeConstant, USUAL_ROOM_C } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import { Choice } from "../fields/choice";
import { Tick } from "../fields/tick";
import { TypedNumber } from "../forms/typed-number";
import { parseTyped } from "../parse-typed";
import { failureText } from "../words/failures";
import type { Placed } from "./planner";

/** A piece put into the plan by hand. */
export function AddPiece({
  powders,
  units,
  add,
}: {
  powders: readonly { readonly name: string; readonly schedule: PowderSchedule }[];
  units: UnitSystem;
  add: (piece: Placed) => void;
}) {
  const [name, setName] = useState("");
  const [metal, setMetal] = useState<Metal>("steel");
  const [section, setSection] = useState("");
  const [hollow, setHollow] = useState(false);
  const [powder, setPowder] = useState(powders[0]?.name ?? "");
  const [problem, setProblem] = useState<string | null>(null);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    setProblem(null);
    const read = parseTyped(section);
    if (!read.ok) return setProblem(failureText(read.error));
    const sectionMm = units === "us" ? read.value * 25.4 : read.value;
    const plateMm = heatsAsPlateMm({ thickestMm: sectionMm, thinnestMm: sectionMm, hollow });
    const can = plateTimeConstant({ material: metal, plateMm });
    if (!can.ok) return setProblem(failureText(can.error));
    const schedule = powders.find((p) => p.name === powder)?.schedule;
    if (!schedule) return setProblem("Choose a powder: its sheet says what is cured.");
    add({
      id: name.trim() || uuidv7().slice(-4),
      what: "put in by hand",
      metal,
      sectionMm: Math.round(plateMm * 10) / 10,
      hollow,
      massKg: null,
      powder,
      schedule,
      rack: null,
      load: 0,
      startC: USUAL_ROOM_C,
    });
    setName("");
    setSection("");
    setHollow(false);
  };
  return (
    <form onSubmit={submit} noValidate className="flex flex-wrap items-end gap-3">
      <div className="field w-[100px]">
        <label htmlFor="piece-name">A piece</label>
        <input
          id="piece-name"
          className="input"
          value={name}
          maxLength={20}
          onChange={(e) => setName(e.target.value)}
        />
      </div>
      <div className="field w-[130px]">
        <label htmlFor="piece-metal">Metal</label>
        <Choice id="piece-metal" className="input" value={metal} onChange={(value) => setMetal(value as Metal)}>
          {Object.keys(metals).map((m) => (
            <option key={m} value={m}>
              {m.replaceAll("-", " ")}
            </option>
          ))}
        </Choice>
      </div>
      <div className="w-[100px]">
        <TypedNumber
          id="piece-section"
          label={`Section, ${units === "us" ? "in" : "mm"}`}
          text={section}
          change={setSection}
        />
      </div>
      <label className="flex min-h-11 items-center gap-2">
        <Tick checked={hollow} onChange={setHollow} />
        hollow, this its wall
      </label>
      <div className="field w-[170px]">
        <label htmlFor="piece-powder">Powder</label>
        <Choice id="piece-powder" className="input" value={powder} onChange={setPowder}>
          {powders.map((p) => (
            <option key={p.name}>{p.name}</option>
          ))}
        </Choice>
      </div>
      <button type="submit" className="btn">
        Put it in
      </button>
      {problem && (
        <p role="alert" className="m-0 text-out">
          {problem}
        </p>
      )}
    </form>
  );
}
