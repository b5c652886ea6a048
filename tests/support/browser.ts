import { type Browser, test as base, chromium, type Page } from "@playwright/test";
import { now } from "../../src/server/now";

/** Debian's Chromium, with its background traffic off. */
export const launchOptions = {
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
  chromiumSandbox: false,
  args: [
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
};
export const launch = (): Promise<Browser> => chromium.launch(launchOptions);

export async function signIn(page: Page, username: string, base = ""): Promise<void> {
  await page.goto(`${base}/sign-in`);
  await page.getByLabel("User name").fill(username);
  await page.getByLabel("Password").fill(`${username}-tarnwick-quay`);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL((url) => !url.pathname.startsWith("/sign-in"));
}

/** A rack of the test's own, hung under a job. */
export async function hang(page: Page, job: string, number: string): Promise<void> {
  await page.goto(`/jobs/${job}`);
  await page.waitForLoadState("networkidle");
  await page.getByText("Hang a rack", { exact: true }).first().click();
  await page.getByLabel("Number on its tag").fill(number);
  await page.getByLabel("Pieces").fill("2");
  await page.getByRole("button", { name: "Record the rack" }).press("Enter");
  await page.waitForURL(new RegExp(`/racks/${number}`));
}

/** A page of another person's, by the same clock. */
export async function pageOfItsOwn(browser: Browser, baseURL = ""): Promise<Page> {
  const context = await browser.newContext({ baseURL });
  await context.clock.install({ time: now() });
  return context.newPage();
}

/** Tests whose browser goes by the application's clock, wherever its page is opened. */
export const test = base.extend({
  context: async ({ context }, use) => {
    await context.clock.install({ time: now() });
    await use(context);
  },
});
