import { type CutQuestion, readCutPhoto } from "./cut-photo-reader";

self.addEventListener("message", async (event: MessageEvent<CutQuestion>) => {
  const answer = await readCutPhoto(event.data);
  // Handed over rather than copied: the page does not wait for it.
  const { read, shown } = answer;
  self.postMessage(answer, {
    transfer: [
      ...(read.ok ? [read.value.picture.rgba.buffer, read.value.mask.state.buffer] : []),
      ...(shown ? [shown.rgba.buffer] : []),
    ],
  });
});
