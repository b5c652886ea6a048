"use client";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import type { UpkeepStage } from "@/core/upkeep";
import { Recorded } from "../forms/recorded";
import { failureText } from "../words/failures";
import { upkeepStageName } from "../words/upkeep";

type Outcome =
  | { readonly ok: true }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

/** The usual upkeep of a stage, set up at once. */
export function BeginUpkeep({
  stages,
  begin,
}: {
  stages: readonly UpkeepStage[];
  begin: (input: unknown) => Promise<Outcome>;
}) {
  const router = useRouter();
  const ids = useRef(new Map<UpkeepStage, string>());
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ good: boolean; text: string } | null>(null);
  const press = async (stage: UpkeepStage) => {
    setBusy(true);
    const id = ids.current.get(stage) ?? uuidv7();
    ids.current.set(stage, id);
    const outcome = await begin({ id, stage }).catch((): Outcome => ({ ok: false, failure: { kind: "not-saved" } }));
    setBusy(false);
    setMessage(
      outcome.ok
        ? { good: true, text: "Set up. Put the intervals right by the maker’s book." }
        : { good: false, text: failureText(outcome.failure) },
    );
    if (outcome.ok) router.refresh();
  };
  return (
    <>
      <span className="flex flex-wrap gap-2">
        {stages.map((stage) => (
          <button key={stage} type="button" className="btn" disabled={busy} onClick={() => press(stage)}>
            {upkeepStageName[stage]}
          </button>
        ))}
      </span>
      <p className="m-0 mt-2">
        <Recorded message={message} />
      </p>
    </>
  );
}
