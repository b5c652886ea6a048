import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { CustomerForm } from "@/ui/shop/customer-form";
import { CustomerLogo } from "@/ui/shop/customer-logo";
import { SetupList } from "@/ui/shop/setup-list";
import { keepCustomer, keepCustomerLogo } from "../../actions";

export const metadata: Metadata = { title: "Customers" };

export default async function CustomersPage() {
  const person = await personOnPage("release");
  const at = now();
  const [all, { timeZone }, versions] = await Promise.all([
    setupAt(database(), "customer", at),
    siteAt(database(), at),
    versionsOfKind(database(), "customer"),
  ]);
  return (
    <SetupList
      here="customers"
      title="Customers"
      above="Whose parts come in"
      people={may(person.role, "administer")}
      empty="No customer yet. Put the first on record below: work is received for one."
      items={all.values()}
      grid="grid-cols-[80px_minmax(0,1fr)]"
      line={({ data }) => (
        <span>
          {data.name}
          <span className="small soft block">
            {[data.contact, data.acceptance ? "looked at by their own classes" : ""]
              .filter((words) => words !== "")
              .join("; ")}
          </span>
        </span>
      )}
      open={(item) => (
        <>
          <CustomerForm
            key={item.versionId}
            known={{ code: item.code, seen: item.versionId, ...item.data }}
            save={keepCustomer}
          />
          <CustomerLogo code={item.code} logo={item.data.paper.logo} attach={keepCustomerLogo} />
        </>
      )}
      more={<CustomerForm known={null} save={keepCustomer} />}
      changed={{ versions, timeZone }}
    />
  );
}
