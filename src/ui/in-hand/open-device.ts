import { type Device, deviceNamed } from "./device";

let opening: Promise<Device | null> | undefined;
/** The browser's database, and that it be kept; null where the browser refuses to keep anything. */
export function openDevice(): Promise<Device | null> {
  opening ??= (async () => {
    try {
      const device = deviceNamed("sorrel-field");
      await device.open();
      // Asked for, so that the browser does not clear it for want of room; it works without.
      void navigator.storage?.persist?.().catch(() => false);
      return device;
    } catch {
      return null;
    }
  })();
  return opening;
}

/** Lets go of what was taken along, on a device that anything was; captures that are not sent stay. */
export async function forgetPacks(): Promise<void> {
  const all = (await indexedDB.databases?.()) ?? [];
  if (!all.some((d) => d.name === "sorrel-field")) return;
  const device = await openDevice();
  await device?.packs.clear();
  await device?.kept.where("of").equals("seen").delete();
}
