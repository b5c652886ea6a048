import type { RackOnLine } from "@/server/line/load-line";
import { span } from "../format";
import Link from "../link";
import { Shape } from "../marks/verdict";

export function StageRacks({
  racks,
  now,
  empty,
  to = "",
}: {
  racks: readonly RackOnLine[];
  now: Date;
  empty: string;
  to?: string;
}) {
  if (racks.length === 0) return <p className="soft">{empty}</p>;
  return racks.map((r) => (
    <div key={r.number} className="row grid-cols-[52px_minmax(0,1fr)_auto_16px]">
      <Link className="link fig font-bold" href={`/racks/${r.number}${to}`}>
        {r.number}
      </Link>
      <span>
        {r.part}, {r.passage}
      </span>
      <span className="small faint">{span(now.getTime() - r.since.getTime())}</span>
      <Shape result={r.result} />
    </div>
  ));
}
