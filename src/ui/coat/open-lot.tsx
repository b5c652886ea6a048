"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { failureText } from "../words/failures";

type Open = (input: unknown) => Promise<{
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
}>;

/** A lot's first box is opened: said once, since powder takes up water and dirt from then on. */
export function OpenLot({ lot, open }: { lot: string; open: Open }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState("");
  return (
    <p className="m-0 flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="btn"
        disabled={busy}
        onClick={async () => {
          setBusy(true);
          const outcome = await open({ lot }).catch(() => ({ ok: false, failure: { kind: "not-saved" } }));
          setBusy(false);
          setWrong(outcome.ok ? "" : failureText(outcome.failure ?? { kind: "not-saved" }));
          if (outcome.ok) router.refresh();
        }}
      >
        Its first box is opened now
      </button>
      {wrong && (
        <span role="alert" className="text-out">
          {wrong}
        </span>
      )}
    </p>
  );
}
