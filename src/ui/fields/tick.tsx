"use client";
import { Check } from "lucide-react";
import { Checkbox } from "radix-ui";
import { useEffect, useRef, useState } from "react";

/** Yes or no, ticked. Stands in a label that is the target: 44 px high on the line. */
export function Tick({
  checked,
  defaultChecked,
  onChange,
  className = "",
  ...own
}: {
  id?: string;
  name?: string;
  value?: string;
  checked?: boolean | undefined;
  defaultChecked?: boolean | undefined;
  onChange?: (on: boolean) => void;
  required?: boolean;
  disabled?: boolean;
  className?: string;
  "aria-label"?: string;
}) {
  const button = useRef<HTMLButtonElement>(null);
  const [missed, setMissed] = useState(false);
  useEffect(() => {
    // What the browser would ask for at the field out of sight is asked for here.
    const field = button.current?.nextElementSibling;
    const ask = (e: Event) => {
      e.preventDefault();
      button.current?.focus();
      setMissed(true);
    };
    field?.addEventListener("invalid", ask);
    return () => field?.removeEventListener("invalid", ask);
  });
  return (
    <>
      <Checkbox.Root
        ref={button}
        {...own}
        {...(checked === undefined ? {} : { checked })}
        {...(defaultChecked === undefined ? {} : { defaultChecked })}
        onCheckedChange={(on) => {
          setMissed(false);
          onChange?.(on === true);
        }}
        aria-invalid={missed || undefined}
        className={`tick ${className}`}
      >
        <Checkbox.Indicator>
          <Check className="size-4" strokeWidth={3} aria-hidden />
        </Checkbox.Indicator>
      </Checkbox.Root>
      {missed && <span className="small text-out">tick it first</span>}
    </>
  );
}
