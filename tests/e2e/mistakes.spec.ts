import { expect, type Page } from "@playwright/test";
import { now } from "../../src/server/now";
import { hang, localInput, signIn, test, traceOfRack } from "../support/browser";

const MINUTE = 60_000;
const RACK = "M401";
/** What is typed on the entry line, and what it answers. */
const say = async (page: Page, text: string, answer: RegExp) => {
  await page.keyboard.press("/");
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
  await expect(page.locator("#entry-said")).toHaveText(answer);
  await page.keyboard.press("Escape");
};
const traceFile = (rows: number) => ({
  name: "m401.csv",
  mimeType: "text/csv",
  buffer: Buffer.from(
    `Time,Air (C),Seat (C),Leg (C)\n${Array.from({ length: rows }, (_, i) => {
      const c = (tau: number) => (200 - 180 * Math.exp((-i * 20) / tau)).toFixed(1);
      return `${i * 20},${c(120)},${c(200)},${c(320)}`;
    }).join("\n")}\n`,
  ),
});

test("a day of mistakes: each is caught in words, and nothing is signed that was not looked at", async ({ page }) => {
  test.setTimeout(240_000);
  await signIn(page, "ines");
  const began = now().getTime() - 180 * MINUTE;
  const clock = (minutes: number) => page.clock.setSystemTime(began + minutes * MINUTE);
  await clock(0);
  await hang(page, "J-410", RACK, 2);

  // The wash is skipped.
  await page.goto(`/racks/${RACK}/coat`);
  await page.getByRole("button", { name: "Record coat" }).press("Enter");
  await expect(page.getByText(/a wash that is not on record: clean, conversion, rinse/)).toBeVisible();

  // Two seconds in the conversion bath.
  await say(page, `rack ${RACK} in clean`, /^Recorded/);
  await clock(2);
  await say(page, `rack ${RACK} in conversion`, /^Recorded/);
  await page.clock.setSystemTime(began + 2 * MINUTE + 2000);
  await say(page, `rack ${RACK} in rinse`, /^Recorded/);

  // Coated with the earth out: stop, until it is read anew.
  await clock(10);
  await page.goto(`/racks/${RACK}/coat`);
  await page.locator("#pf-hook-part").fill("42");
  await page.getByRole("button", { name: "Record the pre-flight" }).press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "no powder goes on until it is put right" })).toBeVisible();
  await page.locator("#coat-kv").fill("70");
  await page.getByRole("button", { name: "Record coat" }).press("Enter");
  await expect(page.getByText(/Stop: the earth is poor/)).toBeVisible();
  await clock(15);
  await page.getByText("Look again", { exact: true }).first().click();
  await page.locator("#pf-hook-part").fill("0.3");
  await page.getByRole("button", { name: "Record the pre-flight" }).press("Enter");
  await expect(page.getByText("no powder goes on until it is put right")).toBeHidden();
  await clock(20);
  await page.locator("#coat-kv").fill("70");
  await page.getByRole("button", { name: "Record coat" }).press("Enter");
  await expect(page.getByText("1 coat on record")).toBeVisible();

  // Bumped, and a mask missing: both hold the oven.
  await clock(25);
  const lamp = page.getByRole("region", { name: "Loose powder under the lamp" });
  await lamp.getByRole("button", { name: "It was bumped" }).press("Enter");
  await expect(page.getByRole("region", { name: "Open" }).getByText("Bumped")).toBeVisible();
  await lamp.getByText("Look again").click();
  for (const face of ["Seat", "Legs"]) await lamp.getByRole("button", { name: face, exact: true }).press("Enter");
  await lamp.getByLabel(/^Plugs in/).fill("1");
  await lamp.getByRole("button", { name: "Record the look under the lamp" }).press("Enter");
  await expect(page.getByRole("region", { name: "Open" }).getByText(/Plug missing, 1 of 2 in/)).toBeVisible();
  // A later look undoes no bump.
  await expect(page.getByRole("region", { name: "Open" }).getByText("Bumped")).toBeVisible();
  await clock(30);
  await say(page, `oven 2 load M9 ${RACK}`, /waits before the oven: .*Bumped|waits before the oven: .*bumped/i);
  for (const what of ["Bumped", "Plug missing"]) {
    await page.getByLabel(new RegExp(`What you saw: ${what}`)).fill("looked at, put right");
    await page.getByLabel(new RegExp(`What you saw: ${what}`)).press("Enter");
    await expect(page.getByRole("region", { name: "Open" }).getByText(new RegExp(what))).toHaveCount(0);
  }

  // In the oven: a rehearsal leaves nothing behind.
  await clock(40);
  await say(page, `oven 2 load M9 ${RACK}`, /^Recorded/);
  await page.goto("/cure/loads/oven-2/M9");
  await page.getByRole("button", { name: "Follow it 60×, to practise" }).press("Enter");
  await expect(page.getByText("Practice, 60 times the clock.")).toBeVisible();
  await page.getByRole("button", { name: "End the practice" }).press("Enter");
  await page.clock.setSystemTime(now());
  await page.getByRole("button", { name: "Pulled now" }).press("Enter");
  await expect(page.getByRole("link", { name: new RegExp(`${RACK}.*no trace.*By procedure`) })).toBeVisible();

  // The wrong trace: of a moment before the coat; then of another moment than the load.
  const store = async (minutes: number) => {
    await page.goto("/records/import");
    await page.getByLabel("File", { exact: true }).setInputFiles(traceFile(100));
    await page.getByRole("button", { name: "Read it", exact: true }).click();
    await traceOfRack(page, RACK);
    await page.getByLabel("Trace began").fill(localInput(new Date(began + minutes * MINUTE)));
    await page.getByRole("button", { name: "Store all of it" }).click();
  };
  await store(-40);
  await expect(page.getByText(/Its coat is on record at .*, after this bake began/)).toBeVisible();
  await store(70);
  await expect(page.getByText(/Load M9 of this rack was closed at .*; this trace began at/)).toBeVisible();

  // Two spots read of all of them, one of them far too thin: said as it is kept.
  await say(page, `rack ${RACK} dft s1 72 75 71`, /^Recorded\. In: /);
  await say(page, `rack ${RACK} dft s2 31 30 32`, /^Recorded\. Out: 31\.0 µm/);

  // Nothing of that can be accepted; each is named.
  await page.goto(`/racks/${RACK}/release`);
  await expect(page.getByText("Too short")).toBeVisible();
  await expect(page.getByText(/Accept is closed\..*[Oo]ut: .*film.*[Nn]ot known: .*cure/s)).toBeVisible();
  await expect(page.getByRole("radio", { name: "Accepted", exact: true })).toBeDisabled();
  await page.getByText("Accepted by concession", { exact: true }).click();
  await expect(page.getByText("This concession covers, and the certificate names:")).toBeVisible();
  await page.getByLabel("Who of the customer’s takes it so").fill("Their yard master");
  await page.getByLabel("Their word, and where it is written").fill("taken for the yard bench, letter of Monday");
  await page.getByLabel("Reason, in a sentence").fill("for the yard bench, customer told");
  await page.getByLabel("Your password signs it").fill("ines-tarnwick-quay");
  await page.getByRole("button", { name: "Sign and record" }).press("Enter");
  const certificate = page.getByRole("link", { name: "Certificate, PDF" });
  await expect(certificate).toBeVisible();
  const href = (await certificate.getAttribute("href")) ?? "";
  const signed = await (await page.request.get(href)).body();

  // A check of the bath after signing: what was signed stays, and a lead is asked to look again.
  await page.clock.setSystemTime(began + 4 * MINUTE);
  await page.keyboard.press("/");
  await page.keyboard.type("tank 3 ph 7.4");
  await page.keyboard.press("Enter");
  // Where it is far from what it usually was it is asked about first, and taken as it stands.
  const said = page.locator("#entry-said");
  await expect(said).toHaveText(/Enter once more keeps it|^Recorded\. Out: pH 7\.4/);
  if (/once more/.test((await said.textContent()) ?? "")) await page.keyboard.press("Enter");
  await expect(said).toHaveText(/^Recorded\. Out: pH 7\.4/);
  await page.clock.setSystemTime(now());
  await page.goto("/");
  await page.getByText(/^and \d+ more$/).click();
  await expect(page.getByRole("link", { name: new RegExp(`Rack ${RACK}, look again`) })).toBeVisible();
  expect((await (await page.request.get(href)).body()).equals(signed)).toBe(true);
});
