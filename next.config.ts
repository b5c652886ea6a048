import path from "node:path";
import { withSerwist } from "@serwist/turbopack";
import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  turbopack: { root: path.resolve(import.meta.dirname) },
  experimental: { serverActions: { bodySizeLimit: "12mb" } },
};
export default withSerwist(config);
