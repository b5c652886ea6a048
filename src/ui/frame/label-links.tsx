/** Labels to print: ten to an A4 sheet, or one to a page for a label printer. */
export function LabelLinks({ name, query }: { name: string; query: Readonly<Record<string, string>> }) {
  const href = (paper: string) => `/api/labels.pdf?${new URLSearchParams({ ...query, paper })}`;
  return (
    <span className="no-print inline-flex flex-wrap items-center gap-x-3">
      <a className="link inline-flex min-h-11 items-center" href={href("a4")}>
        {name}, A4
      </a>
      <a className="link inline-flex min-h-11 items-center" href={href("roll")} aria-label={`${name}, label printer`}>
        label printer
      </a>
    </span>
  );
}
