// Households of Germany: last year's student to this year's refund by keyboard, decimal commas, tax classes.
import { expect, type Page, test } from "@playwright/test";
import { cell, noFindings, openCopy, saved } from "./desk";

/** Types into a box of the open paper and leaves it. */
async function type(page: Page, box: string, text: string) {
  const at = page.locator(`[data-box="${box}"]`);
  await at.focus();
  await at.fill(text);
  await page.keyboard.press("Tab");
}

test("amounts are typed and shown with decimal commas", async ({ page }) => {
  const id = await openCopy(page, "Brandvik-Caldeira");
  await expect(cell(page, "To pay, or back", -1)).toContainText("3.601");
  await page.goto(`/h/${id}/papers?paper=engineer`);
  const tax = page.locator('[data-box="4"]');
  await expect(tax).toHaveValue("3.926,81");
  await type(page, "4", "3.927,50");
  await saved(page);
  await expect(tax).toHaveValue("3.927,50");
  await type(page, "4", "3926,81");
  await saved(page);
  await expect(tax).toHaveValue("3.926,81");
  await page.goto(`/h/${id}/spread`);
  await expect(cell(page, "To pay, or back", -1)).toContainText("3.601");
  await noFindings(page, "the Spread of a household of Germany");
});

test("together against each alone, and what tax classes would withhold", async ({ page }) => {
  const id = await openCopy(page, "Vollmar-Kestrel");
  await page.goto(`/h/${id}/ways`);
  await expect(page.getByRole("region", { name: "Assessment of the spouses" })).toContainText("Each alone");
  const classes = page.getByRole("region", { name: "Tax classes for the year that runs" });
  await expect(classes.getByRole("row", { name: /^III for Merle, V for Tjark/ })).toBeVisible();
  await expect(classes.getByRole("row", { name: /factor 0,\d{3}/ })).toBeVisible();
  await noFindings(page, "Ways of a household of Germany");
});
