"use client";

/** A number as a person types it, point or comma: kept as text until it is read, so that nothing typed is lost. */
export function TypedNumber({
  id,
  label,
  text,
  change,
  required = false,
}: {
  id: string;
  label: string;
  text: string;
  change: (text: string) => void;
  required?: boolean;
}) {
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        className="input num"
        inputMode="decimal"
        required={required}
        value={text}
        onChange={(e) => change(e.target.value)}
      />
    </div>
  );
}
