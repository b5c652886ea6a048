import Link from "../link";

const tabs = [
  ["", "Shop"],
  ["rates", "Rates"],
  ["schools", "Schools"],
  ["customers", "Customers"],
  ["test-plans", "Test plans"],
  ["instruments", "Instruments"],
  ["equipment", "Equipment"],
  ["backup", "Backup"],
  ["people", "People"],
] as const;

/** What a shop sets up of itself; people are the administrator's. */
export function ShopTabs({ here, people }: { here: (typeof tabs)[number][0]; people: boolean }) {
  return (
    <nav aria-label="Shop" className="no-print mt-2 flex gap-5 overflow-x-auto max-[700px]:gap-4">
      {tabs
        .filter(([slug]) => slug !== "people" || people)
        .map(([slug, name]) => (
          <Link
            key={slug}
            href={slug === "" ? "/shop" : `/shop/${slug}`}
            aria-current={here === slug ? "page" : undefined}
            className={`inline-flex min-h-11 items-center whitespace-nowrap border-b-[3px] no-underline ${here === slug ? "border-sorrel font-bold text-sorrel" : "border-transparent text-ink hover:border-rule-strong"}`}
          >
            {name}
          </Link>
        ))}
    </nav>
  );
}
