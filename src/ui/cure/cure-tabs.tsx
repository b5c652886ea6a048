import Link from "../link";

const tabs = [
  ["", "In the ovens"],
  ["planner", "Load planner"],
  ["conveyor", "Conveyor"],
  ["ovens", "Ovens"],
  ["proof", "Proof"],
] as const;

/** The views of the cure stage. */
export function CureTabs({ here }: { here: (typeof tabs)[number][0] }) {
  return (
    <nav aria-label="Cure" className="no-print mt-2 flex gap-5 overflow-x-auto max-[700px]:gap-4">
      {tabs.map(([slug, name]) => (
        <Link
          key={slug}
          href={slug === "" ? "/cure" : `/cure/${slug}`}
          aria-current={here === slug ? "page" : undefined}
          className={`inline-flex min-h-11 items-center whitespace-nowrap border-b-[3px] no-underline ${here === slug ? "border-sorrel font-bold text-sorrel" : "border-transparent text-ink hover:border-rule-strong"}`}
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}
