"use client";
import { ChevronDown } from "lucide-react";
import {
  Children,
  type ComponentType,
  isValidElement,
  type KeyboardEvent,
  type ReactNode,
  useEffect,
  useRef,
  useState,
} from "react";
import type { ChoiceListProps, Option } from "./choice-list";

type OptionProps = { value?: string | number; disabled?: boolean; children?: ReactNode };

const textOf = (node: ReactNode): string =>
  Children.toArray(node)
    .map((part) => (isValidElement<{ children?: ReactNode }>(part) ? textOf(part.props.children) : String(part)))
    .join("");

function optionsOf(children: ReactNode): Option[] {
  return Children.toArray(children).flatMap((child) => {
    if (!isValidElement<OptionProps>(child)) return [];
    if (child.type !== "option") return optionsOf(child.props.children);
    const label = textOf(child.props.children);
    return [{ value: String(child.props.value ?? label), label, disabled: child.props.disabled ?? false }];
  });
}

const load = () => import("./choice-list");
/** Letters typed within so long of each other are one word to find, ms. */
const ONE_WORD_MS = 900;

/**
 * One of several, read as a native list is: `option` elements within, the first stands until another is chosen. Held by the
 * form (`value`, `onChange`) or by itself, and sent under its `name`. Options are 44 px high: they are picked with gloves on.
 */
export function Choice({
  id,
  name,
  value,
  defaultValue,
  onChange,
  className = "",
  disabled = false,
  required = false,
  children,
  ...aria
}: {
  id?: string;
  name?: string;
  value?: string | number | undefined;
  defaultValue?: string | number | undefined;
  onChange?: (value: string) => void;
  className?: string;
  disabled?: boolean;
  required?: boolean;
  children: ReactNode;
  "aria-label"?: string;
  "aria-describedby"?: string;
}) {
  const options = optionsOf(children);
  const button = useRef<HTMLButtonElement>(null);
  const word = useRef({ text: "", at: 0 });
  const [List, setList] = useState<ComponentType<ChoiceListProps> | null>(null);
  const [missed, setMissed] = useState(false);
  const [own, setOwn] = useState(defaultValue === undefined ? undefined : String(defaultValue));
  const wanted = value === undefined ? own : String(value);
  // What a form holds and the list has no longer (a lot used up meanwhile) is shown as nothing chosen, never as another.
  const chosen = options.find((o) => o.value === wanted) ?? (value === undefined ? options[0] : undefined);
  useEffect(() => {
    // Behind the page: it must open where there is no network later.
    const timer = setTimeout(() => void load().catch(() => {}), 500);
    return () => clearTimeout(timer);
  }, []);
  const choose = (next: string) => {
    setMissed(false);
    setOwn(next);
    onChange?.(next);
  };
  const open = () =>
    void load()
      .then((loaded) => setList(() => loaded.ChoiceList))
      .catch(() => {});
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === "ArrowDown" || e.key === "ArrowUp") {
      e.preventDefault();
      open();
    } else if (e.key.length === 1 && e.key !== " ") {
      const { text, at } = word.current;
      const typed = (e.timeStamp - at < ONE_WORD_MS ? text : "") + e.key.toLowerCase();
      word.current = { text: typed, at: e.timeStamp };
      const found = options.find((o) => !o.disabled && o.label.toLowerCase().startsWith(typed));
      if (found) choose(found.value);
    }
  };
  const trigger = {
    ...aria,
    id,
    ref: button,
    "aria-invalid": missed || undefined,
    className: `choice ${className}`,
  };
  return (
    <>
      {List ? (
        <List options={options} chosen={chosen} choose={choose} disabled={disabled} trigger={trigger} />
      ) : (
        <button
          type="button"
          role="combobox"
          aria-expanded={false}
          aria-haspopup="listbox"
          disabled={disabled}
          onClick={open}
          onKeyDown={onKeyDown}
          {...trigger}
        >
          <span className="min-w-0 truncate">{chosen?.label ?? "choose one"}</span>
          <ChevronDown className="size-4 flex-none" aria-hidden />
        </button>
      )}
      {name !== undefined && (
        // Out of sight: what is sent. Where it is required and empty, the list is asked for.
        <input
          name={name}
          value={chosen?.value ?? ""}
          required={required}
          readOnly={!required}
          onChange={() => {}}
          onInvalid={(e) => {
            e.preventDefault();
            button.current?.focus();
            setMissed(true);
          }}
          tabIndex={-1}
          aria-hidden
          className="sr-only"
        />
      )}
      {missed && <span className="small text-out">choose one</span>}
    </>
  );
}
