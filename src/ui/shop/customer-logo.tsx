"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { failureText } from "../words/failures";

type Attach = (form: FormData) => Promise<{
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
}>;

/** The customer's mark for their papers: shown, changed, taken off. */
export function CustomerLogo({ code, logo, attach }: { code: string; logo: string | null; attach: Attach }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<{ good: boolean; text: string } | null>(null);
  const send = async (data: FormData, done: () => void) => {
    data.set("customer", code);
    setBusy(true);
    const outcome = await attach(data).catch(() => ({ ok: false, failure: { kind: "not-saved" } }));
    setBusy(false);
    setSaid({
      good: outcome.ok,
      text: outcome.ok
        ? "Kept: it stands on certificates from now on."
        : failureText(outcome.failure ?? { kind: "not-saved" }),
    });
    if (!outcome.ok) return;
    done();
    router.refresh();
  };
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    void send(new FormData(form), () => form.reset());
  };
  const takeOff = () => {
    const data = new FormData();
    data.set("remove", "yes");
    void send(data, () => {});
  };
  return (
    <form onSubmit={submit} className="grid gap-2 pb-4">
      <h3 className="m-0">Their mark on their papers</h3>
      {logo && (
        // biome-ignore lint/performance/noImgElement: a stored file behind sign-in, not for the image optimiser
        <img
          src={`/api/files/${logo}`}
          alt={`Mark of ${code}`}
          className="max-h-12 max-w-[200px] bg-white object-contain"
        />
      )}
      <div className="flex flex-wrap items-end gap-3">
        <div className="field">
          <label htmlFor={`logo-${code}`}>JPEG, PNG or WebP, up to 10 MB</label>
          <input
            id={`logo-${code}`}
            name="photo"
            type="file"
            accept="image/jpeg,image/png,image/webp"
            className="input"
            required
          />
        </div>
        <button type="submit" className="btn" disabled={busy}>
          Keep this mark
        </button>
        {logo && (
          <button type="button" className="link min-h-11" disabled={busy} onClick={takeOff}>
            take it off
          </button>
        )}
      </div>
      <output className={said?.good ? "text-in" : "text-out"}>{said?.text}</output>
    </form>
  );
}
