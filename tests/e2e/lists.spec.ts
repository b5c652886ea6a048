import { readFile } from "node:fs/promises";
import { expect } from "@playwright/test";
import { signIn, test } from "../support/browser";

test("a list is sorted by its heads, found in, walked by key and saved as it is shown", async ({ page }) => {
  await signIn(page, "ines");
  await page.goto("/racks");
  const rows = page.locator("[data-row]");
  const racks = () => rows.evaluateAll((all) => all.map((row) => row.firstElementChild?.textContent ?? ""));
  const inOrder = new Intl.Collator("en", { numeric: true }).compare;
  const asTold = await racks();
  const head = page.getByRole("button", { name: /^Sort by rack/ });
  await head.click();
  await expect(head).toHaveAccessibleName(/now (rising|falling)/);
  await expect.poll(racks).toEqual([...asTold].sort(inOrder));
  await head.click();
  await expect.poll(racks).toEqual([...asTold].sort(inOrder).reverse());
  await head.click();
  await expect.poll(racks).toEqual(asTold);

  const find = page.getByRole("searchbox", { name: "Find in: Racks on the line" });
  await find.fill("lamp HELD");
  await expect(page.getByRole("status").filter({ hasText: /of \d+ rows/ })).toBeVisible();
  const kept = await rows.allTextContents();
  expect(kept.length).toBeGreaterThan(0);
  expect(kept.length).toBeLessThan(asTold.length);
  for (const text of kept) expect(text).toMatch(/lamp.*Held/);
  const saved = page.waitForEvent("download");
  await page.getByRole("button", { name: "CSV of what is shown" }).click();
  const file = await saved;
  expect(file.suggestedFilename()).toBe("racks-on-the-line.csv");
  const lines = (await readFile(await file.path(), "utf8")).trim().split(/\r?\n/);
  expect(lines[0]?.replace("\uFEFF", "")).toBe("rack,part,next,waits,state");
  expect(lines).toHaveLength(kept.length + 1);

  await find.fill("nothing like it");
  await expect(page.getByText("Nothing here holds “nothing like it”.")).toBeVisible();
  await find.fill("");
  await rows.first().focus();
  await page.keyboard.press("ArrowDown");
  await expect(rows.nth(1)).toBeFocused();
  await page.keyboard.press("End");
  await expect(rows.last()).toBeFocused();
  await page.keyboard.press("Home");
  await page.keyboard.press("Enter");
  await expect(page).not.toHaveURL(/\/racks$/);
});
