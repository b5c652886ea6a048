import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { Fold } from "@/ui/fields/fold";
import { Margin } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { CustomerForm } from "@/ui/shop/customer-form";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { WhoChanged } from "@/ui/shop/who-changed";
import { keepCustomer } from "../../actions";

export const metadata: Metadata = { title: "Customers" };

export default async function CustomersPage() {
  const person = await personOnPage("release");
  const at = now();
  const [all, site, versions] = await Promise.all([
    setupAt(database(), "customer", at),
    siteAt(database(), at),
    versionsOfKind(database(), "customer"),
  ]);
  const inOrder = [...all.values()].sort((a, b) => a.data.name.localeCompare(b.data.name, "en", { numeric: true }));
  return (
    <>
      <section className="bench">
        <PageHead above="Whose parts come in" title="Customers" />
        <ShopTabs here="customers" people={may(person.role, "administer")} />
        <div className="ruled mt-3">
          {inOrder.length === 0 && (
            <p className="py-2">No customer yet. Put the first on record below: work is received for one.</p>
          )}
          {inOrder.map((item) => (
            <Fold
              key={item.id}
              id={item.code}
              className="border-rule border-b"
              summaryClassName="row min-h-[52px] list-none grid-cols-[80px_minmax(0,1fr)] items-center border-0 hover:bg-sorrel-tint w-full"
              summary={
                <>
                  <b className="fig">{item.code}</b>
                  <span>
                    {item.data.name}
                    <span className="small soft block">
                      {[item.data.contact, item.data.acceptance ? "looked at by their own classes" : ""]
                        .filter((words) => words !== "")
                        .join("; ")}
                    </span>
                  </span>
                </>
              }
            >
              <CustomerForm
                key={item.versionId}
                known={{ code: item.code, seen: item.versionId, ...item.data }}
                save={keepCustomer}
              />
            </Fold>
          ))}
        </div>
        <section className="ruled mt-6" aria-label="One more">
          <h2 className="mb-2">One more</h2>
          <CustomerForm known={null} save={keepCustomer} />
        </section>
      </section>
      <Margin step="shift">
        <WhoChanged versions={versions} timeZone={site.timeZone} />
      </Margin>
    </>
  );
}
