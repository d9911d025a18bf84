import { chromium } from "@playwright/test";
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox","--disable-gpu","--disable-background-networking"] });
const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto("http://127.0.0.1:4310/");
await page.getByLabel("Name").fill("demo"); await page.getByLabel("Password").fill("quay-street-12"); await page.keyboard.press("Enter");
await page.getByRole("link", { name: /Vreeland/ }).waitFor();
const shot = async (n) => { await page.waitForTimeout(700); await page.screenshot({ path: `/tmp/shots/${n}.png` }); };
const steps = process.argv.slice(2);
await page.screenshot({ path: "/tmp/shots/list.png" });
for (const s of steps) {
  const [kind, ...r] = s.split("::");
  if (kind === "open") { await page.goto("http://127.0.0.1:4310/"); await page.getByRole("link", { name: new RegExp(r[0]) }).first().click(); await page.waitForTimeout(1200); }
  else if (kind === "key") await page.keyboard.press(r[0]);
  else if (kind === "type") await page.keyboard.type(r[0]);
  else if (kind === "link") await page.getByRole("link", { name: new RegExp(r[0]) }).first().click();
  else if (kind === "button") await page.getByRole("button", { name: new RegExp(r[0]) }).first().click();
  else if (kind === "text") await page.getByText(new RegExp(r[0])).first().click();
  else if (kind === "url") { await page.goto(page.url().replace(/\/[^/]*$/, "/" + r[0])); await page.waitForTimeout(800); }
  else if (kind === "scroll") await page.mouse.wheel(0, +r[0]);
  else if (kind === "shot") await shot(r[0]);
}
await b.close();
