"use client";
import { useEffect, useState } from "react";

/** Finds defects of the atlas by a word: the others are put away while it stands. */
export function AtlasFind({ defects }: { defects: readonly { readonly id: string; readonly words: string }[] }) {
  const [find, setFind] = useState("");
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const found = defects.filter((d) => words.every((w) => d.words.toLowerCase().includes(w))).map((d) => d.id);
  const key = found.join();
  useEffect(() => {
    const shown = new Set(key.split(","));
    for (const one of document.querySelectorAll<HTMLElement>("[data-defect]"))
      one.hidden = !shown.has(one.dataset.defect ?? "");
    for (const family of document.querySelectorAll<HTMLElement>("[data-family]"))
      family.hidden = ![...family.querySelectorAll<HTMLElement>("[data-defect]")].some((d) => !d.hidden);
  }, [key]);
  return (
    <label className="no-print mt-3 grid max-w-[360px] gap-1">
      <span className="soft small">Find by a word: dimple, rust, thread …</span>
      <input className="input" type="search" value={find} onChange={(e) => setFind(e.target.value)} />
      {found.length === 0 && <span role="status">Nothing is called that here.</span>}
    </label>
  );
}
