import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { confirmCause } from "@/server/causes/case-actions";
import { listComplaints, loadComplaint, openComplaints, receiveComplaint } from "@/server/complaints/complaints";
import { storeEntry } from "@/server/entries/store-entry";
import { newId, now } from "@/server/now";
import { setupAt } from "@/server/setup/setup-data";
import { person, type TestDatabase, testDatabase } from "../support/database";
import { entryAt, freshRack } from "../support/entries";

let t: TestDatabase;
const at = now();
const later = (s: number) => new Date(at.getTime() + s * 1000);
const inspector = person("inspector", "tomasz");
const lead = person("lead", "ines");
beforeAll(async () => {
  t = await testDatabase();
  await freshRack(t, "CP1", { at: new Date(at.getTime() - 20 * 86_400_000) });
});
afterAll(() => t.drop());

const said = (over: object = {}) => {
  const id = newId();
  return {
    id,
    idempotencyKey: `complaint:${id}`,
    happenedAt: at.toISOString(),
    rack: "CP1",
    saidBy: "Their buyer",
    saidOn: new Date(at.getTime() - 86_400_000).toISOString().slice(0, 10),
    theirNumber: "RMA 77",
    defect: "orange-peel",
    what: "Both look like the skin of an orange",
    piecesReturned: 2,
    piecesAffected: 1,
    wants: "recoat",
    ...over,
  };
};

describe("a complaint", () => {
  test("is kept with its defect and one case, however often it is sent; it stands open until it is answered", async () => {
    const input = said();
    const first = await receiveComplaint(t.app, inspector, input, at);
    expect(first).toMatchObject({ ok: true, href: expect.stringMatching(/^\/causes\/complaints\//) });
    expect(await receiveComplaint(t.app, inspector, input, at)).toEqual(first);
    if (!first.ok) return;
    const id = first.href.split("/").at(-1) ?? "";
    const file = await loadComplaint(t.app, inspector, id, later(1));
    expect(file).toMatchObject({
      rack: "CP1",
      theirNumber: "RMA 77",
      defect: "orange-peel",
      confirmed: false,
      answers: [],
    });
    expect(file?.caseNumber).toMatch(/^\d+$/);
    expect(file?.draft).toContain("Your reference RMA 77.");
    expect(file?.draft).toContain("The cause is not established yet");
    expect((await openComplaints(t.app, inspector, later(1))).map((c) => c.id)).toEqual([id]);
    // Once a person has confirmed the cause, the first wording says it and no name of anyone.
    const confirmed = await confirmCause(
      t.app,
      lead,
      {
        id: newId(),
        caseNumber: file?.caseNumber,
        cause: "film-too-thick",
        proof: "film read at 160 µm on both",
        correction: "both are stripped and coated again",
        correctiveAction: "the gun's sheet asks for two light passes",
        who: "Ines Calder",
        dueOn: null,
      },
      later(2),
    );
    const after = await loadComplaint(t.app, inspector, id, later(3));
    if (confirmed.ok) {
      expect(after?.draft).toContain("film read at 160 µm on both.");
      expect(after?.draft).toContain("What is done now: both are stripped and coated again.");
      expect(after?.draft).not.toContain("Ines");
    } else expect(confirmed.failure.kind).toBe("bad-entry");
    const answer = {
      kind: "complaint-answer",
      complaint: id,
      answer: "They are coated again this week.",
      sentTo: "Their buyer",
      sentBy: "mail",
    };
    // Who inspects may not speak for the shop.
    expect(await storeEntry(t.app, inspector, entryAt(later(4), answer), later(4))).toMatchObject({
      failure: { kind: "role-refused" },
    });
    expect(await storeEntry(t.app, lead, entryAt(later(4), answer), later(4))).toMatchObject({ ok: true });
    expect(await openComplaints(t.app, inspector, later(5))).toEqual([]);
    expect((await loadComplaint(t.app, inspector, id, later(5)))?.answers[0]?.answer).toBe(
      "They are coated again this week.",
    );
    expect((await listComplaints(t.app, inspector, later(5)))[0]).toMatchObject({ id, answeredAt: later(4) });
  });
  test("that cannot be is refused whole: more back than hung, a day to come, a rack that is none", async () => {
    const records = async () => (await t.app.selectFrom("complaint").select("record_id").execute()).length;
    const before = await records();
    const kind = async (over: object) => {
      const outcome = await receiveComplaint(t.app, inspector, said(over), at);
      return outcome.ok ? "ok" : outcome.failure.kind;
    };
    expect(await kind({ piecesReturned: 3 })).toBe("more-returned-than-hung");
    expect(await kind({ saidOn: new Date(at.getTime() + 3 * 86_400_000).toISOString().slice(0, 10) })).toBe(
      "in-the-future",
    );
    expect(await kind({ rack: "none" })).toBe("unknown-rack");
    expect(await kind({ defect: "moon-rust" })).toBe("bad-entry");
    expect(await records()).toBe(before);
    expect(
      await storeEntry(
        t.app,
        lead,
        entryAt(at, {
          kind: "complaint-answer",
          complaint: newId(),
          answer: "none of ours",
          sentTo: "x",
          sentBy: "mail",
        }),
        at,
      ),
    ).toMatchObject({
      failure: { kind: "unknown-complaint" },
    });
  });
  test("is seen by its own customer's person and no other's", async () => {
    const customers = [...(await setupAt(t.app, "customer", at)).values()];
    const held = (code: string) => ({
      ...person("viewer", "otto"),
      customerId: customers.find((c) => c.code === code)?.id ?? null,
    });
    expect((await listComplaints(t.app, held("C1"), later(9))).length).toBe(1);
    expect(await listComplaints(t.app, held("C2"), later(9))).toEqual([]);
  });
});
