import { type CutQuestion, readCutPhoto } from "./cut-photo-reader";

self.addEventListener("message", async (event: MessageEvent<CutQuestion>) => {
  self.postMessage(await readCutPhoto(event.data));
});
