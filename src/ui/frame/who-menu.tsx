"use client";
import type { ComponentType } from "react";
import { useState } from "react";
import Link from "../link";
import { usePreferences } from "../preferences-context";
import { useShell } from "./shell";
import type { WhoChoicesProps } from "./who-choices";

const load = () => import("./who-choices");

/** Who is at the bench, and their own choices: units, theme, shortcuts; and the places off the line. The menu comes when it is first pressed. */
export function WhoMenu({ name, role, shift }: { name: string; role: string; shift: string }) {
  const { units } = usePreferences();
  const { showKeys } = useShell();
  const [Choices, setChoices] = useState<ComponentType<WhoChoicesProps> | null>(null);
  const who = (
    <>
      <span className="who-long">{name}</span>
      <span className="hidden max-[1000px]:inline">
        {name
          .split(" ")
          .map((w) => w[0])
          .join("")}
      </span>{" "}
      ▾
    </>
  );
  const trigger = { className: "min-h-6 font-bold text-ink", "aria-label": `${name}, ${role}: choices` };
  const open = () =>
    void load()
      .then((loaded) => setChoices(() => loaded.WhoChoices))
      .catch(() => {});
  return (
    <div>
      {Choices ? (
        <Choices trigger={trigger}>{who}</Choices>
      ) : (
        <button
          type="button"
          {...trigger}
          aria-haspopup="menu"
          aria-expanded={false}
          onPointerEnter={() => void load().catch(() => {})}
          onClick={open}
        >
          {who}
        </button>
      )}
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
