import type { Chain, Diagnosis } from "@/core/diagnosis";
import { causeShort, partName } from "../words/causes";

/** What acts, as chains in words: what stood behind, what it did, what let it. */
export function Chains({ chains }: { chains: readonly Chain[] }) {
  return (
    <>
      {chains.map((chain) => (
        <p key={chain.map((s) => s.cause).join()} className="m-0 mt-1 text-[15px] leading-snug">
          {chain.map((step, i) => (
            <span key={step.cause}>
              {i > 0 && (
                <span className="soft">{step.words && step.words !== "and" ? `, ${step.words}: ` : ", and "}</span>
              )}
              <b title={partName[step.part]}>{i === 0 ? step.label : causeShort(step.label)}</b>
            </span>
          ))}
          .
        </p>
      ))}
    </>
  );
}

/** The answer in one place: what acts, or that it is not enough to tell apart, between which, and what would settle it. */
export function Lead({ diagnosis, names }: { diagnosis: Diagnosis; names: ReadonlyMap<string, string> }) {
  const [check] = diagnosis.nextChecks;
  if (diagnosis.enoughToTell)
    return (
      <div className="border-l-4 border-sorrel pl-3">
        <span className="soft small">What acts, as far as the findings go</span>
        <Chains chains={diagnosis.chains} />
      </div>
    );
  const rivals = diagnosis.rivals.slice(0, 4).map((r) => causeShort(names.get(r) ?? r));
  return (
    <div className="border-l-4 border-rule-strong pl-3">
      <b className="text-[15px]">Not enough to tell apart</b>
      <p className="m-0 mt-0.5">
        {rivals.length > 1
          ? `It could be any of: ${rivals.join("; ")}.`
          : "The findings so far are a hint, not yet a picture."}
        {check && (
          <>
            {" "}
            What would tell most: <b>{causeShort(check.how)}</b> ({check.minutes} min).
          </>
        )}
      </p>
    </div>
  );
}
