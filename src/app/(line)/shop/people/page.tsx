import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { listPeople } from "@/server/shop/people";
import { personOnPage } from "@/server/sign-in/person";
import { Fold } from "@/ui/fields/fold";
import { countOf, dateAndTime } from "@/ui/format";
import { Margin, MarginBlock } from "@/ui/frame/margin";
import { PageHead } from "@/ui/frame/page-head";
import { Verdict } from "@/ui/marks/verdict";
import { PersonForm, PersonKeys } from "@/ui/shop/person-forms";
import { ShopTabs } from "@/ui/shop/shop-tabs";
import { personEventName, roleName, roleSaid } from "@/ui/words/people";
import { doToPerson, giveCode, keepPersonOf } from "../../actions";

export const metadata: Metadata = { title: "People" };

/** How someone stands: what keeps them out first. */
const standing = (p: { lockedAt: Date | null; hasPassword: boolean; sessions: number }) =>
  p.lockedAt
    ? (["out", "locked out"] as const)
    : !p.hasPassword
      ? (["watch", "no password yet"] as const)
      : p.sessions > 0
        ? (["in", `signed in, ${countOf(p.sessions, "place")}`] as const)
        : (["unknown", "not signed in"] as const);

export default async function PeoplePage() {
  const person = await personOnPage("administer");
  const at = now();
  const [people, customers, site] = await Promise.all([
    listPeople(database(), at),
    setupAt(database(), "customer", at),
    siteAt(database(), at),
  ]);
  const offered = [...customers.values()].map((c) => ({ code: c.code, name: c.data.name }));
  return (
    <>
      <section className="bench">
        <PageHead above="Who is of the shop, and what each may do" title="People">
          <span className="small soft">{countOf(people.length, "person", "people")}</span>
        </PageHead>
        <ShopTabs here="people" people />
        <div className="ruled mt-3">
          {people.map((p) => {
            const [result, word] = standing(p);
            return (
              <Fold
                key={p.id}
                id={p.username}
                className="border-rule border-b"
                summaryClassName="row min-h-[52px] list-none grid-cols-[110px_minmax(0,1fr)_170px_190px] items-center border-0 hover:bg-sorrel-tint max-[700px]:grid-cols-[96px_minmax(0,1fr)] w-full"
                summary={
                  <>
                    <b className="fig">{p.username}</b>
                    <span>{p.name}</span>
                    <span className="soft">
                      {roleName[p.role]}
                      {p.customer ? `, ${p.customer.name}` : ""}
                    </span>
                    <Verdict result={result}>{word}</Verdict>
                  </>
                }
              >
                <div className="grid gap-4 pt-1 pb-4">
                  <PersonKeys
                    username={p.username}
                    name={p.name}
                    locked={p.lockedAt !== null}
                    sessions={p.sessions}
                    own={p.id === person.id}
                    act={doToPerson}
                    giveCode={giveCode}
                  />
                  <PersonForm
                    key={`${p.name}${p.role}${p.customer?.code}`}
                    person={{ username: p.username, name: p.name, role: p.role, customer: p.customer?.code ?? "" }}
                    customers={offered}
                    save={keepPersonOf}
                  />
                  {p.events.length > 0 && (
                    <div>
                      <h3 className="m-0">What was done</h3>
                      {p.events.map((e) => (
                        <p key={`${e.at.getTime()}${e.what}`} className="small m-0">
                          <span className="fig">{dateAndTime(e.at, site.timeZone)}</span> {personEventName[e.what]}
                          {e.note ? ` (${e.note})` : ""} <span className="faint">{e.by}</span>
                        </p>
                      ))}
                    </div>
                  )}
                </div>
              </Fold>
            );
          })}
        </div>
        <section className="ruled mt-6" aria-label="Someone new">
          <h2 className="mb-2">Someone new</h2>
          <PersonForm person={null} customers={offered} save={keepPersonOf} />
        </section>
      </section>
      <Margin step="shift">
        <MarginBlock title="What each role may do">
          {Object.entries(roleSaid).map(([role, said]) => (
            <p key={role} className="small m-0 mb-1.5">
              <b>{role}</b> {said}
            </p>
          ))}
        </MarginBlock>
        <MarginBlock title="Passwords">
          <p className="small">
            Nobody’s password is known here. A code works once, within a day, and sets a new one; a user name stays for
            good, since the record cites it. Who leaves is locked out, not taken off: what they recorded stays theirs.
          </p>
        </MarginBlock>
      </Margin>
    </>
  );
}
