"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { failureText } from "../words/failures";

type Start = (input: {
  structure: string;
  defect: string;
  zone: string;
}) => Promise<
  | { readonly ok: true; readonly href?: string }
  | { readonly ok: false; readonly failure: { readonly kind: string; readonly [detail: string]: unknown } }
>;

/** Opens a case on a zone that stands past its limit. */
export function ZoneCase({
  structure,
  defect,
  zone,
  start,
}: {
  structure: string;
  defect: string;
  zone: string;
  start: Start;
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
          const came = await start({ structure, defect, zone }).catch(() => ({
            ok: false as const,
            failure: { kind: "not-saved" },
          }));
          if (came.ok && came.href) router.push(came.href);
          else setState(came.ok ? "idle" : failureText(came.failure));
        }}
      >
        {state === "busy" ? "Opening …" : "Open a case"}
      </button>
      {state !== "idle" && state !== "busy" && (
        <span role="alert" className="text-out">
          {state}
        </span>
      )}
    </>
  );
}
