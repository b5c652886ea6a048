import { doorOpenS, gelState, judgeBake, ownChannels, traceFaults } from "@/core/cure";
import type { UnitSystem } from "@/core/units";
import type { LoadFile } from "@/server/cure/open-load";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { gelStateWords, traceFaultWords } from "../words/cure";
import { bakeInShort } from "../words/reasons";
import { LoadNeeds } from "./load-needs";

/** Minutes at heat that the door took: while it stood open, and until the oven was back each time. */
function lostToDoor(file: LoadFile, inS: number): number {
  const opened = file.events.filter((e) => e.event === "door-opened").length;
  return Math.min(inS, doorOpenS(file.events, 0, inS) + opened * (file.recoveryS ?? 0));
}

/** Each section of a piece under lamps with its index; null where it was not read. */
function verdicts(file: LoadFile): { name: string; index: number | null }[] {
  const rack = file.racks[0];
  const judged =
    rack && file.channels.length > 0 ? judgeBake(file.channels, rack.schedule, { sections: file.sections }) : null;
  return (file.sections ?? []).map((name) => ({
    name,
    index: judged?.ok ? (judged.value.channels.find((c) => c.name === name)?.index ?? null) : null,
  }));
}

/** A load that was pulled: how each rack's cure stands, what is wrong with its channels, and what it would have needed. */
export function PulledLoad({ file, units }: { file: LoadFile; units: UnitSystem }) {
  const inS = ((file.pulledAt?.getTime() ?? 0) - file.closedAt.getTime()) / 1000;
  const faults = file.channels.length > 0 ? traceFaults(file.channels, file.racks[0]?.schedule ?? null) : [];
  return (
    <>
      <div className="ruled mt-3">
        {file.racks.map((r) => {
          const verdict =
            file.channels.length > 0
              ? judgeBake(ownChannels(file.channels, r.rack, r.channel, file.racksInLoad), r.schedule, {
                  pullS: inS,
                  sections: file.sections,
                })
              : null;
          return (
            <Link
              key={r.rack}
              href={`/racks/${r.rack}/cure`}
              className="row min-h-[52px] grid-cols-[64px_minmax(0,1fr)_220px_170px] items-center text-ink no-underline hover:bg-sorrel-tint max-[820px]:grid-cols-[64px_minmax(0,1fr)_auto]"
            >
              <b className="fig text-[17px]">{r.rack}</b>
              <span>
                <b>{r.part}</b>{" "}
                <span className="soft">
                  {!file.sections && `place ${r.place}`}
                  {r.gel && `, ${r.powder} to gel`}
                </span>
              </span>
              <span className="num">
                {verdict?.ok ? (
                  <>
                    index <b>{verdict.value.decidingIndex.toFixed(0)}</b>
                    {!file.sections && ` on ${verdict.value.decidingChannel}`}
                  </>
                ) : (
                  "no trace"
                )}
              </span>
              <span className="max-[820px]:col-start-2">
                {verdict?.ok ? (
                  <Verdict result={r.gel ? gelStateWords[gelState(verdict.value)].result : verdict.value.result}>
                    {r.gel ? gelStateWords[gelState(verdict.value)].word : bakeInShort(verdict.value, units).word}
                  </Verdict>
                ) : (
                  <Verdict result="unknown">By procedure</Verdict>
                )}
              </span>
            </Link>
          );
        })}
      </div>
      {faults.map((f) => (
        <p key={f.kind + ("channel" in f ? f.channel : "")} className="mt-2 border-watch border-l-4 pl-3">
          {traceFaultWords(f, units)}
        </p>
      ))}
      {file.sections &&
        verdicts(file).map((s) => (
          <div
            key={s.name}
            className="row grid-cols-[minmax(0,1fr)_110px_170px] items-center max-[560px]:grid-cols-[minmax(0,1fr)_84px_84px]"
          >
            <b>{s.name}</b>
            <span className="num">
              {s.index === null ? (
                "not read"
              ) : (
                <>
                  index <b>{s.index.toFixed(0)}</b>
                </>
              )}
            </span>
            <Verdict result={s.index === null ? "unknown" : s.index >= 100 ? "in" : "out"}>
              {s.index === null ? "Not known" : s.index >= 100 ? "Cured" : "Short"}
            </Verdict>
          </div>
        ))}
      {!file.sections && (
        <LoadNeeds
          measured={file.channels.map((c) => ({ ...c }))}
          inS={inS}
          air={{
            startC: file.airAtDoorC,
            tauS: file.oven.data.emptyTauS,
            program: file.program,
          }}
          plannedIndex={file.plannedIndex}
          holdToo={file.holdToo}
          lostS={lostToDoor(file, inS)}
          pieces={file.racks.map((r) => ({ id: r.rack, tauS: r.tauS, bandS: r.tauBandS, schedule: r.schedule }))}
          units={units}
        />
      )}
    </>
  );
}
