"use client";
import { crossCutFromSquares } from "@/core/bench";
import { fieldsOf } from "../fields/in-form";
import { Entry } from "../forms/entry";
import { useEntryForm } from "../forms/use-entry-form";
import { useRecorder } from "../forms/use-recorder";
import { Verdict } from "../marks/verdict";
import { usePreferences } from "../preferences-context";
import { typedMoment } from "../typed-moment";

const SQUARES = 25;

/** A panel that went through the wash at an hour, was coated, and is tested: cross-cut, or salt spray with creep from its scribe. */
export function PanelTestForm({ bath, worstIso }: { bath: string; worstIso: number }) {
  const begun = {
    test: "adhesion" as "adhesion" | "salt-spray",
    washed: "",
    lost: "",
    hours: "",
    creep: "",
    coating: "",
  };
  const held = useEntryForm(`panel test ${bath}`, begun);
  const { timeZone } = usePreferences();
  const recorder = useRecorder(held);
  const F = fieldsOf(held);
  const { test, washed, coating } = held.values;
  const adhesion = test === "adhesion";
  const lost = held.live("lost");
  const cut = adhesion && lost !== null ? crossCutFromSquares(lost, SQUARES) : null;
  return (
    <Entry
      held={held}
      id="panel-test"
      sending={recorder}
      button="Record the test"
      begin={["lost", "hours", "creep"]}
      send={(read) => {
        if (washed === "")
          read.refuse("washed", "Say when the panel was washed: its baths are looked up by that hour.");
        if (coating.trim() === "") read.refuse("coating", "Say what it was coated with.");
        return recorder.send({
          kind: "panel-test",
          bath,
          test,
          washedAt: typedMoment(washed, timeZone)?.toISOString() ?? washed,
          squaresLost: adhesion ? read.maybe("lost") : null,
          squares: adhesion ? SQUARES : null,
          hours: adhesion ? null : read.maybe("hours"),
          creepMm: adhesion ? null : read.maybe("creep", "creep"),
          coating,
          note: "",
        });
      }}
    >
      <F.Pick
        name="test"
        label="Test"
        of={[
          ["adhesion", `cross-cut, ${SQUARES} squares`],
          ["salt-spray", "salt spray, scribed"],
        ]}
      />
      <F.When name="washed" label="Washed at" time />
      {adhesion ? (
        <F.Num name="lost" label="Squares lost" />
      ) : (
        <>
          <F.Num name="hours" label="In the cabinet, h" />
          <F.Num name="creep" label="Creep from the scribe" quantity="creep" />
        </>
      )}
      <F.Words name="coating" label="Coated with" most={120} />
      {cut?.ok && (
        <p className="m-0">
          <Verdict result={cut.value.iso <= worstIso ? "in" : "out"}>
            grade {cut.value.iso}, {cut.value.astmB}
          </Verdict>{" "}
          <span className="small soft">asked: {worstIso} at worst</span>
        </p>
      )}
    </Entry>
  );
}
