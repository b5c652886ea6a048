import type { MetadataRoute } from "next";

/** So that it can be kept on a phone or tablet as a page of its own, begun at the round. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    id: "/",
    name: "Sorrel",
    short_name: "Sorrel",
    description: "The working record of a coating quality inspector",
    start_url: "/round",
    scope: "/",
    display: "standalone",
    background_color: "#efe8dc",
    theme_color: "#efe8dc",
    icons: [
      { src: "/favicon.svg", sizes: "any", type: "image/svg+xml" },
      { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
      { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
    ],
  };
}
