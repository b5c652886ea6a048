/** What a letter to a customer is made of: what they said, and what the case has come to. */
export type AnswerFacts = {
  readonly shop: string;
  readonly theirNumber: string | null;
  readonly saidOn: string;
  readonly part: string;
  readonly rack: string;
  readonly jobNumber: string;
  readonly customerOrder: string;
  readonly what: string;
  readonly piecesReturned: number | null;
  readonly piecesAffected: number | null;
  /** The cause in words a customer reads, once a person has confirmed it; null before. */
  readonly cause: {
    readonly label: string;
    readonly proof: string;
    readonly now: string;
    readonly forGood: string;
    readonly byWhen: string | null;
  } | null;
};

const pieces = (n: number): string => (n === 1 ? "one piece" : `${n} pieces`);

/**
 * A first wording of an answer to a customer, a paragraph a line, without names of people, prices or inner numbers but the
 * rack's and the job's. It says no more than was found: without a confirmed cause it says that it is being looked into.
 */
export function answerDraft(f: AnswerFacts): string {
  const back =
    f.piecesReturned === null || f.piecesReturned === 0
      ? ""
      : ` ${f.piecesReturned === 1 ? "One piece" : `${f.piecesReturned} pieces`} came back to us${f.piecesAffected === null ? "" : `; ${f.piecesAffected === 0 ? "none shows" : `${pieces(f.piecesAffected)} ${f.piecesAffected === 1 ? "shows" : "show"}`} it`}.`;
  const found = f.cause
    ? [
        `What we found: ${f.cause.label.charAt(0).toLowerCase()}${f.cause.label.slice(1)}. ${sentence(f.cause.proof)}`,
        ...(f.cause.now ? [`What is done now: ${sentence(f.cause.now)}`] : []),
        `What keeps it away: ${sentence(f.cause.forGood)}${f.cause.byWhen ? ` This is in place by ${f.cause.byWhen}.` : ""}`,
      ]
    : [
        "We have opened a case on it: the record of that day, with bath values, film, cure and tests of this rack and of those beside it, is gone through next. The cause is not established yet; we write again when it is.",
      ];
  return [
    `${f.theirNumber ? `Your reference ${f.theirNumber}. ` : ""}${f.customerOrder ? `Your order ${f.customerOrder}, our ` : "Our "}job ${f.jobNumber}, rack ${f.rack}: ${f.part}.`,
    `You told us on ${f.saidOn}: ${sentence(f.what)}${back}`,
    ...found,
    f.shop,
  ].join("\n\n");
}
const sentence = (text: string): string => (/[.!?]$/.test(text.trim()) ? text.trim() : `${text.trim()}.`);
