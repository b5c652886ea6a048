"use client";
import { useRouter } from "next/navigation";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import Link from "../link";
import { usePreferences } from "../preferences-context";
import { useShell } from "./shell";

export type WhoChoicesProps = {
  readonly trigger: { readonly className: string; readonly "aria-label": string };
  readonly children: ReactNode;
};
const item =
  "flex min-h-11 items-center justify-between gap-6 rounded px-3 py-1.5 text-[14px] outline-none data-[highlighted]:bg-sorrel-tint text-ink no-underline";

/** A person's own choices, open from the first: it is loaded when it is asked for. */
export function WhoChoices({ trigger, children }: WhoChoicesProps) {
  const { units, theme, shortcuts, setsUp, administers } = usePreferences();
  const { signOut, actions } = useShell();
  const router = useRouter();
  const choose = async (name: string, value: string) => {
    await actions.choose(name, value).catch(() => {});
    router.refresh();
  };
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger {...trigger}>{children}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="z-50 min-w-56 border border-rule-strong bg-raised p-1 text-ink">
          <DropdownMenu.Item className={item} onSelect={() => void choose("units", units === "us" ? "metric" : "us")}>
            Units <span className="fig soft">{units === "us" ? "mil °F" : "µm °C"}</span>
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={item}
            onSelect={() => void choose("theme", theme === "dark" ? "light" : "dark")}
          >
            Theme <span className="soft">{theme}</span>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={() => void choose("shortcuts", shortcuts ? "off" : "on")}>
            Letter shortcuts <span className="soft">{shortcuts ? "on" : "off"}</span>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={() => void actions.tour(0).then(() => router.refresh())}>
            First-shift tour
          </DropdownMenu.Item>
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          {(
            [
              ["/causes", "Causes"],
              ["/records", "Records"],
              ["/records/import", "Import a file"],
              ["/shop/password", "Your password"],
              ...(setsUp ? [["/shop", "Shop"] as const] : []),
              ...(administers ? [["/shop/people", "People"] as const] : []),
            ] as const
          ).map(([href, name]) => (
            <DropdownMenu.Item key={href} asChild className={item}>
              <Link href={href}>{name}</Link>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="my-1 h-px bg-rule" />
          <DropdownMenu.Item className={item} onSelect={signOut}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
