import { defineConfig } from "@playwright/test";

const CHROMIUM = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--autoplay-policy=no-user-gesture-required",
];

export default defineConfig({
  testDir: "e2e",
  testMatch: "**/*.spec.ts",
  fullyParallel: false,
  workers: 2,
  // A machine that has other work takes several times as long; what passes waits for none of this.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  reporter: process.env.CI ? [["list"]] : [["line"]],
  use: {
    viewport: { width: 1280, height: 800 },
    trace: "off",
    launchOptions: { executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args: CHROMIUM },
  },
});
