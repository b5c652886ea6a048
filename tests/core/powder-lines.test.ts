import { expect, test } from "vitest";
import { readPowderLines } from "@/core/powder";
import { valueOrThrow } from "@/core/result";

const list = (...lines: string[]) => lines.join("\n");
test("a list of powders with semicolons and commas in its cure, headings as makers write them", () => {
  const read = valueOrThrow(
    readPowderLines(
      list(
        "Code;Name;Film from (µm);Film_to;SG;Cure;Shelf life (days);Price;Family",
        "GY-100;Grey, fine texture;60;90;1,5;180 20, 190 15;540;7,80;polyester",
        "BK-2;Black;70;110;1.62;200 °C x 10 min;;;Epoxy",
      ),
    ),
  );
  expect(read).toEqual([
    {
      code: "GY-100",
      name: "Grey, fine texture",
      chemistry: "polyester",
      family: "polyester",
      minUm: 60,
      maxUm: 90,
      specificGravity: 1.5,
      schedule: [
        { metalC: 180, minutes: 20 },
        { metalC: 190, minutes: 15 },
      ],
      shelfLifeDays: 540,
      pricePerKg: 7.8,
    },
    expect.objectContaining({
      code: "BK-2",
      family: "epoxy",
      shelfLifeDays: 365,
      pricePerKg: null,
      schedule: [{ metalC: 200, minutes: 10 }],
    }),
  ]);
});
test("what a list cannot be is said by its line", () => {
  const head = "code,name,min,max,sg,cure";
  const kind = (...lines: string[]) => {
    const read = readPowderLines(list(...lines));
    return read.ok ? "ok" : `${read.error.kind} ${read.error.line ?? ""}`.trim();
  };
  expect(kind(head, "A,Grey,60,90,1.5,180 20")).toBe("ok");
  expect(kind("")).toBe("empty");
  expect(kind(head)).toBe("empty");
  expect(kind("code,name,min,max,sg", "A,Grey,60,90,1.5")).toBe("no-powder-heading");
  expect(kind("code,name,min,max,sg,cure,mood", "A,Grey,60,90,1.5,180 20,good")).toBe("unknown-powder-heading");
  expect(kind(head, "A,Grey,60,90,1.5,180 20", "B,,60,90,1.5,180 20")).toBe("powder-line-without 3");
  expect(kind(head, "A,Grey,sixty,90,1.5,180 20")).toBe("not-a-number 2");
  expect(kind(head, "A,Grey,60,90,1.5,hot")).toBe("not-a-cure 2");
  expect(kind(`${head},family`, "A,Grey,60,90,1.5,180 20,glue")).toBe("unknown-family 2");
  expect(kind(head, "A,Grey,60,90,1.5,180 20", "a,Black,60,90,1.5,180 20")).toBe("powder-twice 3");
  expect(kind(head, ...Array.from({ length: 501 }, (_, i) => `P${i},Grey,60,90,1.5,180 20`))).toBe("too-many-powders");
});
