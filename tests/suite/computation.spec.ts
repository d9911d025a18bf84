// The whole computation of the chosen way on one page.
import { expect, test } from "@playwright/test";
import { cell, noFindings, openCopy } from "./desk";

test("the whole computation reads like a worked example, from any trail, and its links walk it", async ({
  page,
}) => {
  await openCopy(page, "Okonjo-Farrell");
  await cell(page, "Medical above the floor", 0).click();
  await page.keyboard.press("t");
  await page.getByRole("link", { name: "The whole computation" }).click();
  const whole = page.getByRole("region", { name: "The whole computation" });
  await expect(whole).toContainText("total tax 14,406");
  const lines = whole.getByRole("listitem");
  const named = (name: string) =>
    lines.filter({ has: page.locator("b", { hasText: new RegExp(`^${name}$`) }) });
  const floor = named("Medical above the floor").first();
  await expect(floor).toBeInViewport();
  await expect(floor).toContainText("27,300 − 5,887, not below zero");
  await expect(floor).toContainText("5,887 lost — below the floor (IRC §213(a))");
  await floor.getByRole("link", { name: "Itemized deductions" }).press("Enter");
  await expect(named("Itemized deductions").first()).toBeInViewport();
  // Both returns, a line of nothing only where it is wanted, and no link that leads nowhere.
  await expect(whole.getByText("Bram Okonjo · separate")).toHaveCount(1);
  const dead = () =>
    page.evaluate(() =>
      [...document.querySelectorAll<HTMLAnchorElement>("section a[href^='#']")]
        .map((link) => decodeURIComponent(link.hash.slice(1)))
        .filter((id) => !document.getElementById(id)),
    );
  expect(await dead()).toEqual([]);
  const few = await lines.count();
  await page.getByLabel("lines of nothing, too").check();
  expect(await lines.count()).toBeGreaterThan(few);
  expect(await dead()).toEqual([]);
  await noFindings(page, "computation");
});
