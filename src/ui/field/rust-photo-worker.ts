import { type RustQuestion, readRustPhoto } from "./rust-photo-reader";

self.addEventListener("message", async (event: MessageEvent<RustQuestion>) => {
  const answer = await readRustPhoto(event.data);
  // Handed over rather than copied: the page does not wait for it.
  self.postMessage(answer, {
    transfer: answer.read.ok ? [answer.read.value.picture.rgba.buffer, answer.read.value.mask.state.buffer] : [],
  });
});
