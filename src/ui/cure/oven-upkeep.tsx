import type { UpkeepFile } from "@/server/upkeep/load-upkeep";
import { MarginBlock } from "../frame/margin";
import { UpkeepHere } from "../upkeep/upkeep-here";

/** What of the ovens is looked after, burners and interlocks by licensed people among it. */
export function OvenUpkeep({ files, now, timeZone }: { files: readonly UpkeepFile[]; now: Date; timeZone: string }) {
  const mine = files.filter((u) => u.item.data.stage === "cure");
  if (mine.length === 0) return null;
  return (
    <MarginBlock title="Checks by licensed people, and upkeep">
      <UpkeepHere files={mine} now={now} timeZone={timeZone} />
    </MarginBlock>
  );
}
