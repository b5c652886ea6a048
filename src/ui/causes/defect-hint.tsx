"use client";
import dynamic from "next/dynamic";
import Link from "../link";

/** Loaded once the page stands: it is a help, not the form. */
const DefectDrawing = dynamic(() => import("./defect-drawing").then((m) => m.DefectDrawing), { ssr: false });

/** What a defect looks like and what it is taken for, beside the field that names it. */
export function DefectHint({ id, label, plain }: { id: string; label: string; plain: string }) {
  return (
    <div className="grid grid-cols-[112px_minmax(0,1fr)] items-start gap-3">
      <div className="min-h-[98px]">
        <DefectDrawing defect={id} label={label.toLowerCase()} />
      </div>
      <span className="small soft">
        {plain}.{" "}
        <Link className="link inline-flex min-h-11 items-center" href={`/causes/atlas#${id}`} target="_blank">
          What it is taken for, in the atlas
        </Link>
      </span>
    </div>
  );
}
