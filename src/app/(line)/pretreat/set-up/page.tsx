import type { Metadata } from "next";
import { washTemplates } from "@/core/bath";
import { chemicalStock } from "@/server/baths/chemical-stock";
import { database } from "@/server/database";
import { dayIn } from "@/server/day";
import { now } from "@/server/now";
import { preferences } from "@/server/preferences";
import { bathHref } from "@/server/setup/save-bath";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { personOnPage } from "@/server/sign-in/person";
import { may, ofTheShop } from "@/server/sign-in/roles";
import { BathSetupForm } from "@/ui/bath/bath-setup-form";
import { BeginWash } from "@/ui/bath/begin-wash";
import { ChemicalForm } from "@/ui/bath/chemical-form";
import { LineSetupForm } from "@/ui/bath/line-setup-form";
import { Fold } from "@/ui/fields/fold";
import { dateAndTime, figure, withUnit } from "@/ui/format";
import { LabelLinks } from "@/ui/frame/label-links";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import Link from "@/ui/link";
import { List } from "@/ui/lists/list";
import { Verdict } from "@/ui/marks/verdict";
import { bathWindow, parameterName } from "@/ui/words/baths";
import { beginWash, keepBath, keepLine, takeDrum } from "../../actions";

export const metadata: Metadata = { title: "The wash as it is set up" };

const [plainest] = washTemplates;
/** A drum with less than this share left is worth a word. */
const NEARLY_EMPTY = 0.1;

const stockColumns = [
  { key: "product", head: "product", width: "minmax(0,1fr)" },
  { key: "lot", head: "lot", width: "minmax(70px,110px)", look: "fig" },
  { key: "left", head: "left", width: "172px", num: true },
  { key: "until", head: "usable until", width: "minmax(110px,210px)" },
  { key: "label", head: "", width: "minmax(90px,190px)" },
];

export default async function WashSetUpPage() {
  const person = await personOnPage();
  const at = now();
  const [stock, baths, lines, site, { units }] = await Promise.all([
    // What a shop has in store is its own affair.
    ofTheShop(person) ? chemicalStock(database(), at) : [],
    setupAt(database(), "bath", at),
    setupAt(database(), "line", at),
    siteAt(database(), at),
    preferences(),
  ]);
  const inOrder = [...baths.values()].sort((a, b) => a.code.localeCompare(b.code, "en", { numeric: true }));
  const mayChange = may(person.role, "release");
  const [first] = plainest?.baths ?? [];
  const today = dayIn(at, site.timeZone);
  const products = [
    ...new Set(
      inOrder.flatMap((b) => [b.data.product, b.data.acidProduct, ...b.data.otherProducts]).filter((p) => p !== ""),
    ),
  ];
  return (
    <>
      <section className="bench">
        <PageHead
          above={
            <Link className="link" href="/pretreat">
              Pretreat
            </Link>
          }
          title="The wash as it is set up"
        >
          <span className="small soft">tanks in walking order</span>
        </PageHead>
        <div className="ruled mt-3">
          {inOrder.length === 0 && <p className="py-2">No tank is set up yet. Begin from a usual wash, or add one.</p>}
          {inOrder.map((bath) => (
            <div
              key={bath.id}
              className={`row grid-cols-[90px_minmax(0,1fr)_minmax(0,1.4fr)_150px] items-center max-[700px]:grid-cols-[90px_minmax(0,1fr)] ${bath.data.retired ? "opacity-60" : ""}`}
            >
              {mayChange ? (
                <Link
                  className="link inline-flex min-h-11 items-center font-bold"
                  href={`${bathHref(bath.code)}/set-up`}
                >
                  {bath.code}
                </Link>
              ) : (
                <b>{bath.code}</b>
              )}
              <span>
                {bath.data.name}
                <span className="small soft block">
                  {withUnit(bath.data.volumeL, "volume", units)}, every {bath.data.roundHours} h
                  {bath.data.retired ? ", out of use" : ""}
                </span>
              </span>
              <span className="small max-[700px]:col-span-2">
                {Object.entries(bath.data.windows)
                  .map(([p, window]) => `${parameterName[p] ?? p} ${bathWindow(p, window, units)}`)
                  .join("; ")}
              </span>
              <span className="small faint max-[700px]:hidden">since {dateAndTime(bath.validFrom, site.timeZone)}</span>
            </div>
          ))}
        </div>
        {mayChange &&
          [...lines.values()].map((item) => (
            <section key={item.versionId} className="ruled mt-6" aria-label={item.code}>
              <h2>{item.code}, its stages from the entrance</h2>
              <LineSetupForm code={item.code} seen={item.versionId} line={item.data} save={keepLine} />
            </section>
          ))}
        <section className="ruled mt-6" aria-label="Chemicals on hand">
          <h2>Chemicals on hand, the drum to use first on top</h2>
          <List
            name="Chemicals on hand"
            empty="No drum is in stock on record. Take one in where it came, in the margin: what is added is then counted off it."
            columns={stockColumns}
            rows={stock.map((c) => {
              const old = c.usableUntil !== null && c.usableUntil < today;
              return {
                key: c.id,
                cells: {
                  label: <LabelLinks name="Label" query={{ of: "drum", number: c.code }} />,
                  left: (
                    <>
                      <b className="fig">{figure(c.leftL, "volume", units).text}</b> of{" "}
                      {withUnit(c.litres, "volume", units)}
                    </>
                  ),
                  until: (
                    <Verdict result={old ? "out" : c.leftL <= c.litres * NEARLY_EMPTY ? "watch" : "in"}>
                      {old
                        ? `out of date since ${c.usableUntil}`
                        : c.leftL === 0
                          ? "empty on record"
                          : c.usableUntil
                            ? `until ${c.usableUntil}`
                            : "no date"}
                    </Verdict>
                  ),
                },
                values: { product: c.product, lot: c.lot, left: c.leftL, until: c.usableUntil },
              };
            })}
          />
        </section>
        {mayChange && first && (
          <Fold className="mt-5" summary="Set up one more tank">
            <BathSetupForm
              code={null}
              seen={null}
              bath={{ ...first, name: "", windows: {}, caution: "" }}
              retired={false}
              save={keepBath}
            />
          </Fold>
        )}
      </section>
      <Margin step="pretreat">
        {mayChange && (
          <MarginBlock title="Begin from a usual wash">
            <BeginWash
              templates={washTemplates.map((t) => ({
                id: t.id,
                name: t.name,
                tanks: t.baths.map((b, i) => `${i + 1}  ${b.name}`),
              }))}
              begin={beginWash}
            />
          </MarginBlock>
        )}
        {may(person.role, "log-line") && (
          <MarginBlock title="A drum came in">
            <ChemicalForm products={products} today={today} take={takeDrum} />
          </MarginBlock>
        )}
        <MarginBlock title="What a change does">
          <p className="small">
            A change is a new version from now on. Checks made before it stay judged by the windows of their time; the
            supplier’s sheet stands over everything here.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
