import { type MeasureQuestion, measured } from "./measure-reader";

self.addEventListener("message", async (event: MessageEvent<MeasureQuestion>) => {
  const answer = await measured(event.data);
  // Handed over rather than copied: the page does not wait for it.
  const buffers: Transferable[] = [];
  if (answer.read.ok) {
    const m = answer.read.value;
    if (m.what === "scale" || m.what === "picture") buffers.push(m.picture.rgba.buffer);
    if (m.what === "rust" || m.what === "flaking" || m.what === "blisters")
      buffers.push(m.read.picture.rgba.buffer, m.read.mask.state.buffer);
    if (m.what === "creep") buffers.push(m.strip.picture.rgba.buffer, m.strip.mask.state.buffer);
  }
  self.postMessage(answer, { transfer: buffers });
});
