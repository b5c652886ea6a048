import { expect } from "@playwright/test";
import { choose, coated, pageOfItsOwn, say, signIn, test } from "../support/browser";

const JOB = "J-411";
const [FIRST, SECOND] = ["WK61", "WK62"];

test("a plan asks one rack for the cut and the other stands by it; that is touched up, conceded by name, certified, and its paper checked", async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(150_000);
  await signIn(page, "ines");

  // A plan for one job, by key: the cut on one rack of the job.
  await page.goto("/shop/test-plans");
  const plan = page.getByRole("region", { name: "One more" });
  await plan.getByLabel("What it is called").fill("Walk");
  await plan.getByLabel("For one job alone, by its number").fill(JOB);
  const every = plan.getByRole("combobox", { name: "on", exact: true });
  await choose(every, "one of each job");
  await plan.getByLabel("Where it comes from").fill("their order of Monday");
  await plan.getByLabel("Where it comes from").press("Enter");
  await expect(page.getByText(`job ${JOB}`)).toBeVisible();

  await coated(page, JOB, FIRST);
  await coated(page, JOB, SECOND);
  await page.goto(`/racks/${SECOND}/bench`);
  await expect(page.getByRole("link", { name: /Adhesion.*Waits for its sample/ })).toBeVisible();
  await say(page, `rack ${FIRST} cut 0/25`);
  await page.reload();
  await expect(page.getByRole("link", { name: /Adhesion.*Holds, by sample/ })).toBeVisible();

  // Sent back for a touch-up: the card grows by it, the list is ticked off.
  await page.goto(`/racks/${SECOND}/release`);
  const sign = async (decision: string, reason: string) => {
    await page.getByRole("radio", { name: decision, exact: true }).press("Space");
    await page.getByLabel("Reason, in a sentence").fill(reason);
    await page.getByLabel("Your password signs it").fill("ines-tarnwick-quay");
    await page.getByRole("button", { name: "Sign and record" }).press("Enter");
  };
  await sign("Touch up", "hang marks in sight");
  await expect(page.getByText(/by Ines Calder.*hang marks in sight/)).toBeVisible();
  await page.goto(`/jobs/${JOB}/route-card?rack=${SECOND}`);
  await expect(page.getByText("Touch up the places on the list")).toBeVisible();

  // Taken as it is by somebody of the customer's, each gap named.
  await page.goto(`/racks/${SECOND}/release`);
  await page.getByRole("radio", { name: "Accepted by concession", exact: true }).press("Space");
  await page.getByLabel("Who of the customer’s takes it so").fill("Their foreman");
  await page.getByLabel("Their word, and where it is written").fill("taken so, by letter of Monday");
  await page.getByLabel("Where on the piece").fill("zone C");
  await page.getByLabel("Reason, in a sentence").fill("trial frames, never go outdoors");
  await page.getByLabel("Your password signs it").fill("ines-tarnwick-quay");
  await page.getByRole("button", { name: "Sign and record" }).press("Enter");
  await expect(page.getByRole("link", { name: "Certificate, PDF" })).toBeVisible();

  // Its paper: by sample stands on it; whoever holds it checks it without signing in, another mark is none.
  const told = await (await page.request.get(`/api/racks/${SECOND}/certificate.json`)).json();
  expect(told.items.find((i: { name: string }) => i.name === "Adhesion")).toMatchObject({
    word: "Holds, by sample",
    grade: "by procedure",
  });
  expect(told.conceded).toContain("Taken by Their foreman: taken so, by letter of Monday");
  const pdf = await page.request.get(`/api/racks/${SECOND}/report.pdf`);
  expect(pdf.status()).toBe(200);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe("%PDF-");
  const holder = await pageOfItsOwn(browser, baseURL);
  const { pathname, search } = new URL(told.check.address);
  await holder.goto(`${pathname}${search}`);
  await expect(holder.getByText(/on record/i).first()).toBeVisible();
  await expect(holder.getByText("Their foreman")).toHaveCount(0);
  await holder.getByLabel("Mark beside its code").fill("0000 0000 0000 0000");
  await holder.keyboard.press("Enter");
  await expect(holder.getByText(/not on record|no such|does not/i).first()).toBeVisible();
  await holder.context().close();

  // A person held to another customer gets neither paper.
  const otto = await pageOfItsOwn(browser, baseURL);
  await signIn(otto, "otto");
  expect((await otto.request.get(`/api/racks/${SECOND}/report.pdf`)).status()).toBe(404);
  await otto.context().close();
});
