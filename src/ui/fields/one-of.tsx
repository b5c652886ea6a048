"use client";
import { RadioGroup } from "radix-ui";
import type { ReactNode } from "react";

/** One of a few, all in sight as buttons: arrows walk them, a press takes one. */
export function OneOf<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T | null;
  options: readonly { readonly value: T; readonly label: string; readonly disabled?: boolean }[];
  onChange: (value: T) => void;
}) {
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="small soft mb-1">{label}</legend>
      <Group label={label} value={value} onChange={onChange} className="flex flex-wrap gap-2">
        {options.map((o) => (
          <RadioGroup.Item
            key={o.value}
            value={o.value}
            disabled={o.disabled ?? false}
            className={`btn ${value === o.value ? "pri" : ""}`}
          >
            {o.label}
          </RadioGroup.Item>
        ))}
      </Group>
    </fieldset>
  );
}

/** One of several rows or cards, each with a `Dot` in the label that it is. */
export function Group<T extends string>({
  label,
  value,
  onChange,
  className,
  children,
}: {
  label: string;
  value: T | null;
  onChange: (value: T) => void;
  className?: string;
  children: ReactNode;
}) {
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value ?? ""}
      onValueChange={(next) => onChange(next as T)}
      {...(className ? { className } : {})}
    >
      {children}
    </RadioGroup.Root>
  );
}

export function Dot({ value }: { value: string }) {
  return (
    <RadioGroup.Item value={value} className="dot">
      <RadioGroup.Indicator className="dot-in" />
    </RadioGroup.Item>
  );
}
