import { expect } from "@playwright/test";
import { choose, signIn, test } from "../support/browser";

test("a part is drawn: a first sketch by its words, a corner dragged and by key, a spot on an edge, what stays bare, undone, kept, a new version", async ({
  page,
}) => {
  await signIn(page, "ines");
  await page.goto("/plan/parts");
  await page.getByRole("link", { name: "Draw a new part" }).click();
  await page.getByLabel("Part, as it is called").fill("Quay lamp bracket");
  for (const [name, value] of [
    ["Length, mm", "400"],
    ["Width, mm", "300"],
    ["Height, mm", "20"],
    ["Thinnest, mm", "5"],
    ["Thickest, mm", "5"],
    ["Mass, kg", "4,2"],
    ["Area to coat, m²", "0.26"],
  ] as const)
    await page.getByLabel(name).fill(value);
  await page.getByLabel("sharp edges").check();
  await page.getByRole("button", { name: "1.4 m by its box" }).click();
  await expect(page.getByLabel("Edges, m")).toHaveValue("1.4");
  await page.getByRole("button", { name: "Draw a first sketch" }).click();
  const sketch = page.getByRole("group", { name: "Sketch of Front" });
  await expect(sketch.getByRole("button", { name: /^Spot F6, on an edge/ })).toBeVisible();
  // A corner by hand: the second one, pulled in.
  const corner = sketch.getByRole("button", { name: /^Corner 2 of Front/ });
  const box = await corner.boundingBox();
  if (!box) throw new Error("no corner");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 60, box.y + 40, { steps: 4 });
  await page.mouse.up();
  await expect(corner).not.toHaveAccessibleName(/at 100, 0$/);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(corner).toHaveAccessibleName(/at 100, 0$/);
  // And by key.
  await corner.focus();
  await corner.press("Shift+ArrowLeft");
  await corner.press("ArrowDown");
  await expect(corner).toHaveAccessibleName(/at 95, 1$/);
  await page.getByRole("radio", { name: "stays bare" }).click();
  await sketch.click({ position: { x: 120, y: 200 } });
  await page.getByLabel("What it is").fill("thread M12");
  await page.getByRole("radio", { name: "earth" }).click();
  await page.getByRole("button", { name: "Put it in the middle" }).click();
  await page.getByLabel(/Where exactly; what touch-up/).fill("back of the flange");
  // Half drawn, left and come back to: it is there again.
  await page.reload();
  await expect(
    page.getByRole("group", { name: "Sketch of Front" }).getByRole("button", { name: /Area 1, stays bare/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Put it in the library" }).press("Enter");
  await expect(page).toHaveURL(/\/plan\/parts\/QUAY-LAMP-BRACKET$/);
  await expect(page.getByRole("heading", { name: "Quay lamp bracket" })).toBeVisible();
  // A second version, its back in plain sight; what cannot be is refused and stays as it was drawn.
  await page.getByRole("button", { name: "Back", exact: true }).click();
  await choose(page.getByLabel("Looked at as zone"), "A, in plain sight");
  await page.getByLabel("Thickest").fill("3");
  await page.getByLabel("Why it changes").fill("Its back is seen from the quay");
  await page.getByRole("button", { name: "Keep as a new version" }).press("Enter");
  await expect(page.getByText(/thinnest.*thickest|3.*5/i).first()).toBeVisible();
  await page.getByLabel("Thickest").fill("5");
  await page.getByRole("button", { name: "Keep as a new version" }).press("Enter");
  await expect(page.getByText("Its back is seen from the quay")).toBeVisible();
});

test("who may not set up parts is not offered it, and refused", async ({ page }) => {
  await signIn(page, "tomasz");
  await page.goto("/plan/parts");
  await expect(page.getByRole("link", { name: "Draw a new part" })).toBeHidden();
  await page.goto("/plan/parts/new");
  await expect(page).toHaveURL(/refused/);
});
