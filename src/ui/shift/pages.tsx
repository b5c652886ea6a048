import Link from "../link";

/** The page an address asks for; the first where it asks for none. */
export const pageFrom = (text: string | undefined): number => {
  const page = Number(text ?? 1);
  return Number.isInteger(page) && page > 0 && page < 100_000 ? page : 1;
};

/** Through all of a list, a page at a time. */
export function Pages({
  path,
  page,
  perPage,
  total,
  query = {},
}: {
  path: string;
  page: number;
  perPage: number;
  total: number;
  /** What else the address asks for. */
  query?: Readonly<Record<string, string>>;
}) {
  const last = Math.max(1, Math.ceil(total / perPage));
  if (last === 1) return null;
  const to = (n: number) => `${path}?${new URLSearchParams({ ...query, ...(n > 1 ? { page: String(n) } : {}) })}`;
  return (
    <nav className="no-print mt-3 flex items-center gap-3" aria-label="Pages">
      {page > 1 && (
        <Link className="btn" href={to(page - 1)}>
          Before
        </Link>
      )}
      {page < last && (
        <Link className="btn" href={to(page + 1)}>
          Next {Math.min(perPage, total - page * perPage)}
        </Link>
      )}
      <span className="soft">
        page {page} of {last}
      </span>
    </nav>
  );
}
