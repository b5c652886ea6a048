import { type Browser, chromium, type Page } from "@playwright/test";

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
