import type { Beginning } from "@/server/shop/not-set-up";
import Link from "../link";
import { Verdict } from "../marks/verdict";
import { beginningWords } from "../words/people";

/** What a shop sets up before its first day, what of it is there, and where the rest is done. */
export function Beginnings({
  has,
  administers,
  only = "all",
}: {
  has: Readonly<Record<Beginning, boolean>>;
  /** Whether who looks may make people. */
  administers: boolean;
  /** Whether what is there stands too. */
  only?: "all" | "missing";
}) {
  const all = Object.entries(beginningWords) as [Beginning, (typeof beginningWords)[Beginning]][];
  const shown = all.filter(([what]) => (administers || what !== "people") && (only === "all" || !has[what]));
  return (
    <>
      {!has.baths && !has.oven && (
        <p className="m-0 py-2">
          <Link className="btn" href="/shop/begin">
            Begin with a line like yours, all of it at once
          </Link>
        </p>
      )}
      <ol className="m-0 list-none p-0">
        {shown.map(([what, { name, href, why }]) => (
          <li key={what}>
            <Link
              href={href}
              className="row min-h-[52px] grid-cols-[190px_minmax(0,1fr)_130px] items-center text-ink no-underline hover:bg-sorrel-tint max-[700px]:grid-cols-[1fr_auto]"
            >
              <b>{name}</b>
              <span className="soft max-[700px]:order-last max-[700px]:col-span-2">{why}</span>
              {has[what] ? <Verdict result="in">set up</Verdict> : <Verdict result="unknown">not yet</Verdict>}
            </Link>
          </li>
        ))}
      </ol>
    </>
  );
}
