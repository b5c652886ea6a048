"use client";
import { Collapsible } from "radix-ui";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useRef, useState } from "react";

/** Opens the fold that it stands in, and those around it: something in there wants to be seen. */
export const FoldContext = createContext<(() => void) | null>(null);

/**
 * What is read or filled in only at times, under a line that says what it is. What was typed in it stays while it is shut.
 * Opens where an address leads to its `id`, and follows `open` when that changes.
 */
export function Fold({
  summary,
  open = false,
  id,
  className = "",
  summaryClassName = "link min-h-11",
  onToggle,
  children,
}: {
  summary: ReactNode;
  open?: boolean;
  id?: string;
  className?: string;
  /** Without `list-none` a mark before it shows whether it is open. */
  summaryClassName?: string;
  onToggle?: (open: boolean) => void;
  children: ReactNode;
}) {
  const [is, setIs] = useState(open);
  const was = useRef(open);
  useEffect(() => {
    // Not at first: what stands in it may have opened it by then.
    if (was.current !== open) setIs(open);
    was.current = open;
  }, [open]);
  useEffect(() => {
    if (id && decodeURIComponent(window.location.hash) === `#${id}`) setIs(true);
  }, [id]);
  const around = useContext(FoldContext);
  const show = useCallback(() => {
    setIs(true);
    around?.();
  }, [around]);
  const set = (next: boolean) => {
    setIs(next);
    onToggle?.(next);
  };
  return (
    <Collapsible.Root open={is} onOpenChange={set} id={id} className={className} data-fold>
      <Collapsible.Trigger className={`fold ${summaryClassName}`}>{summary}</Collapsible.Trigger>
      <Collapsible.Content forceMount hidden={!is}>
        <FoldContext value={show}>{children}</FoldContext>
      </Collapsible.Content>
    </Collapsible.Root>
  );
}
