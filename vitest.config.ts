import { fileURLToPath } from "node:url";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

const SURFACES = "src/ui/**/*.test.{ts,tsx}";

export default defineConfig({
  plugins: [react()],
  resolve: { alias: { "@": fileURLToPath(new URL("./src", import.meta.url)) } },
  test: {
    setupFiles: ["vitest.setup.ts"],
    // A machine that has other work takes several times as long.
    testTimeout: 120_000,
    hookTimeout: 120_000,
    pool: "forks",
    maxWorkers: 2,
    projects: [
      // What keeps nothing between two tests reads its modules once, in half the time.
      {
        extends: true,
        test: { name: "core and server", include: ["src/**/*.test.{ts,tsx}"], exclude: [SURFACES], isolate: false },
      },
      // A test of the interface names its surroundings in its first line, and stands in for the router by itself.
      {
        extends: true,
        test: { name: "interface", include: [SURFACES], setupFiles: ["vitest.setup.ts", "vitest.setup.interface.ts"] },
      },
    ],
  },
});
