import Link from "../link";

/** Spans a figure is told over, days. */
export const spans = [28, 90, 365] as const;
/** The span that was asked for; 90 days where none or another was. */
export const spanOf = (asked: string | undefined): (typeof spans)[number] =>
  spans.find((s) => String(s) === asked) ?? 90;

/** The spans to choose from. */
export function Spans({ days, href }: { days: number; href: (days: number) => string }) {
  return (
    <nav aria-label="Span" className="no-print flex gap-2">
      {spans.map((s) => (
        <Link
          key={s}
          className={`btn ${s === days ? "pri" : ""}`}
          aria-current={s === days ? "page" : undefined}
          href={href(s)}
        >
          {s} days
        </Link>
      ))}
    </nav>
  );
}
