"use client";
import { useRouter } from "next/navigation";
import { DropdownMenu } from "radix-ui";
import Link from "../link";
import { usePreferences } from "../preferences-context";
import { useShell } from "./shell";

const item =
  "flex min-h-10 items-center justify-between gap-6 rounded px-3 py-1.5 text-[14px] outline-none data-[highlighted]:bg-sorrel-tint text-ink no-underline";
/** Who is at the bench, and their own choices: units, theme, shortcuts; and the places off the line. */
export function WhoMenu({ name, role, shift }: { name: string; role: string; shift: string }) {
  const { units, theme, shortcuts } = usePreferences();
  const { signOut, showKeys, actions } = useShell();
  const router = useRouter();
  const choose = async (name: string, value: string) => {
    await actions.choose(name, value).catch(() => {});
    router.refresh();
  };
  return (
    <div>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className="min-h-6 font-bold text-ink" aria-label={`${name}, ${role}: choices`}>
          <span className="who-long">{name}</span>
          <span className="hidden max-[1000px]:inline">
            {name
              .split(" ")
              .map((w) => w[0])
              .join("")}
          </span>{" "}
          ▾
        </DropdownMenu.Trigger>
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
            <DropdownMenu.Separator className="my-1 h-px bg-rule" />
            {(["/causes", "/records", "/records/import"] as const).map((href, i) => (
              <DropdownMenu.Item key={href} asChild className={item}>
                <Link href={href}>{["Causes", "Records", "Import a file"][i]}</Link>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Separator className="my-1 h-px bg-rule" />
            <DropdownMenu.Item className={item} onSelect={signOut}>
              Sign out
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <div className="who-long leading-tight">
        {shift} · <span className="fig">{units === "us" ? "mil °F" : "µm °C"}</span>
      </div>
      <nav aria-label="Off the line" className="who-long mt-1 flex items-center justify-end gap-4">
        <Link className="link inline-flex min-h-6 items-center" href="/causes">
          Causes
        </Link>
        <Link className="link inline-flex min-h-6 items-center" href="/records">
          Records
        </Link>
        <button type="button" onClick={showKeys} className="min-h-6 min-w-6" aria-label="Keys">
          <span className="key">?</span>
        </button>
      </nav>
    </div>
  );
}
