import type { Metadata } from "next";
import { database } from "@/server/database";
import { now } from "@/server/now";
import { setupAt, siteAt } from "@/server/setup/setup-data";
import { versionsOfKind } from "@/server/shop/save-shop";
import { personOnPage } from "@/server/sign-in/person";
import { may } from "@/server/sign-in/roles";
import { planStates } from "@/server/test-plan/plan-states";
import { Verdict } from "@/ui/marks/verdict";
import { SetupList } from "@/ui/shop/setup-list";
import { TestPlanForm } from "@/ui/shop/test-plan-form";
import { everySaid, levelName, plannedTestName } from "@/ui/words/test-plan";
import { keepTestPlan } from "../../actions";

export const metadata: Metadata = { title: "Test plans" };

const levelMark = { normal: "in", tightened: "watch", eased: "in" } as const;

export default async function TestPlansPage() {
  const person = await personOnPage("release");
  const at = now();
  const [plans, customers, parts, { timeZone }, versions] = await Promise.all([
    setupAt(database(), "test-plan", at),
    setupAt(database(), "customer", at),
    setupAt(database(), "part", at),
    siteAt(database(), at),
    versionsOfKind(database(), "test-plan"),
  ]);
  const states = await planStates(database(), plans.values());
  const named = (all: Iterable<{ readonly code: string; readonly data: { readonly name: string } }>) =>
    [...all].map((item): readonly [string, string] => [item.code, item.data.name]);
  const choices = { customers: named(customers.values()), parts: named(parts.values()) };
  const nameOf = (all: readonly (readonly [string, string])[], code: string) =>
    all.find(([c]) => c === code)?.[1] ?? code;
  return (
    <SetupList
      here="test-plans"
      title="Test plans"
      above="What is tested how often, on whose work"
      people={may(person.role, "administer")}
      empty="No plan yet: every rack is asked for everything its job requires. Put one on record below where one test may speak for more than one rack."
      items={plans.values()}
      grid="grid-cols-[70px_minmax(0,1fr)]"
      line={({ id, data }) => (
        <span>
          {data.name}
          {data.retired && <span className="soft"> (no longer used)</span>}
          <span className="small soft block">
            {[
              data.scope.job && `job ${data.scope.job}`,
              data.scope.part && nameOf(choices.parts, data.scope.part),
              data.scope.customer && nameOf(choices.customers, data.scope.customer),
              data.scope.exposure.length > 0 && data.scope.exposure.join(" or ").replaceAll("-", " "),
            ]
              .filter(Boolean)
              .join(", ") || "all work that no closer plan is for"}
          </span>
          {data.lines.map((l) => {
            const state = states.get(`${id} ${l.test}`);
            return (
              <span key={l.test} className="small block">
                {plannedTestName(l.test)}: {everySaid(l.every, l.n)}
                {l.first && ", before the rest is coated"}{" "}
                {state && (
                  <Verdict result={levelMark[state.level]}>
                    {levelName[state.level]}, {state.good} good in a row
                  </Verdict>
                )}
              </span>
            );
          })}
        </span>
      )}
      open={(item) => (
        <TestPlanForm
          key={item.versionId}
          known={{ code: item.code, seen: item.versionId, ...item.data }}
          {...choices}
          save={keepTestPlan}
        />
      )}
      more={<TestPlanForm known={null} {...choices} save={keepTestPlan} />}
      changed={{ versions, timeZone }}
    />
  );
}
