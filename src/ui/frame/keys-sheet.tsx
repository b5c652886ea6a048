"use client";
import { Dialog } from "radix-ui";

export type KeysSheetProps = {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  /** Places a letter after `g` leads to. */
  readonly places: readonly (readonly [key: string, place: { readonly what: string }])[];
};

/** What each key does; loaded when it is first asked for. */
export function KeysSheet({ open, onOpenChange, places }: KeysSheetProps) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-50 max-h-[86vh] w-[min(560px,94vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto border border-rule-strong bg-bench p-6 text-ink"
        >
          <Dialog.Title asChild>
            <h1>Keys</h1>
          </Dialog.Title>
          <div className="ruled mt-3">
            {[
              ["0–9 . ,", "go to the entry line: a gauge that types works anywhere"],
              ["/", "entry line: shorthand, a rack, a bath, a place"],
              ["Enter", "keep what was understood"],
              ["Esc", "drop it"],
              ["↑", "last lines typed"],
              ["?", "this sheet"],
            ].map(([key, what]) => (
              <div key={key} className="row grid-cols-[110px_1fr]">
                <span>
                  <span className="key">{key}</span>
                </span>
                <span>{what}</span>
              </div>
            ))}
            {places.map(([key, place]) => (
              <div key={key} className="row grid-cols-[110px_1fr]">
                <span>
                  <span className="key">g</span> <span className="key">{key}</span>
                </span>
                <span>{place.what}</span>
              </div>
            ))}
          </div>
          <p className="soft small mt-3">
            Shorthand: <span className="fig">rack 1042 dft a3 72 75 71</span> ·{" "}
            <span className="fig">tank 3 ph 5.1 at 48C titr 8.4</span> · <span className="fig">rack 1042 in booth</span>{" "}
            · <span className="fig">rack 1042 cut 0/25</span> · <span className="fig">rack 1042 rub 5</span>
          </p>
          <Dialog.Close className="btn mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
