"use client";
import dynamic from "next/dynamic";

/** `OneOf` of a form; its keys are loaded behind the page. */
export const OneOf = dynamic(() => import("./one-of").then((m) => m.OneOf)) as typeof import("./one-of").OneOf;
