"use client";

/** A line of words with its name above it. */
export function TextField({
  id,
  label,
  text,
  change,
  most,
  least,
  required = false,
  placeholder,
  className = "",
}: {
  id: string;
  label: string;
  text: string;
  change: (text: string) => void;
  most: number;
  /** Fewest characters that say something. */
  least?: number;
  required?: boolean;
  placeholder?: string;
  className?: string;
}) {
  return (
    <div className={`field ${className}`}>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        className="input"
        maxLength={most}
        minLength={least}
        required={required}
        placeholder={placeholder}
        value={text}
        onChange={(e) => change(e.target.value)}
      />
    </div>
  );
}
