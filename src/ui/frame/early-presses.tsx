/** What can be pressed and shows by its own state that it was. */
const PRESSED = '[role="radio"], [role="checkbox"], [data-fold] > button';

declare global {
  interface Window {
    earlyPresses?: [control: HTMLElement, stateBefore: string | undefined][];
  }
}

/**
 * Keeps what is ticked, chosen or opened before the page's script has taken it over, on a slow tablet above all: the
 * script in here runs as the page arrives, and `tellPressed` passes on what it kept.
 */
export function EarlyPresses({ nonce }: { nonce: string }) {
  const code = `earlyPresses=[];addEventListener("click",function(e){var c=e.target.closest&&e.target.closest('${PRESSED}');if(c&&document.querySelector('[data-wakes=""]'))earlyPresses.push([c,c.dataset.state])},true)`;
  return (
    <script nonce={nonce} suppressHydrationWarning>
      {code}
    </script>
  );
}

/** Presses again, once, what nobody heard: what has changed since was heard. */
export function tellPressed(): void {
  for (const [control, before] of window.earlyPresses?.splice(0) ?? [])
    if (control.isConnected && control.dataset.state === before) control.click();
}
