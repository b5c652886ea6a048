"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Device } from "./device";
import { type Ended, sendWaiting, transportTo } from "./outbox";

/** An answer that takes longer is taken for none, ms: a photo over a weak network is some ten seconds. */
const WAIT_MS = 45_000;
/** Tried again so often while something waits, ms. */
const AGAIN_MS = 15_000;
export const transport = transportTo((...input) => fetch(...input), WAIT_MS);

/**
 * Sends what waits: at once, whenever the network comes back or the page is looked at again, and every so often. Of several
 * open pages one sends.
 */
export function useSending(device: Device | null, user: string | null) {
  const [ended, setEnded] = useState<Ended | null>(null);
  const [busy, setBusy] = useState(false);
  const again = useRef(false);
  const running = useRef(false);
  const kick = useCallback(async () => {
    if (!device || user === null) return;
    again.current = true;
    if (running.current) return;
    running.current = true;
    setBusy(true);
    try {
      while (again.current) {
        again.current = false;
        const send = () => sendWaiting(device, transport, user, () => Date.now());
        const came = await (navigator.locks
          ? navigator.locks.request("sorrel-field-sending", { ifAvailable: true }, (lock) => (lock ? send() : null))
          : send());
        if (came) setEnded(came);
      }
    } catch {
      // The browser's database was closed under it: what waits is there when it is opened again.
      setEnded({ why: "not-reached" });
    } finally {
      running.current = false;
      setBusy(false);
    }
  }, [device, user]);
  useEffect(() => {
    void kick();
    const back = () => document.visibilityState === "visible" && void kick();
    const timer = setInterval(() => void kick(), AGAIN_MS);
    window.addEventListener("online", back);
    document.addEventListener("visibilitychange", back);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", back);
      document.removeEventListener("visibilitychange", back);
    };
  }, [kick]);
  return { ended, busy, kick };
}
