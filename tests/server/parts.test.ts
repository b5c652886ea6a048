import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { firstSketch } from "@/core/plan";
import { newId, now } from "@/server/now";
import { partVersions } from "@/server/plan/part-library";
import { savePart } from "@/server/plan/save-part";
import { setupAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";

let t: TestDatabase;
const at = now();
const later = (s: number) => new Date(at.getTime() + s * 1000);
const lead = person("lead", "ines");
const other = person("lead", "dagny");
beforeAll(async () => {
  t = await testDatabase();
});
afterAll(() => t.drop());

const box = { lengthMm: 220, widthMm: 180, heightMm: 120 };
const lamp = (over: object = {}, data: object = {}) => ({
  id: newId(),
  part: null,
  seen: null,
  reason: "First measured",
  data: {
    name: "Lamp body, cast",
    substrate: "cast-aluminium",
    features: ["deep-recess", "threads"],
    thickestMm: 9,
    measures: { box, thinnestMm: 3, massKg: 2.4, areaM2: 0.21, lapM: 0, edgeM: 0.6, assumed: [] },
    marks: [{ kind: "hang", face: "F", at: [50, 2], note: "threaded boss" }],
    faces: firstSketch({ features: ["deep-recess"], substrate: "cast-aluminium", box }),
    ...data,
  },
  ...over,
});
const newest = async (name: string) =>
  [...(await setupAt(t.app, "part", later(100))).values()].find((p) => p.data.name === name);

describe("a part drawn on a screen", () => {
  test("is in the library, once however often it is sent, and each change is a version", async () => {
    const input = lamp();
    expect(await savePart(t.app, lead, input, at)).toEqual({
      ok: true,
      code: "LAMP-BODY-CAST",
      already: false,
      href: "/plan/parts/LAMP-BODY-CAST",
    });
    expect(await savePart(t.app, lead, input, at)).toMatchObject({ ok: true, already: true });
    const first = await newest("Lamp body, cast");
    expect(first?.data.faces[0]?.spots.at(-1)).toMatchObject({ group: "recess" });
    const faces = first?.data.faces.map((f, i) =>
      i === 0
        ? { ...f, areas: [{ kind: "bare", from: [40, 40], to: [60, 60], note: "thread M12" }], sizeMm: [220, 120] }
        : f,
    );
    const second = lamp({ part: first?.id, seen: first?.versionId, reason: "Its thread stays bare" }, { faces });
    expect(await savePart(t.app, lead, second, later(5))).toMatchObject({ ok: true, already: false });
    // Somebody who still looked at the first version is told whose came before.
    const late = lamp({ part: first?.id, seen: first?.versionId, reason: "Heavier" }, { thickestMm: 11 });
    expect(await savePart(t.app, other, late, later(6))).toMatchObject({
      ok: false,
      failure: { kind: "set-up-changed", by: expect.any(String) },
    });
    const versions = await partVersions(t.app, first?.id ?? "", later(10));
    expect(versions.map((v) => v.reason)).toEqual(["Its thread stays bare", "First measured"]);
    expect((await newest("Lamp body, cast"))?.data.faces[0]?.areas).toHaveLength(1);
  });
  test("that cannot be is refused with what is wrong, and nothing of it is kept", async () => {
    const failure = async (over: object, data: object = {}) => {
      const saved = await savePart(t.app, lead, lamp(over, { name: "Never kept", ...data }), later(20));
      return saved.ok ? "kept" : saved.failure.kind;
    };
    const faces = lamp().data.faces;
    expect(await failure({}, { faces: [] })).toBe("no-face");
    expect(
      await failure(
        {},
        {
          faces: [
            {
              ...faces[0],
              outline: [
                [0, 0],
                [100, 100],
                [100, 0],
                [0, 100],
              ],
            },
          ],
        },
      ),
    ).toBe("bad-outline");
    expect(await failure({}, { marks: [{ kind: "hang", face: "Z", at: [1, 1], note: "" }] })).toBe("unknown-spot");
    expect(await failure({}, { measures: { ...lamp().data.measures, massKg: 99 } })).toBe("mass-beyond-box");
    expect(await failure({}, { thickestMm: 1 })).toBe("sections-crossed");
    expect(await failure({ reason: "" })).toBe("bad-entry");
    expect(await failure({}, { name: "lamp body, CAST" })).toBe("number-taken");
    expect(await failure({ part: newId(), seen: newId() })).toBe("unknown-set-up");
    expect(await newest("Never kept")).toBeUndefined();
  });
});
