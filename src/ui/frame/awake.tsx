"use client";
import { useEffect, useRef } from "react";

/** As far as React knows, `set` was never done: the event that follows then tells it. */
function tellText(field: HTMLInputElement | HTMLTextAreaElement): void {
  const typed = field.value;
  const prototype = field instanceof HTMLTextAreaElement ? HTMLTextAreaElement.prototype : HTMLInputElement.prototype;
  field.value = field.defaultValue;
  Object.getOwnPropertyDescriptor(prototype, "value")?.set?.call(field, typed);
  field.dispatchEvent(new Event("input", { bubbles: true }));
}
function tellChosen(field: HTMLInputElement): void {
  field.checked = field.defaultChecked;
  field.click();
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
      if (field instanceof HTMLInputElement && (field.type === "radio" || field.type === "checkbox")) {
        // Of a group of radios the one chosen tells for all.
        if (field.checked && !field.defaultChecked) tellChosen(field);
        else if (field.type === "checkbox" && field.checked !== field.defaultChecked) tellChosen(field);
      } else if (field.type !== "file" && field.value !== field.defaultValue) tellText(field);
    }
    for (const choice of document.querySelectorAll<HTMLSelectElement>("main select"))
      if ([...choice.options].some((o) => o.defaultSelected) && !choice.selectedOptions[0]?.defaultSelected)
        choice.dispatchEvent(new Event("change", { bubbles: true }));
    if (mark.current) mark.current.dataset.wakes = "done";
  }, []);
  return <span hidden ref={mark} data-wakes="" />;
}
