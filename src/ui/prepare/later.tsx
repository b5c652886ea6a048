"use client";
import dynamic from "next/dynamic";

/** With its chart; comes once the page stands. */
export const OutgasForm = dynamic(() => import("./outgas-form").then((m) => m.OutgasForm), { ssr: false });
