const { chromium } = require("playwright-core");
module.exports.run = async (steps) => {
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on("console", (m) => m.type() === "error" && console.log("console:", m.text()));
  await page.goto("http://127.0.0.1:4410/");
  await page.getByLabel("Name").first().fill("demo");
  await page.getByLabel("Password").fill("quay-street-12");
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.getByRole("button", { name: /New household/ }).waitFor();
  await steps(page);
  await browser.close();
};
