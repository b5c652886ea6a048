"use client";
import type { Face } from "@/core/plan";
import { PartSketch } from "../charts/part-sketch";
import { Fold } from "../fields/fold";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { usePreferences } from "../preferences-context";

type Place = { readonly face: string; readonly x: number; readonly y: number };

/** Where powder was added while the film had only melted, tapped on the sketch: those places are read and looked at after the cure. */
export function TouchedWhere({
  oven,
  load,
  racks,
}: {
  oven: string;
  load: string;
  racks: readonly { readonly rack: string; readonly faces: readonly Face[] }[];
}) {
  const { units } = usePreferences();
  const held = useEntryForm(`touched ${oven} ${load}`, { rack: racks[0]?.rack ?? "", places: [] as Place[] });
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { rack, places } = held.values;
  const faces = racks.find((r) => r.rack === rack)?.faces ?? [];
  const [, setPlaces] = held.field("places");
  return (
    <Fold summary={<>Touched up, and where</>} summaryClassName="min-h-11">
      <Entry
        held={held}
        id="touched-where"
        sending={recorder}
        button="Record the places"
        className="grid gap-3"
        begin={["places"]}
        send={(read) => {
          if (places.length === 0) read.refuse("rack", "Tap the sketch where powder was added.");
          return recorder.send({
            kind: "bake-event",
            oven,
            loadNo: load,
            event: "touched-up",
            rack,
            places: [...places],
            note: "",
          });
        }}
      >
        {racks.length > 1 && (
          <F.Pick name="rack" label="On rack" of={racks.map((r) => r.rack)} changed={() => setPlaces([])} />
        )}
        <PartSketch
          faces={faces.map((f) => ({ ...f, spots: [] }))}
          units={units}
          marks={places.map((p, i) => ({ ...p, label: `${i + 1}` }))}
          onPlace={(face, x, y) => setPlaces([...places, { face, x, y }])}
        />
        {places.length > 0 && (
          <p className="m-0">
            <button type="button" className="btn" onClick={() => setPlaces(places.slice(0, -1))}>
              Take the last one back
            </button>
          </p>
        )}
        <p className="small soft m-0">
          Film added now fuses with what is under it; it needs its own minutes at temperature, so hold the load longer.
          Hot metal and oven air: gloves and face shield.
        </p>
      </Entry>
    </Fold>
  );
}
