"use client";
import Image from "next/image";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { failureText } from "../words/failures";

type Change = (form: FormData) => Promise<{
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
}>;
const kinds = [
  ["raw", "The powder, raw"],
  ["cured", "A panel, cured"],
] as const;

/** What a lot is held against by eye: the powder as it comes, and a panel of it cured. */
export function PowderPhotos({
  code,
  photos,
  change,
}: {
  code: string;
  photos: { readonly raw: string | null; readonly cured: string | null };
  /** Null for who may only look. */
  change: Change | null;
}) {
  const router = useRouter();
  const [said, setSaid] = useState("");
  if (!change && photos.raw === null && photos.cured === null) return null;
  const send = async (which: string, file: File | undefined) => {
    if (!change || !file) return;
    const form = new FormData();
    form.set("powder", code);
    form.set("which", which);
    form.set("photo", file);
    setSaid("Sending …");
    const outcome = await change(form).catch(() => ({ ok: false, failure: { kind: "not-saved" } }));
    setSaid(outcome.ok ? "" : failureText(outcome.failure ?? { kind: "not-saved" }));
    if (outcome.ok) router.refresh();
  };
  return (
    <div className="flex flex-wrap gap-5">
      {kinds.map(([which, name]) => (
        <figure key={which} className="m-0 grid w-[220px] content-start gap-1">
          <figcaption className="small soft">{name}</figcaption>
          {photos[which] ? (
            <a href={`/api/files/${photos[which]}`}>
              <Image
                src={`/api/files/${photos[which]}`}
                alt={`${name}, ${code}`}
                width={220}
                height={144}
                unoptimized
                className="h-36 w-full object-cover"
              />
            </a>
          ) : (
            <span className="small faint">no photo yet</span>
          )}
          {change && (
            <input
              type="file"
              accept="image/jpeg,image/png,image/webp"
              capture="environment"
              aria-label={`Photo: ${name.toLowerCase()}, ${code}`}
              className="input small"
              onChange={(e) => void send(which, e.target.files?.[0])}
            />
          )}
        </figure>
      ))}
      {said && (
        <p role="status" className="m-0 self-center">
          {said}
        </p>
      )}
    </div>
  );
}
