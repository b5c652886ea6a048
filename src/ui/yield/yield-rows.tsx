import { againstWhole, type FirstPass } from "@/core/yield";
import { countOf, percent } from "../format";
import Link from "../link";

const told = { higher: "above the whole", lower: "below the whole", "not-told-apart": "" } as const;

/** Groups under one another on one scale of 0 to 100 %: the share that passed, its 95 % interval, the whole as a line; each leads to its racks. */
export function YieldRows({
  rows,
  whole,
}: {
  rows: readonly { readonly name: string; readonly href: string; readonly yield: FirstPass }[];
  whole: FirstPass;
}) {
  return (
    <div className="ruled">
      {rows.map(({ name, href, yield: y }) => (
        <Link
          key={href}
          href={href}
          className="row min-h-11 grid-cols-[minmax(0,190px)_minmax(0,1fr)_56px_190px] items-center text-ink no-underline hover:bg-sorrel-tint max-[760px]:grid-cols-[minmax(0,130px)_minmax(0,1fr)_56px]"
        >
          <span className="min-w-0 break-words">{name}</span>
          <span className="relative block h-4" aria-hidden="true">
            <span className="absolute top-1/2 right-0 left-0 border-rule border-t" />
            <span
              className="absolute top-1 bottom-1 bg-sorrel opacity-40"
              style={{
                left: `${y.interval[0] * 100}%`,
                width: `max(3px, ${(y.interval[1] - y.interval[0]) * 100}%)`,
              }}
            />
            <span
              className="absolute top-0 bottom-0 w-[3px] -translate-x-px bg-ink"
              style={{ left: `${y.share * 100}%` }}
            />
            <span
              className="absolute -top-1 -bottom-1 border-ink-soft border-l border-dashed"
              style={{ left: `${whole.share * 100}%` }}
            />
          </span>
          <b className="fig text-right">{percent(y.share)}</b>
          <span className="soft small text-right max-[760px]:col-span-3">
            {y.passed} of {countOf(y.racks, "rack")}, {percent(y.interval[0])} to {percent(y.interval[1])}
            {told[againstWhole(y, whole)] && <b className="block text-ink">{told[againstWhole(y, whole)]}</b>}
          </span>
        </Link>
      ))}
    </div>
  );
}
