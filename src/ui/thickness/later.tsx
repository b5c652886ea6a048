"use client";
import dynamic from "next/dynamic";

/** With its risks reckoned; comes once the page stands. */
export const FilmPlanForm = dynamic(() => import("./film-plan-form").then((m) => m.FilmPlanForm), { ssr: false });
/** The readings by thickness; its words are there at once, and can be read by key a moment later. */
export const FilmHistogram = dynamic(() => import("../charts/film-histogram").then((m) => m.FilmHistogram));
