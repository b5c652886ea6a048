"use client";
import { useEffect, useState } from "react";
import { countOf } from "../format";
import type { Device } from "./device";
import { openDevice } from "./open-device";
import { useCounts } from "./unsent";

/** On every page: that something captured on this device is not on record yet, and the way to it. */
export function UnsentMark() {
  const [device, setDevice] = useState<Device | null>(null);
  useEffect(() => {
    void openDevice().then(setDevice);
  }, []);
  const { waiting, asking, refused } = useCounts(device, null);
  const all = waiting + asking + refused;
  return all === 0 ? null : (
    <a className="btn fixed right-3 bottom-16 z-20 no-print" href="/round">
      {countOf(all, "capture")} on this device not sent
    </a>
  );
}
