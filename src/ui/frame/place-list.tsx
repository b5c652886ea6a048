"use client";
import { Command } from "cmdk";
import type { Place } from "./line-actions";

export type PlaceListProps = {
  readonly places: readonly Place[];
  readonly chosen: string;
  readonly go: (place: Place) => void;
};

/** What a word on the entry line can lead to, over it: the one that Enter goes to is marked; arrows move the mark. */
export function PlaceList({ places, chosen, go }: PlaceListProps) {
  return (
    <Command label="Places" shouldFilter={false} value={chosen} className="place-list no-print">
      <Command.List>
        {places.map((p) => (
          <Command.Item key={p.href} value={p.href} onSelect={() => go(p)} className="choice-item">
            <b>{p.label}</b>
            <span className="soft min-w-0 truncate">{p.what}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
