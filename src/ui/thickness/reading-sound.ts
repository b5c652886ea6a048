export const soundKinds = ["silent", "beep", "speak"] as const;
export type SoundKind = (typeof soundKinds)[number];
export const soundName: Record<SoundKind, string> = { silent: "silent", beep: "beep", speak: "spoken" };

let audio: AudioContext | null = null;
const tone = (context: AudioContext, hertz: number, from: number, seconds: number): void => {
  const wave = context.createOscillator();
  const loud = context.createGain();
  wave.frequency.value = hertz;
  loud.gain.setValueAtTime(0.12, context.currentTime + from);
  loud.gain.exponentialRampToValueAtTime(0.001, context.currentTime + from + seconds);
  wave.connect(loud).connect(context.destination);
  wave.start(context.currentTime + from);
  wave.stop(context.currentTime + from + seconds);
};

/** A reading said to who holds the probe: one high tone is in, two low ones out; or spoken. Silent where the browser cannot. */
export function sayReading(kind: SoundKind, result: "in" | "watch" | "out", words: string): void {
  if (kind === "silent") return;
  if (kind === "speak") {
    if (!("speechSynthesis" in window)) return;
    // The last one is what matters: what is still to be said of the one before is let go.
    window.speechSynthesis.cancel();
    const said = new SpeechSynthesisUtterance(words);
    said.lang = "en";
    said.rate = 1.25;
    window.speechSynthesis.speak(said);
    return;
  }
  if (!("AudioContext" in window)) return;
  audio ??= new AudioContext();
  if (result === "in") tone(audio, 1320, 0, 0.08);
  else {
    tone(audio, result === "out" ? 330 : 560, 0, 0.1);
    tone(audio, result === "out" ? 260 : 560, 0.14, 0.16);
  }
}
