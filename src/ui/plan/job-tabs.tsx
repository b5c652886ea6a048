import Link from "../link";

const tabs = [
  ["", "Job"],
  ["system", "Risks and system"],
  ["options", "Options"],
  ["fit", "Fit"],
  ["cost", "Cost"],
  ["route-card", "Route card"],
] as const;

/** Between the views of one job's plan. */
export function JobTabs({ number, here, cost }: { number: string; here: string; cost: boolean }) {
  return (
    <nav aria-label={`Job ${number}`} className="no-print mt-2 flex gap-5 overflow-x-auto max-[700px]:gap-4">
      {tabs
        .filter(([path]) => path !== "cost" || cost)
        .map(([path, name]) => (
          <Link
            key={path}
            href={`/jobs/${number}${path ? `/${path}` : ""}`}
            aria-current={here === path ? "page" : undefined}
            className={`inline-flex min-h-11 items-center whitespace-nowrap border-b-[3px] no-underline ${here === path ? "border-sorrel font-bold text-sorrel" : "border-transparent text-ink hover:border-rule-strong"}`}
          >
            {name}
          </Link>
        ))}
    </nav>
  );
}
