let worker: Worker | null = null;
let asked = 0;
/** A photo made small, the page going on meanwhile; null where it is none. */
export function smallPhoto(file: Blob): Promise<Blob | null> {
  worker ??= new Worker(new URL("./small-photo-worker.ts", import.meta.url), { type: "module" });
  const number = ++asked;
  const of = worker;
  return new Promise((resolve) => {
    const end = (small: Blob | null) => {
      of.removeEventListener("message", heard);
      of.removeEventListener("error", failed);
      resolve(small);
    };
    const heard = (event: MessageEvent<{ readonly number: number; readonly small: Blob | null }>) => {
      if (event.data.number === number) end(event.data.small);
    };
    const failed = () => {
      worker = null;
      end(null);
    };
    of.addEventListener("message", heard);
    of.addEventListener("error", failed);
    of.postMessage({ number, file });
  });
}
