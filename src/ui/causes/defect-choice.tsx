"use client";
import { useRouter } from "next/navigation";
import { Choice } from "../fields/choice";

/** Which defect's knowledge is read: by its address. */
export function DefectChoice({ now, defects }: { now: string; defects: readonly (readonly [string, string])[] }) {
  const router = useRouter();
  return (
    <Choice
      aria-label="Defect"
      className="input min-w-[200px]"
      value={now}
      onChange={(defect) => router.push(`/causes/knowledge?defect=${defect}`)}
    >
      {defects.map(([id, label]) => (
        <option key={id} value={id}>
          {label}
        </option>
      ))}
    </Choice>
  );
}
