"use client";
import dynamic from "next/dynamic";

/** What is noted of a load; comes once the page stands. */
export const BakeEventForm = dynamic(() => import("./bake-event-form").then((m) => m.BakeEventForm), { ssr: false });
/** Only for what hangs under lamps. */
export const LampLoad = dynamic(() => import("./lamp-load").then((m) => m.LampLoad));
