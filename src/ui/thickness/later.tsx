"use client";
import dynamic from "next/dynamic";

/** With its risks reckoned; comes once the page stands. */
export const FilmPlanForm = dynamic(() => import("./film-plan-form").then((m) => m.FilmPlanForm), { ssr: false });
