"use client";
import { DropdownMenu } from "radix-ui";
import { savePicture } from "./save-picture";

const kinds = { svg: "As SVG, to be drawn at any size", png: "As PNG, for a report or a mail" } as const;

/** In which format a chart is saved. */
export function SaveChoices({
  label,
  picture,
  close,
}: {
  label: string;
  picture: () => SVGSVGElement | null;
  close: () => void;
}) {
  return (
    <DropdownMenu.Root defaultOpen onOpenChange={(open) => !open && close()}>
      <DropdownMenu.Trigger className="absolute inset-0" aria-label={`Save the picture: ${label}`} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="menu z-40 border border-rule-strong bg-raised p-1">
          {(["svg", "png"] as const).map((kind) => (
            <DropdownMenu.Item
              key={kind}
              className="flex min-h-11 cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-sorrel-tint"
              onSelect={() => {
                const svg = picture();
                if (svg) void savePicture(svg, label, kind);
              }}
            >
              {kinds[kind]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
