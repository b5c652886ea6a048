"use client";
import { useRouter } from "next/navigation";
import { type FormEvent, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import { Choice } from "../fields/choice";
import { useEntryForm } from "../forms/use-entry-form";
import { failureText } from "../words/failures";

type Attach = (form: FormData) => Promise<{
  readonly ok: boolean;
  readonly failure?: { readonly kind: string; readonly [detail: string]: unknown };
}>;

/** A photo of a structure, a job as it came in, a rack's metal or a bath's strip: its place and camera data are removed on the way in. */
export function PhotoForm({
  of,
  attach,
  title = "Attach a photo",
  shows = [],
  zone,
}: {
  of: { readonly structure: string } | { readonly job: string } | { readonly rack: string } | { readonly bath: string };
  attach: Attach;
  title?: string;
  /** Records that it may show. */
  /** Of a structure: the zone it is of. */
  zone?: string;
  shows?: readonly { readonly id: string; readonly label: string }[];
}) {
  const router = useRouter();
  const [state, setState] = useState<{ busy: boolean; text: string; good: boolean }>({
    busy: false,
    text: "",
    good: true,
  });
  const held = useEntryForm(`photo ${Object.values(of).join(" ")} ${zone ?? ""}`, { caption: "" });
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const data = new FormData(form);
    data.set("id", uuidv7());
    for (const [key, value] of Object.entries(of)) data.set(key, value);
    if (zone) data.set("zone", zone);
    setState({ busy: true, text: "Sending …", good: true });
    const outcome = await attach(data).catch(() => ({ ok: false, failure: { kind: "not-saved" } }));
    setState({
      busy: false,
      good: outcome.ok,
      text: outcome.ok
        ? "Photo attached; its place and camera data were removed."
        : failureText(outcome.failure ?? { kind: "not-saved" }),
    });
    if (outcome.ok) {
      held.done();
      held.drop();
      form.reset();
      router.refresh();
    }
  };
  return (
    <form onSubmit={submit} className="ruled grid max-w-[640px] gap-2">
      <h2>{title}</h2>
      {held.said}
      <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
        <div className="field">
          <label htmlFor="photo">JPEG, PNG or WebP, up to 10 MB</label>
          <input
            id="photo"
            name="photo"
            type="file"
            accept="image/jpeg,image/png,image/webp"
            className="input"
            required
          />
        </div>
        <div className="field">
          <label htmlFor="caption">Caption</label>
          <input id="caption" {...held.register("caption")} className="input" maxLength={200} />
        </div>
      </div>
      {shows.length > 0 && (
        <div className="field">
          <label htmlFor="shows">What it shows</label>
          <Choice id="shows" name="shows" className="input" defaultValue="">
            <option value="">the piece, or what the caption says</option>
            {shows.map((s) => (
              <option key={s.id} value={s.id}>
                {s.label}
              </option>
            ))}
          </Choice>
        </div>
      )}
      <p className="flex items-center gap-3">
        <button type="submit" className="btn" disabled={state.busy}>
          Attach photo
        </button>
        <output className={state.good ? "text-in" : "text-out"}>{state.text}</output>
      </p>
    </form>
  );
}
