"use client";
import { useEffect, useState } from "react";
import { v7 as uuidv7 } from "uuid";
import type { FormPhoto, Keeper } from "../in-hand/keeper";
import { failureText } from "../words/failures";

/** A photo as it lies on the device. */
export function KeptPicture({ keeper, id, alt }: { keeper: Keeper; id: string; alt: string }) {
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    let made: string | null = null;
    let gone = false;
    void keeper.picture(id).then((blob) => {
      if (!blob || gone) return;
      made = URL.createObjectURL(blob);
      setUrl(made);
    });
    return () => {
      gone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [keeper, id]);
  if (!url) return <span className="soft">…</span>;
  // biome-ignore lint/performance/noImgElement: a picture that lies on the device, not on the server
  return <img src={url} alt={alt} className="h-20 w-28 border border-rule object-cover" />;
}

/** Photos of a form: taken one after another, each kept at once, so that closing the browser loses none. */
export function FormPhotos({
  keeper,
  form,
  label,
  photos,
  set,
  caption,
}: {
  keeper: Keeper;
  /** Name of the form they belong to until it is recorded. */
  form: string;
  label: string;
  photos: readonly FormPhoto[];
  set: (photos: readonly FormPhoto[]) => void;
  caption: string;
}) {
  const [said, setSaid] = useState("");
  const [busy, setBusy] = useState(false);
  const id = `photo-${label.toLowerCase().replaceAll(/[^a-z]+/g, "-")}`;
  const take = async (files: FileList | null) => {
    setSaid("");
    setBusy(true);
    let all = photos;
    for (const file of files ?? []) {
      const photo = uuidv7();
      const kept = await keeper.photo(form, photo, file);
      if (!kept.ok) {
        setSaid(failureText(kept.failure));
        break;
      }
      all = [...all, { id: photo, caption }];
      set(all);
    }
    setBusy(false);
  };
  return (
    <div className="grid gap-2">
      <label htmlFor={id} className="btn w-fit cursor-pointer">
        {busy ? "Keeping …" : label}
        <input
          id={id}
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          multiple
          className="sr-only"
          onChange={(e) => {
            void take(e.target.files);
            e.target.value = "";
          }}
        />
      </label>
      {said && (
        <p role="alert" className="m-0 text-out">
          {said}
        </p>
      )}
      {photos.length > 0 && (
        <ul className="m-0 flex list-none flex-wrap gap-3 p-0">
          {photos.map((p) => (
            <li key={p.id} className="grid gap-1">
              <KeptPicture keeper={keeper} id={p.id} alt={p.caption} />
              <button
                type="button"
                className="link min-h-11"
                onClick={() => {
                  set(photos.filter((x) => x.id !== p.id));
                  void keeper.drop(p.id);
                }}
              >
                Leave it out
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
