"use client";
import { getNonce } from "get-nonce";
import { Check, ChevronDown } from "lucide-react";
import { Select } from "radix-ui";
import type { Ref } from "react";

export type Option = { readonly value: string; readonly label: string; readonly disabled: boolean };
export type ChoiceListProps = {
  readonly options: readonly Option[];
  readonly chosen: Option | undefined;
  readonly choose: (value: string) => void;
  readonly disabled: boolean;
  readonly trigger: {
    readonly className: string;
    readonly id: string | undefined;
    readonly ref: Ref<HTMLButtonElement>;
  };
};

/** Stands for the value "", which the primitive keeps for “nothing chosen”. */
const NOTHING = "\u2205";
const outside = (value: string) => (value === "" ? NOTHING : value);

/** The list of a choice, open from the first: it is loaded behind the page, not with it. */
export function ChoiceList({ options, chosen, choose, disabled, trigger }: ChoiceListProps) {
  return (
    <Select.Root
      defaultOpen
      value={outside(chosen?.value ?? "")}
      onValueChange={(next) => choose(next === NOTHING ? "" : next)}
      disabled={disabled}
    >
      <Select.Trigger {...trigger}>
        <span className="min-w-0 truncate">
          <Select.Value>{chosen?.label ?? "choose one"}</Select.Value>
        </span>
        <ChevronDown className="size-4 flex-none" aria-hidden />
      </Select.Trigger>
      <Select.Portal>
        <Select.Content position="popper" sideOffset={4} className="choice-list">
          <Select.Viewport nonce={getNonce() ?? ""}>
            {options.map((o) => (
              <Select.Item key={o.value} value={outside(o.value)} disabled={o.disabled} className="choice-item">
                <Select.ItemText>{o.label}</Select.ItemText>
                <Select.ItemIndicator>
                  <Check className="size-4" aria-hidden />
                </Select.ItemIndicator>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
