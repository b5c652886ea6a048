import { execFileSync } from "node:child_process";
import { writeFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { choose, signIn, test } from "../support/browser";

/** Everything below is done with the keyboard alone. */
const go = async (page: Page, word: string) => {
  await page.keyboard.press("/");
  await page.keyboard.type(word);
  await expect(page.locator("#entry-said")).not.toContainText("looking for");
  await page.keyboard.press("Enter");
};
const line = async (page: Page, text: string, answer: string | RegExp = /^Recorded/) => {
  await page.keyboard.press("/");
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
  await expect(page.locator("#entry-said")).toHaveText(answer);
  await page.keyboard.press("Escape");
};
const press = async (page: Page, name: string | RegExp) => {
  const button = page.getByRole("button", { name });
  await button.focus();
  await expect(button).toBeFocused();
  await page.keyboard.press("Enter");
};
const follow = async (page: Page, name: string) => {
  const link = page.getByRole("link", { name, exact: true }).first();
  await link.focus();
  await page.keyboard.press("Enter");
};

test("one inspector walks the whole line: bath, film, cure, bench, release, field, causes", async ({ page }) => {
  test.setTimeout(150_000);
  const errors: string[] = [];
  page.on("pageerror", (e) => errors.push(e.message));
  page.on(
    "console",
    (m) => m.type() === "error" && /Content Security|violates|Hydration/i.test(m.text()) && errors.push(m.text()),
  );

  await page.goto("/sign-in");
  await page.getByLabel("User name").focus();
  await page.keyboard.type("ines");
  await page.keyboard.press("Tab");
  await page.keyboard.type("ines-tarnwick-quay");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "What needs a hand now" })).toBeVisible();

  // A bath check by the entry line: understood before it is kept, refused with the value, then kept.
  await page.keyboard.press("/");
  await page.keyboard.type("tank 3 ph 51");
  await expect(page.locator("#entry-said")).toContainText("51 for ph is beyond what the instrument can read (0 to 14)");
  await page.keyboard.press("Escape");
  await line(page, "tank 3 ph 5.31 at 47C titr 8.4");
  await go(page, "tank 3");
  await expect(page).toHaveURL(/pretreat\/tank-3/);
  await expect(page.getByText("5.31", { exact: false }).first()).toBeVisible();

  // By the form on the bath's own page.
  await page.getByLabel("pH", { exact: true }).focus();
  await page.keyboard.type("5.33");
  await page.keyboard.press("Tab");
  await page.keyboard.type("46");
  await press(page, "Record round");
  await expect(page.getByRole("status").filter({ hasText: "Recorded." }).first()).toBeVisible();

  // The rack in hand: three readings are missing on its last spot.
  await go(page, "test");
  await expect(page.getByRole("heading", { name: "Test" })).toBeVisible();
  const open = page.getByRole("link", { name: /Tram shelter post.*Film in hand/ }).first();
  const number = ((await open.locator(".fig").first().textContent()) ?? "").trim();
  await open.focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "Film thickness" })).toBeVisible();
  await expect(page.getByText("B5 not read")).toBeVisible();
  await page.keyboard.type("61.5 ");
  await page.keyboard.press("Enter");
  await page.keyboard.type("62.4");
  await page.keyboard.press("Enter");
  await page.keyboard.type("63");
  await page.keyboard.press("Enter");
  await expect(page.getByText("B5 not read")).toBeHidden();
  await page.keyboard.press("Escape");
  await press(page, "Record 3 readings");
  await expect(page.getByText("3 readings recorded.")).toBeVisible();
  await expect(page.getByText("30 of 30")).toBeVisible();

  // Cure: the lowest live metal channel decides.
  await page.goto(`/racks/${number}`);
  await follow(page, "Film");
  await expect(page).toHaveURL(/thickness/);
  await page.goto(`/racks/${number}/cure`);
  await expect(page.getByText(/Lowest index, on Post foot/)).toBeVisible();
  const slider = page.getByRole("slider", { name: "Oven trace: values" });
  await slider.focus();
  await page.keyboard.press("End");
  await expect(slider).toHaveAttribute("aria-valuetext", /°C/);

  // Bench by the entry line.
  await line(page, `rack ${number} cut 0/25`);
  await line(page, `rack ${number} rub 5`);

  // Release: refused with a wrong password, then signed.
  await page.goto(`/racks/${number}/release`);
  await expect(page.getByText(/Cross-cut grade 0/)).toBeVisible();
  await page.getByRole("radio", { name: "Accepted", exact: true }).focus();
  await page.keyboard.press("Space");
  await page.getByLabel("Reason, in a sentence").focus();
  await page.keyboard.type("Film, cure and adhesion seen and in");
  await page.keyboard.press("Tab");
  await page.keyboard.type("not-my-password");
  await page.keyboard.press("Enter");
  await expect(page.getByText("That password is not yours")).toBeVisible();
  await expect(page.getByLabel("Reason, in a sentence")).toHaveValue("Film, cure and adhesion seen and in");
  await page.getByLabel("Your password signs it").focus();
  await page.keyboard.type("ines-tarnwick-quay");
  await page.keyboard.press("Enter");
  const certificate = page.getByRole("link", { name: "Certificate, PDF" });
  await expect(certificate).toBeVisible();
  const pdf = await page.request.get((await certificate.getAttribute("href")) ?? "");
  expect(pdf.status()).toBe(200);
  writeFileSync("test-results/certificate.pdf", await pdf.body());
  const text = execFileSync("pdftotext", ["-layout", "test-results/certificate.pdf", "-"], { encoding: "utf8" });
  expect(text).toContain(`Certificate ${number}`);
  expect(text).toContain("µm");
  expect(text).toContain("Signed with password by Ines Calder");
  expect(text).toContain("Not measured");

  // Whoever holds the paper checks it by what is printed on it, or its file, signed in or not.
  const printed = /mark ((?:[0-9a-f]{4} ?){5})/.exec(text)?.[1]?.trim() ?? "";
  const certified = /Certificate (\S+)/.exec(text)?.[1] ?? "";
  const outsider = await (await page.context().browser())?.newContext({ baseURL: new URL(page.url()).origin });
  const paper = await outsider?.newPage();
  if (!paper) throw new Error("no second browser");
  await paper.goto("/check");
  await paper.getByLabel("Number of the certificate").fill(certified);
  await paper.getByLabel("Mark beside its code").fill(printed);
  await paper.keyboard.press("Enter");
  await expect(paper.getByRole("status")).toContainText("On record, and stands");
  await expect(paper.locator("body")).not.toContainText(/Ines|Calder|µm/);
  await paper.getByLabel("Mark beside its code").fill(printed.replace(/^./, (c) => (c === "0" ? "1" : "0")));
  await paper.getByRole("button", { name: "Check the paper" }).click();
  await expect(paper.getByRole("status")).toContainText("Not on record");
  const compare = async (name: string, mimeType: string, buffer: Buffer) => {
    await paper.getByLabel("PDF file of the certificate").setInputFiles({ name, mimeType, buffer });
    await paper.getByRole("button", { name: "Compare the file" }).click();
  };
  await compare("certificate.pdf", "application/pdf", await pdf.body());
  await expect(paper.getByText("to the last byte")).toBeVisible();
  await compare("notes.txt", "text/plain", Buffer.from("not a certificate"));
  await expect(paper.getByRole("alert").filter({ hasText: "notes.txt" })).toContainText("is not a PDF");
  await compare("changed.pdf", "application/pdf", Buffer.concat([await pdf.body(), Buffer.from("\n")]));
  await expect(paper.getByText("No certificate was given out as this file")).toBeVisible();
  await outsider?.close();

  // The whole job leaves as JSON and CSV.
  await page.goto(`/racks/${number}`);
  const job = await page.getByRole("link", { name: "Whole job, JSON" }).getAttribute("href");
  const json = await (await page.request.get(job ?? "")).json();
  expect(json).toMatchObject({ format: "sorrel-job", version: 1 });
  expect(json.racks.find((r: { number: string }) => r.number === number).records.length).toBeGreaterThan(10);

  // Field: a visit with creep from a chip.
  await go(page, "jetty");
  await expect(page.getByRole("heading", { name: "Jetty A seats" })).toBeVisible();
  await page.getByLabel("Zone", { exact: true }).focus();
  await page.keyboard.type("bay 3, leg");
  await page.getByLabel("Widths in mm", { exact: false }).focus();
  await page.keyboard.type("4.1 4.4 4.7 4.2 4.5 4.3");
  await expect(page.getByText("4.4 mm, rating 5")).toBeVisible();
  await page.getByLabel("Rusted, % of zone").fill("0.5");
  await expect(page.getByText("Ri 2", { exact: true })).toBeVisible();
  await press(page, "Record visit");
  await expect(page.getByText("Recorded.", { exact: true }).first()).toBeVisible();
  const zones = page.getByRole("region", { name: "Zones" });
  await expect(zones.getByText("bay 3, leg", { exact: true })).toBeVisible();
  await expect(zones.getByText(/creep 4.4 mm, rust 0.5\s%/)).toBeVisible();

  // Causes: an answered check moves the ranking; a person confirms.
  await go(page, "case 29");
  await expect(page.getByText("No primer for a corrosive exposure").first()).toBeVisible();
  await expect(page.getByText(/declined by the ferry line/)).toBeVisible();
  const next = page
    .locator("section")
    .filter({ has: page.getByRole("heading", { name: "Next best check" }) })
    .last();
  expect(await next.getByRole("button", { name: "No", exact: true }).count()).toBe(3);
  await next.getByRole("button", { name: "No", exact: true }).first().focus();
  await page.keyboard.press("Enter");
  await expect(page.getByText("4 asked")).toBeVisible();
  await page.getByText("Confirm with proof").focus();
  await page.keyboard.press("Enter");
  await choose(page.getByRole("combobox", { name: "Cause", exact: true }), "No primer for a corrosive exposure");
  await page.getByLabel("Proof: what settled it").focus();
  await page.keyboard.type("Primed sisters on the next jetty show no creep");
  await page.getByLabel("Corrective action", { exact: false }).focus();
  await page.keyboard.type("Primer is part of every quayside quote");
  await page.getByLabel("Who", { exact: true }).focus();
  await page.keyboard.type("Ines Calder");
  await page.keyboard.press("Enter");
  await expect(page.getByText(/Confirmed: no primer/)).toBeVisible();
  // What keeps it away is open work until somebody says that it did.
  const action = page.getByRole("region", { name: "Corrective action" });
  await expect(action.getByText("Nobody has said yet whether it was done.")).toBeVisible();
  await action.getByLabel("What was done, or seen").focus();
  await page.keyboard.type("Quotes since June all name it");
  const asks = action.getByRole("button", { name: "Record what was found" });
  await asks.focus();
  await page.keyboard.press("Enter");
  await expect(action.getByText(/no day to come/)).toBeVisible();
  await action.getByRole("combobox", { name: "The corrective action" }).focus();
  await page.keyboard.press("Enter");
  await page.getByRole("option", { name: "Done; it stayed away" }).press("Enter");
  await asks.focus();
  await page.keyboard.press("Enter");
  await expect(action.getByText("Quotes since June all name it")).toBeVisible();
  expect(errors).toEqual([]);
});

test("the gauge streams into the ringed spots", async ({ page }) => {
  await signIn(page, "tomasz");
  await page.goto("/test");
  await page
    .getByRole("link", { name: /Landing-stage seat.*Film in hand/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Start gauge 731" }).click();
  await expect(page.getByRole("button", { name: "Record 3 readings" })).toBeVisible({ timeout: 10_000 });
  // Not yet recorded, they survive a reload.
  await page.reload();
  await expect(page.getByRole("button", { name: "Record 3 readings" })).toBeVisible();
});
