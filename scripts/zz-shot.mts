import { chromium } from "@playwright/test";

const [, , user, out, width, height, theme, ...paths] = process.argv;
const browser = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  chromiumSandbox: false,
  args: [
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
});
const page = await (
  await browser.newContext({
    viewport: { width: Number(width), height: Number(height) },
    colorScheme: theme as "light",
  })
).newPage();
const base = process.env.BASE ?? "http://127.0.0.1:3000";
await page.goto(`${base}/sign-in`);
await page.getByLabel("User name").fill(user);
await page.getByLabel("Password").fill(`${user}-tarnwick-quay`);
await page.getByRole("button", { name: "Sign in" }).click();
await page.waitForURL((u) => !u.pathname.startsWith("/sign-in"));
for (const [i, p] of paths.entries()) {
  await page.goto(base + p);
  await page.waitForLoadState("networkidle");
  await page.evaluate((t) => document.documentElement.setAttribute("data-theme", t), theme);
  await page.screenshot({ path: `${out}-${i}.png` });
}
await browser.close();
