"use client";
import { rinseFlowLPerH } from "@/core/bath";
import { quantities } from "@/core/units";
import { fieldsOf } from "../fields/in-form";
import { plainly } from "../format";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { usePreferences } from "../preferences-context";
import { failureText } from "../words/failures";

/** Overflow that keeps a rinse at its target: what is carried in, how far it must be thinned, over how many rinses in counter-flow. */
export function RinseFlow({ bath, limit }: { bath: string; limit: number | null }) {
  const { units } = usePreferences();
  const held = useEntryForm(`rinse flow ${bath}`, { drag: "", before: "", count: "1" });
  const F = fieldsOf(held);
  const [drag, before, count] = [held.live("drag", "volume"), held.live("before"), held.live("count")];
  if (limit === null) return <p className="soft m-0">Set its upper limit of conductivity first.</p>;
  const asked = drag !== null && before !== null && count !== null;
  const flow = asked ? rinseFlowLPerH({ dragOutLPerH: drag, ratio: before / limit, stages: count }) : null;
  return (
    <Entry
      held={held}
      id="rinse"
      sending={{ busy: false, message: null }}
      button={null}
      // Reckoned as it is typed; nothing is sent.
      send={async () => false}
    >
      <div className="grid grid-cols-2 gap-2">
        <F.Num name="drag" label={`Carried in, ${quantities.volume[units]}/h`} />
        <F.Num name="before" label="Bath before, µS/cm" />
        <F.Num name="count" label="Rinses in counter-flow" />
      </div>
      {flow?.ok && (
        <p className="m-0">
          Overflow <b className="fig">{plainly(Math.round(flow.value), "volume", units)}/h</b>{" "}
          <span className="small soft">to stay at {limit} µS/cm, well mixed</span>
        </p>
      )}
      {flow && !flow.ok && <p className="m-0 text-out">{failureText(flow.error)}</p>}
    </Entry>
  );
}
