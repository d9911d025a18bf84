import { chromium } from "@playwright/test";

const base = "http://127.0.0.1:4399";
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox"] });
const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(base);
await page.getByLabel("Name").fill("demo");
await page.getByLabel("Password").fill("quay-street-12");
await page.getByRole("button", { name: "Sign in" }).click();
await page.getByRole("heading", { name: "Households" }).waitFor();
const list = await page.evaluate(() => fetch("/api/households?limit=100").then((r) => r.json()));
const items = Array.isArray(list) ? list : Object.values(list).find(Array.isArray);
console.log(Object.keys(items[0]));
const id = (n) => items.find((h) => h.name.startsWith(n)).id;
for (const [n, who, path] of process.argv.slice(2).map((a) => a.split("|"))) {
  await page.goto(`${base}/h/${id(who)}/${path}`);
  await page.waitForTimeout(900);
  await page.screenshot({ path: `/tmp/zz-${n}.png` });
}
await b.close();
