import type { UpkeepFile } from "@/server/upkeep/load-upkeep";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { upkeepWord } from "../words/upkeep";

/** What a stage runs on and how it stands, the most urgent first. */
export function UpkeepHere({ files, now, timeZone }: { files: readonly UpkeepFile[]; now: Date; timeZone: string }) {
  if (files.length === 0)
    return (
      <p className="soft">
        Nothing is kept up on record.{" "}
        <Link className="link" href="/upkeep">
          Set it up
        </Link>
      </p>
    );
  return files.map(({ item, standing }) => (
    <div key={item.id} className="row grid-cols-[minmax(0,1fr)_auto]">
      <Link className="link" href={`/upkeep#${item.code}`}>
        {item.data.what}
      </Link>
      <Verdict result={standing.result}>{upkeepWord(standing, now.getTime(), timeZone)}</Verdict>
    </div>
  ));
}
