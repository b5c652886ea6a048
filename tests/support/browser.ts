import {
  type Browser,
  type BrowserContext,
  test as base,
  chromium,
  expect,
  type Locator,
  type Page,
} from "@playwright/test";
import { now } from "../../src/server/now";

/** Debian's Chromium, with its background traffic off. */
export const launchOptions = {
  executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell",
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

/** Signs in by the form, and is led on to Shift. */
export async function signInByForm(page: Page, username: string, base = ""): Promise<void> {
  await page.goto(`${base}/sign-in`);
  await page.getByLabel("User name").fill(username);
  await page.getByLabel("Password").fill(`${username}-tarnwick-quay`);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL((url) => !url.pathname.startsWith("/sign-in"));
}

type Cookies = Awaited<ReturnType<BrowserContext["cookies"]>>;
const signedIn = new Map<string, Cookies>();

/** The person of that name from here on, with no page opened: by the form once, then by what it gave. */
export async function signIn(page: Page, username: string, base = ""): Promise<void> {
  const known = signedIn.get(base + username);
  if (known) return page.context().addCookies(known);
  await signInByForm(page, username, base);
  const cookies = await page.context().cookies();
  // Who it is, not how that person had the page look.
  signedIn.set(
    base + username,
    cookies.filter((c) => /session/.test(c.name)),
  );
}

/** A rack of the job named, hung by key alone, on its traveller. */
export async function hang(page: Page, job: string, number: string, pieces?: number): Promise<void> {
  await page.goto(`/jobs/${job}`);
  const tag = page.getByLabel("Number on its tag");
  // The page may still be taking over its markup, which drops the focus: press until it opens.
  await expect(async () => {
    await page.getByText("Hang a rack").first().press("Enter");
    await expect(tag).toBeVisible({ timeout: 1000 });
  }).toPass();
  await tag.fill(number);
  if (pieces !== undefined) await page.getByLabel("Pieces").fill(String(pieces));
  await page.getByRole("button", { name: "Record the rack" }).press("Enter");
  await expect(page.getByRole("heading", { name: new RegExp(`^Rack ${number}`) })).toBeVisible();
}

/** Of a list of choices, the one that reads so; a number counts them from the first, 0. */
export async function choose(field: Locator, option: string | RegExp | number): Promise<void> {
  await field.click();
  const options = field.page().getByRole("option");
  await (typeof option === "number"
    ? options.nth(option)
    : field.page().getByRole("option", { name: option, exact: true })
  ).click();
}

/** A moment as a field for date and time takes it, by the site's own clock. */
export const localInput = (at: Date): string =>
  new Intl.DateTimeFormat("sv-SE", {
    timeZone: process.env.TZ ?? "Europe/London",
    dateStyle: "short",
    timeStyle: "short",
  })
    .format(at)
    .replace(" ", "T");

/** What is typed on the entry line, kept. */
export async function say(page: Page, text: string): Promise<void> {
  await page.keyboard.press("/");
  await page.keyboard.type(text);
  await page.keyboard.press("Enter");
  await expect(page.locator("#entry-said")).toHaveText(/^Recorded/);
  await page.keyboard.press("Escape");
}

/** A rack through the wash by key, stage by stage: out of it before it is coated. */
export async function washed(page: Page, number: string): Promise<void> {
  for (const stage of ["clean", "conversion", "rinse"]) await say(page, `rack ${number} in ${stage}`);
}

/** A rack hung, washed and coated: it may go into an oven. */
export async function coated(page: Page, job: string, number: string): Promise<void> {
  await hang(page, job, number, 2);
  await washed(page, number);
  await page.goto(`/racks/${number}/coat`);
  await page.waitForLoadState("networkidle");
  await page.locator("#coat-kv").fill("70");
  await page.getByRole("button", { name: "Record coat" }).press("Enter");
  await expect(page.getByText("1 coat on record")).toBeVisible();
}

/** A page whose visits end when its script has taken it over, so that what is pressed next is heard. */
function waking(page: Page): Page {
  const awake = () => page.waitForFunction(() => !document.querySelector('[data-wakes=""]'));
  const { goto, reload } = page;
  page.goto = async (...to) => {
    const answer = await goto.apply(page, to);
    await awake();
    return answer;
  };
  page.reload = async (...how) => {
    const answer = await reload.apply(page, how);
    await awake();
    return answer;
  };
  return page;
}

/** A page of another person's, by the same clock. */
export async function pageOfItsOwn(browser: Browser, baseURL = ""): Promise<Page> {
  const context = await browser.newContext({ baseURL });
  await context.clock.install({ time: now() });
  return waking(await context.newPage());
}

/** Tests whose browser goes by the application's clock, wherever its page is opened. */
export const test = base.extend({
  context: async ({ context }, use) => {
    await context.clock.install({ time: now() });
    await use(context);
  },
  page: async ({ page }, use) => use(waking(page)),
});

/** A trace that was read is of a rack, whatever load it was taken to be of. */
export async function traceOfRack(page: Page, rack: string): Promise<void> {
  await page.getByLabel("Trace began").waitFor();
  const load = page.getByLabel("Load it is of");
  if (await load.isVisible()) await choose(load, "none of these: of a rack");
  await page.getByLabel("For rack").fill(rack);
}
