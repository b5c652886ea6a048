import { isReleased } from "@/core/line";
import type { ThreadRecord } from "@/server/rack/load-rack";
import { countOf, dateAndTime } from "../format";
import { Verdict } from "../marks/verdict";
import { decisionWords } from "../words/decisions";

/** What was decided on some of a rack's pieces before the rest, each with its certificate where it went to the customer. */
export function PartsDecided({
  rack,
  parts,
  timeZone,
}: {
  rack: string;
  parts: readonly ThreadRecord[];
  timeZone: string;
}) {
  return parts.map((r) => {
    const part = r.details.disposition?.[0];
    if (!part) return null;
    return (
      <p key={r.base.id} className="m-0 mt-2">
        <Verdict result={isReleased(part.decision) ? "in" : "out"}>
          {decisionWords[part.decision] ?? part.decision}, {countOf(part.pieces ?? 0, "piece")}
        </Verdict>{" "}
        by {part.signed_name}, {dateAndTime(r.base.happened_at, timeZone)}: {part.note}
        {isReleased(part.decision) && (
          <>
            {" "}
            ·{" "}
            <a className="link" href={`/api/racks/${rack}/certificate.pdf?decision=${r.base.id}`}>
              Their certificate, PDF
            </a>{" "}
            <a className="link" href={`/api/racks/${rack}/certificate.json?decision=${r.base.id}`}>
              JSON
            </a>
          </>
        )}
      </p>
    );
  });
}
