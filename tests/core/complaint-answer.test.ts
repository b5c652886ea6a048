import { expect, test } from "vitest";
import { type AnswerFacts, answerDraft } from "@/core/complaints";

const facts: AnswerFacts = {
  shop: "Copper Lane Coatings",
  theirNumber: null,
  saidOn: "3 November 2026",
  part: "Steel bracket",
  rack: "12",
  jobNumber: "J-4",
  customerOrder: "",
  what: "it flakes",
  piecesReturned: 1,
  piecesAffected: 0,
  cause: null,
};
const found: AnswerFacts["cause"] = {
  label: "Rinse too dirty",
  proof: "1,900 µS/cm that morning",
  now: "",
  forGood: "the rinse is read each shift",
  byWhen: "1 December 2026",
};
const said = (over: Partial<AnswerFacts> = {}) => answerDraft({ ...facts, ...over }).split("\n\n");

test("without a confirmed cause it says that it is looked into, and no more", () => {
  expect(said()).toEqual([
    "Our job J-4, rack 12: Steel bracket.",
    "You told us on 3 November 2026: it flakes. One piece came back to us; none shows it.",
    "We have opened a case on it: the record of that day, with bath values, film, cure and tests of this rack and of those beside it, is gone through next. The cause is not established yet; we write again when it is.",
    "Copper Lane Coatings",
  ]);
});
test("their number and order stand first, where they have them", () => {
  expect(said({ theirNumber: "RMA 7" })[0]).toBe("Your reference RMA 7. Our job J-4, rack 12: Steel bracket.");
  expect(said({ customerOrder: "PO 3" })[0]).toBe("Your order PO 3, our job J-4, rack 12: Steel bracket.");
});
test.each([
  [null, 3, ""],
  [0, null, ""],
  [1, null, " One piece came back to us."],
  [1, 1, " One piece came back to us; one piece shows it."],
  [4, 0, " 4 pieces came back to us; none shows it."],
  [4, 1, " 4 pieces came back to us; one piece shows it."],
  [4, 3, " 4 pieces came back to us; 3 pieces show it."],
] as const)("%s back, %s affected", (piecesReturned, piecesAffected, words) => {
  expect(said({ piecesReturned, piecesAffected })[1]).toBe(`You told us on 3 November 2026: it flakes.${words}`);
});
test("a confirmed cause with its proof, what is done now and for good, by when; each only where it is there", () => {
  expect(said({ cause: found }).slice(2, -1)).toEqual([
    "What we found: rinse too dirty. 1,900 µS/cm that morning.",
    "What keeps it away: the rinse is read each shift. This is in place by 1 December 2026.",
  ]);
  expect(said({ cause: { ...found, now: " recoated at our cost! ", byWhen: null } }).slice(3, -1)).toEqual([
    "What is done now: recoated at our cost!",
    "What keeps it away: the rinse is read each shift.",
  ]);
});
