import { expect } from "@playwright/test";
import { choose, pageOfItsOwn, signIn, test } from "../support/browser";

const nasty = [
  "",
  " ",
  "0",
  "-1",
  "1e309",
  "NaN",
  "null",
  "undefined",
  "' or 1=1 --",
  "<script>alert(1)</script>",
  "../../etc/passwd",
  "%2e%2e%2f",
  "\u0000",
  "😀",
  "x".repeat(3000),
  "{}",
  "[]",
  "9".repeat(40),
];

test("no route answers 500 to anything in its address", async ({ page }) => {
  test.setTimeout(120_000);
  await signIn(page, "ines");
  const paths = nasty.flatMap((n) => {
    const e = encodeURIComponent(n);
    return [
      `/api/jobs/${e}/export.json`,
      `/api/jobs/${e}/readings.csv`,
      `/api/racks/${e}/certificate.pdf`,
      `/api/files/${e}`,
      `/api/instruments/${e}`,
      `/racks/${e}`,
      `/causes/${e}`,
      `/field/${e}`,
      `/pretreat/${e}`,
      `/cure/ovens/${e}`,
      `/cure/ovens/${e}/set-up`,
      `/cure/loads/oven-1/${e}`,
      `/cure/loads/${e}/1?closed=${e}`,
      `/test/film?days=${e}&powder=${e}&part=${e}`,
      `/jobs/${e}`,
      `/records?kind=${e}&rack=${e}&before=${e}`,
      `/records?before=2026-11-25T10:00:00.000Z&id=${e}`,
      `/sign-in?to=${e}`,
    ];
  });
  const failures: string[] = [];
  for (const path of paths) {
    const response = await page.request
      .get(path, { maxRedirects: 0 })
      .catch((error: Error) => ({ status: () => (/invalid|redirect/i.test(error.message) ? 400 : 599) }));
    if (response.status() >= 500) failures.push(`${response.status()} ${path.slice(0, 80)}`);
  }
  expect(failures).toEqual([]);
});

test("nothing typed on the entry line is stored that is not understood", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/");
  for (const text of [
    "tank 3 ph",
    "tank 3 ph abc",
    "tank 3 temp 900C",
    "rack 1042 dft a3 -5",
    "rack 1042 cut 30/25",
    "rack 1042 rub 9",
    "rack 9999 in booth",
    "tank 99 ph 5.2",
    "tank 3 cond 1,233",
  ]) {
    await page.keyboard.press("/");
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
    await expect(page.locator("#entry-said")).not.toHaveText(/Recorded|Recording/);
    await expect(page.locator("#entry-said")).not.toHaveText("");
    await expect(page.getByLabel("Entry line")).toHaveValue(text);
    await page.keyboard.press("Escape");
  }
});

test("a double click and two people at once: one record, and the second is told", async ({ browser, baseURL }) => {
  const first = await pageOfItsOwn(browser, baseURL);
  const second = await pageOfItsOwn(browser, baseURL);
  await signIn(first, "ines");
  await signIn(second, "dagny");
  for (const page of [first, second]) {
    await page.goto("/racks/0870/release");
    await page.getByText("Held", { exact: true }).first().click();
    await page.getByLabel("Reason, in a sentence").fill("Looked at together");
  }
  await first.getByLabel("Your password signs it").fill("ines-tarnwick-quay");
  await first.getByRole("button", { name: "Sign and record" }).dblclick();
  await expect(first.getByText(/by Ines Calder.*Looked at together/)).toBeVisible();
  await expect(first.locator("aside").getByText("Looked at together")).toHaveCount(1);
  await second.getByLabel("Your password signs it").fill("dagny-tarnwick-quay");
  await second.getByRole("button", { name: "Sign and record" }).click();
  await expect(second.getByText("Ines Calder decided meanwhile: Held")).toBeVisible();
  await expect(second.getByLabel("Reason, in a sentence")).toHaveValue("Looked at together");
});

test("forms say what is wrong with the value and keep it", async ({ page }) => {
  await signIn(page, "tomasz");
  await page.goto("/pretreat/tank-3");
  await page.getByLabel("pH", { exact: true }).fill("seven");
  await page.getByRole("button", { name: "Record round" }).click();
  await expect(page.getByText("“seven” is not a number").first()).toBeVisible();
  await page.getByLabel("pH", { exact: true }).fill("51");
  await page.getByRole("button", { name: "Record round" }).click();
  await expect(page.getByText(/51 for ph is beyond what the instrument can read/).first()).toBeVisible();
  await page.getByLabel("pH", { exact: true }).fill("");
  await page.getByLabel("titrant, mL").fill("0.1");
  await page.getByRole("button", { name: "Record round" }).click();
  await expect(page.getByText("The blank (0.2 mL) is more than the titrant (0.1 mL)").first()).toBeVisible();
  await page.goto("/field/jetty-a");
  await page.getByLabel("Widths in mm", { exact: false }).fill("1 2 x");
  await expect(page.getByText("“x” is not a number")).toBeVisible();
  await choose(page.getByLabel("Measured from"), "a scribe, by widths");
  await page.getByLabel("Widths in mm", { exact: false }).fill("0.1 0.1 0.1 0.1 0.1 0.1");
  await expect(page.getByText(/mean width \(0.1 mm\) is less than the scribe/)).toBeVisible();
  await page.goto("/records/import");
  await page
    .getByLabel("File", { exact: true })
    .setInputFiles({ name: "x.csv", mimeType: "text/csv", buffer: Buffer.from([0x4e, 0x6f, 0x00, 0xfe, 0x0a]) });
  await page.getByRole("button", { name: "Read it" }).click();
  await expect(page.getByText("This is no text and no spreadsheet")).toBeVisible();
  await page
    .getByLabel("File", { exact: true })
    .setInputFiles({ name: "plain.txt", mimeType: "text/plain", buffer: Buffer.from("72.1\n73.2\n") });
  await page.getByRole("button", { name: "Read it" }).click();
  await expect(page.getByText("The file names no unit")).toBeVisible();
  await choose(page.getByLabel("Unit of the readings"), "µm");
  await page.getByRole("button", { name: "Read it" }).click();
  await expect(page.getByText("µm, from the person")).toBeVisible();
});
