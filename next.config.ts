import { fileURLToPath } from "node:url";
import type { NextConfig } from "next";

const config: NextConfig = {
  serverExternalPackages: ["better-sqlite3", "knex"],
  devIndicators: false,
  poweredByHeader: false,
  // They are checked by `npm test`, once.
  typescript: { ignoreBuildErrors: true },
  // A page is a shell that shows what the interface keeps of the server: one that was open is not fetched again.
  experimental: { staleTimes: { dynamic: 300 } },
  turbopack: { root: fileURLToPath(new URL(".", import.meta.url)) },
};

export default config;
