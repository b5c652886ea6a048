"use client";
import { useEffect, useRef } from "react";
import { tellPressed } from "./early-presses";

/** As far as React knows, `set` was never done: the event that follows then tells it. */
function tellText(field: HTMLInputElement | HTMLTextAreaElement): void {
  const typed = field.value;
  const prototype = field instanceof HTMLTextAreaElement ? HTMLTextAreaElement.prototype : HTMLInputElement.prototype;
  field.value = field.defaultValue;
  Object.getOwnPropertyDescriptor(prototype, "value")?.set?.call(field, typed);
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

/**
 * A page can be filled in before its script has taken it over, on a slow tablet above all. What was typed or chosen by
 * then is told to the forms once they listen, so that the page keeps what the eye sees in it. Also marks that they do.
 */
export function Awake() {
  const mark = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    for (const field of document.querySelectorAll<HTMLInputElement | HTMLTextAreaElement>(
      "main input, main textarea",
    )) {
      // Out of sight beside a control of ours: that tells its own.
      if (field.type === "radio" || field.type === "checkbox" || field.type === "file" || field.ariaHidden === "true")
        continue;
      if (field.value !== field.defaultValue) tellText(field);
    }
    tellPressed();
    if (mark.current) mark.current.dataset.wakes = "done";
  }, []);
  return <span hidden ref={mark} data-wakes="" />;
}
