import { Choice } from "../fields/choice";
import { type SoundKind, soundKinds, soundName } from "./reading-sound";

/** How a station speaks up: not at all, by a tone, or in words. */
export function SoundChoice({
  label,
  sound,
  change,
}: {
  label: string;
  sound: SoundKind;
  change: (sound: SoundKind) => void;
}) {
  return (
    <label className="small soft inline-flex min-h-11 items-center gap-1.5 whitespace-nowrap">
      {label}
      <Choice className="input" value={sound} onChange={(value) => change(value as SoundKind)}>
        {soundKinds.map((k) => (
          <option key={k} value={k}>
            {soundName[k]}
          </option>
        ))}
      </Choice>
    </label>
  );
}
