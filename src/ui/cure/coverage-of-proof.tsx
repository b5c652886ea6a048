import { ovenSlug } from "@/core/cure";
import type { ProofCoverage } from "@/server/cure/proof-coverage";
import { dayMonth } from "../format";
import Link from "../link";
import { Verdict } from "../marks/verdict";

const word = { in: "As asked", watch: "Missed before", out: "One is owed", unknown: "No load yet" } as const;

/** On how many loads cure was proven by a test, against what the shop asks, and the loads without one. */
export function CoverageOfProof({ coverage, timeZone }: { coverage: ProofCoverage; timeZone: string }) {
  const { rate, every, days, unproven } = coverage;
  return (
    <div className="ruled mt-5">
      <h2 className="flex flex-wrap items-center gap-3">
        How often it is proven <Verdict result={rate.result}>{word[rate.result]}</Verdict>
      </h2>
      <p className="m-0">
        <b className="fig">
          {rate.proven} of {rate.loads}
        </b>{" "}
        loads of the last {days} days with a rub or another test; asked on{" "}
        {every === 1 ? "every load" : `one load in ${every}`}.
        {rate.sinceProven > 0 && ` ${rate.sinceProven} since the newest that was.`}
      </p>
      {unproven.length > 0 && (
        <p className="m-0 mt-1">
          Without one:{" "}
          {unproven.map((u, i) => (
            <span key={u.oven + u.load + u.pulledAt.getTime()}>
              {i > 0 && ", "}
              <Link className="link" href={`/cure/loads/${ovenSlug(u.oven)}/${encodeURIComponent(u.load)}`}>
                {u.load}
              </Link>{" "}
              <span className="soft small">{dayMonth(u.pulledAt, timeZone)}</span>
            </span>
          ))}
        </p>
      )}
    </div>
  );
}
