import type { ReactNode } from "react";
import { Fold } from "../fields/fold";
import { Margin } from "../frame/margin";
import { PageHead } from "../frame/page-head";
import { ShopTabs } from "./shop-tabs";
import { WhoChanged } from "./who-changed";

/** One kind of what a shop sets up: each under its code, opened to be changed, one more at the end, and who changed what beside it. */
export function SetupList<T extends { readonly id: string; readonly code: string; readonly data: { name: string } }>({
  here,
  title,
  above,
  people,
  empty,
  items,
  grid,
  line,
  open,
  more,
  changed,
}: {
  here: Parameters<typeof ShopTabs>[0]["here"];
  title: string;
  above: string;
  /** Whether the tab of people is theirs to see. */
  people: boolean;
  /** How to begin. */
  empty: string;
  items: Iterable<T>;
  /** Columns of a line after its code. */
  grid: string;
  line: (item: T) => ReactNode;
  open: (item: T) => ReactNode;
  more: ReactNode;
  changed: Parameters<typeof WhoChanged>[0];
}) {
  const inOrder = [...items].sort((a, b) => a.data.name.localeCompare(b.data.name, "en", { numeric: true }));
  return (
    <>
      <section className="bench">
        <PageHead above={above} title={title} />
        <ShopTabs here={here} people={people} />
        <div className="ruled mt-3">
          {inOrder.length === 0 && <p className="py-2">{empty}</p>}
          {inOrder.map((item) => (
            <Fold
              key={item.id}
              id={item.code}
              className="border-rule border-b"
              summaryClassName={`row min-h-[52px] list-none items-center border-0 hover:bg-sorrel-tint w-full ${grid}`}
              summary={
                <>
                  <b className="fig">{item.code}</b>
                  {line(item)}
                </>
              }
            >
              {open(item)}
            </Fold>
          ))}
        </div>
        <section className="ruled mt-6" aria-label="One more">
          <h2 className="mb-2">One more</h2>
          {more}
        </section>
      </section>
      <Margin step="shift">
        <WhoChanged {...changed} />
      </Margin>
    </>
  );
}
