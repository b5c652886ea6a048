import { expect } from "@playwright/test";
import sharp from "sharp";
import { coated, signIn, test } from "../support/browser";
import { latticePhoto, sceneOf } from "../support/lattice-photo";

const RACK = "BN42";
const lattice = (over: object) =>
  latticePhoto(
    sceneOf(4, {
      width: 1400,
      height: 1200,
      glare: 0,
      noise: 2,
      size: 0.6,
      film: [38, 42, 46],
      metal: [176, 178, 180],
      ...over,
    }),
  );
const png = ({ picture }: ReturnType<typeof lattice>) =>
  sharp(Buffer.from(picture.rgba), { raw: { width: picture.width, height: picture.height, channels: 4 } })
    .png()
    .toBuffer();

test("a rack is looked at face by face by key, its panel cut and read by photo, touched up, and decided piece by piece", async ({
  page,
}) => {
  test.setTimeout(120_000);
  await signIn(page, "ines");
  await coated(page, "J-410", RACK);

  // The powder does not please: off with it, and on once more; the rack waits for its coat until then.
  await page.goto(`/racks/${RACK}/coat`);
  await page.getByRole("button", { name: "Not content: take the powder off and spray again" }).press("Enter");
  const off = page.locator("form").filter({ hasText: "It is off: spray again" });
  await off.getByRole("radio", { name: /^Blown or wiped off/ }).press("Space");
  await off.getByLabel("What was wrong with it").fill("light in the recess");
  await page.keyboard.press("Enter");
  await expect(page.getByText("no coat on record")).toBeVisible();
  await page.locator("#coat-kv").fill("68");
  await page.getByRole("button", { name: "Record coat" }).press("Enter");
  await expect(page.getByText("1 coat on record")).toBeVisible();

  // A panel that stands for the rack, by key.
  await page.goto(`/racks/${RACK}/bench`);
  const panel = page.locator("form").filter({ hasText: "A test panel that travels with this rack" });
  await panel.getByLabel("Where it hung").fill("lower row");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("link", { name: `Panel ${RACK}-P1` })).toBeVisible();

  // The look: a fault on the first face, nothing on the others; the class of its zone says what it is worth.
  const look = page.locator("form").filter({ hasText: "Record the look" });
  await look.getByRole("button", { name: /^A fault/ }).press("f");
  await look.getByRole("combobox", { name: "What it is" }).click();
  await page.getByRole("option", { name: "Inclusions" }).click();
  await look.getByRole("radio", { name: "fibre" }).click();
  await look.getByLabel("Largest, mm").fill("0.4");
  await look.getByLabel("Which pieces, of 2").fill("2");
  await look.getByRole("button", { name: "Keep this fault" }).press("Enter");
  await expect(look.getByText(/inclusions, fibre.*piece 2/)).toBeVisible();
  for (let i = 0; i < 6 && (await look.getByText(/^Still to look at/).count()) > 0; i++)
    await look.getByRole("button", { name: /^Nothing (on this face|more here)/ }).press("n");
  await look.getByLabel("Light on it, lux").fill("1200");
  await look.getByLabel("From, m").fill("0.5");
  await look.getByRole("button", { name: "Record the look" }).press("Enter");
  await expect(page.getByText("Looked at: something found")).toBeVisible();

  // The cut by photo: a lattice that is none first, then one of which the truth is known.
  await page.getByRole("button", { name: "Or read it from a photo" }).click();
  const photo = page.locator("form").filter({ hasText: "A photo of the lattice after the tape" });
  const file = photo.getByLabel(/A photo of the lattice/);
  await file.setInputFiles({ name: "film.png", mimeType: "image/png", buffer: await png(lattice({ cuts: 0 })) });
  await expect(photo.getByText(/^Cannot tell: no lattice/)).toBeVisible({ timeout: 30_000 });
  await file.setInputFiles({ name: "note.png", mimeType: "image/png", buffer: Buffer.from("no picture at all") });
  await expect(photo.getByText(/not a picture Sorrel takes/)).toBeVisible();
  const known = lattice({ lifted: 0.1 });
  await file.setInputFiles({ name: "cut.png", mimeType: "image/png", buffer: await png(known) });
  await expect(photo.getByText(/the machine reads/)).toBeVisible({ timeout: 30_000 });
  const said = Number(/reads ([\d.]+) %/.exec((await photo.getByText(/the machine reads/).textContent()) ?? "")?.[1]);
  expect(Math.abs(said - 100 * known.share)).toBeLessThan(1);
  // One stroke of the brush over film: more came off, and undo takes it back.
  const came = photo.locator("b.fig");
  const before = await came.textContent();
  const box = await photo.getByLabel(/The lattice squared up/).boundingBox();
  if (!box) throw new Error("no mask");
  await page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.4);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.6, box.y + box.height * 0.6, { steps: 12 });
  await page.mouse.up();
  await expect(came).not.toHaveText(before ?? "");
  await photo.getByRole("button", { name: "Undo" }).press("Enter");
  await expect(came).toHaveText(before ?? "");
  await photo.getByRole("button", { name: "Accept it and record" }).press("Enter");
  await expect(page.getByText(/Cross-cut grade 2 \(3B\)/).first()).toBeVisible({ timeout: 20_000 });

  // What is in the way is said in a sentence, and what would change it; a fault is on the list to touch up.
  await page.goto(`/racks/${RACK}/release`);
  await expect(page.getByText("In a sentence:")).toBeVisible();
  await expect(page.getByText("What would change it")).toBeVisible();
  // One piece is scrapped by itself; the other keeps the rack.
  await page.getByRole("button", { name: /^Piece 2,/ }).press("Enter");
  await page.getByText("Scrapped", { exact: true }).click();
  await page.getByLabel("Reason, in a sentence").fill("fell off its hook");
  await page.getByLabel("Your password signs it").fill("ines-tarnwick-quay");
  await page.getByRole("button", { name: "Sign and record" }).press("Enter");
  await expect(page.getByText("Scrapped, 1 piece")).toBeVisible();
  await expect(page.getByRole("button", { name: "All 1 that hang there" })).toBeVisible();
  await page.goto(`/test/panels/${RACK}-P1`);
  await expect(page.getByText(/cross-cut grade 2 by photo on panel/)).toBeVisible();
});
