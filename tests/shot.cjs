const { chromium } = require("playwright");
(async () => {
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const base = "http://127.0.0.1:4400";
  await page.goto(base);
  await page.getByLabel("Name").fill(process.env.LOGIN ?? "demo");
  await page.getByLabel("Password").fill("quay-street-12");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.getByRole("heading", { name: "Households" }).waitFor();
  const steps = require(process.argv[2]);
  await steps(page, base);
  await browser.close();
})().catch((e) => {
  console.error(e);
  process.exit(1);
});
