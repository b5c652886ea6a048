"use client";
import dynamic from "next/dynamic";

/** Drawn once the checks are fetched, and loaded while they are. */
export const HistoryChart = dynamic(() => import("../charts/history-chart").then((m) => m.HistoryChart), {
  ssr: false,
  loading: () => <div className="h-[356px]" />,
});
