// Phones and 200 % zoom: nothing is cut off, names and Together first, panels are sheets.
import { expect, type Page, test } from "@playwright/test";
import { noFindings, openCopy, saved, signIn } from "./desk";

/** Nothing sticks out at the side. */
async function fits(page: Page, view: string) {
  const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(over, view).toBeLessThanOrEqual(0);
  const small = await page.evaluate(() => {
    const texts = [...document.querySelectorAll<HTMLElement>("body *")].filter(
      (e) => e.offsetParent && [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent?.trim()),
    );
    return texts.filter((e) => Number.parseFloat(getComputedStyle(e).fontSize) < 12).map((e) => e.outerHTML);
  });
  expect(small, view).toEqual([]);
}

for (const [name, width, height] of [
  ["zoom", 640, 400],
  ["phone", 390, 844],
] as const) {
  test(`every view works at ${width} × ${height} (${name})`, async ({ page }) => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await signIn(page);
    const id = await openCopy(page, "Vreeland-Mbeki");
    await page.setViewportSize({ width, height });
    const look = async (path: string, words: string) => {
      await page.goto(path);
      await page.getByText(words).filter({ visible: true }).first().waitFor();
      await fits(page, path);
      await noFindings(page, `${path} at ${width}`);
    };
    await look("/", "Vreeland-Mbeki (copy)");
    await look(`/h/${id}/spread`, "Taxable interest");
    // The end of the computation, the people and Together are in view.
    for (const row of ["Total tax", "Paid", "Balance"]) {
      await expect(page.getByRole("rowheader", { name: row, exact: true })).toBeInViewport();
    }
    await expect(page.getByRole("button", { name: /^Together/ })).toBeInViewport();
    await expect(page.getByRole("region", { name: "Ways to file" })).toContainText("11,141");
    await page.getByRole("button", { name: /^Wages: 148,710/ }).click();
    const sheet = page.getByRole("complementary", { name: "About the marked place" });
    await expect(sheet).toBeInViewport();
    await expect(sheet).toContainText("Form 1040, line 1a");
    await noFindings(page, `panel at ${width}`);
    await sheet.getByRole("button", { name: "Close" }).click();
    await expect(sheet).toBeHidden();
    await look(`/h/${id}/papers?paper=w2-tamsin`, "Wages, tips, other pay");
    const wages = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
    await wages.fill("96500");
    await wages.press("Enter");
    await saved(page);
    await look(`/h/${id}/papers?paper=medical`, "Paid on");
    await look(`/h/${id}/ways`, "What the law leaves open");
    await look(`/h/${id}/points`, "worth a look");
    await look(`/h/${id}/schedules`, "Form 1040");
  });
}
