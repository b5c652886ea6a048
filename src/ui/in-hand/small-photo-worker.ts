import { drawnSmall } from "./drawn-small";

self.addEventListener("message", async (event: MessageEvent<{ readonly number: number; readonly file: Blob }>) => {
  self.postMessage({ number: event.data.number, small: await drawnSmall(event.data.file) });
});
