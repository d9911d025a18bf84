import { defineConfig } from "@playwright/test";

const browser = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

export default defineConfig({
  testDir: process.env.PICTURES ? "pictures" : "suite",
  outputDir: "../target/browser-results",
  reporter: "list",
  // Against hanging only: a crowded machine is several times slower than a free one.
  timeout: 300_000,
  expect: { timeout: 20_000 },
  workers: 1,
  // What fails once and then passes is told as flaky, and looked into; it does not hold up everything else.
  retries: 1,
  use: {
    baseURL: process.env.BASE_URL ?? "http://127.0.0.1:4310",
    viewport: { width: 1280, height: 800 },
    locale: "en-US",
    launchOptions: { executablePath: "/usr/bin/chromium", args: browser },
    screenshot: "only-on-failure",
    actionTimeout: 60_000,
  },
});
