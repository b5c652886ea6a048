import Link from "next/link";

const tabs = [
  ["", "Thread"],
  ["prepare", "Prepare"],
  ["coat", "Coat"],
  ["thickness", "Film"],
  ["cure", "Cure"],
  ["bench", "Bench"],
  ["release", "Release"],
] as const;

/** Between the views of one rack. */
export function RackTabs({ number, here }: { number: string; here: string }) {
  return (
    <nav aria-label={`Rack ${number}`} className="no-print mt-2 flex gap-5 overflow-x-auto max-[700px]:gap-4">
      {tabs.map(([path, name]) => (
        <Link
          key={path}
          href={`/racks/${number}${path ? `/${path}` : ""}`}
          aria-current={here === path ? "page" : undefined}
          className={`inline-flex min-h-10 items-center border-b-[3px] no-underline ${here === path ? "border-sorrel font-bold text-sorrel" : "border-transparent text-ink hover:border-rule-strong"}`}
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}
