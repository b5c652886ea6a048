import type { PaperStanding } from "@/server/release/check-paper";
import { Verdict } from "../marks/verdict";

/** What a check of a paper, or of its file, came to; no more is told here than that. */
export function PaperAnswer({ standing, of }: { standing: PaperStanding; of: "paper" | "file" }) {
  const said = {
    stands: {
      result: "in",
      word: "On record, and stands",
      text:
        of === "file"
          ? "This file is the certificate as it was given out, to the last byte. No later decision replaces it."
          : "A certificate with this number and mark is on record, and no later decision replaces it. The words on the paper are not shown here: check the PDF file below to know that none was changed.",
    },
    replaced: {
      result: "watch",
      word: "Replaced",
      text: `${of === "file" ? "This file was given out as it is" : "A certificate with this number and mark was given out"}, but a later decision stands in its place. Ask the shop for the newest certificate.`,
    },
    "not-on-record": {
      result: "out",
      word: "Not on record",
      text:
        of === "file"
          ? "No certificate was given out as this file. A scan, a copy saved by another program or a changed file all read so: check number and mark, or ask the shop for the file."
          : "No certificate with this number and mark was given out here. Compare both with the paper; if they are as printed, ask the shop.",
    },
  } as const;
  const { result, word, text } = said[standing];
  return (
    <section role="status" className="mt-6" aria-label="What the check came to">
      <p className="m-0 text-[26px]">
        <Verdict result={result}>{word}</Verdict>
      </p>
      <p className="mt-2">{text}</p>
    </section>
  );
}
