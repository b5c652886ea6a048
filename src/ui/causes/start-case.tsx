"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { failureText } from "../words/failures";

type Outcome =
  | { readonly ok: true; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } };

export function StartCase({
  defectRecordId,
  zone,
  start,
}: {
  defectRecordId: string;
  zone: string;
  start: (input: { defectRecordId: string; zone: string }) => Promise<Outcome>;
}) {
  const router = useRouter();
  const [state, setState] = useState<"idle" | "busy" | string>("idle");
  return (
    <>
      <button
        type="button"
        className="btn"
        disabled={state === "busy"}
        onClick={async () => {
          setState("busy");
          const outcome = await start({ defectRecordId, zone }).catch(() => ({
            ok: false as const,
            failure: { kind: "not-saved" },
          }));
          if (outcome.ok && outcome.href) router.push(outcome.href);
          else setState(outcome.ok ? "idle" : failureText(outcome.failure));
        }}
      >
        Trace its cause
      </button>
      {state !== "idle" && state !== "busy" && (
        <span role="alert" className="text-out">
          {state}
        </span>
      )}
    </>
  );
}
