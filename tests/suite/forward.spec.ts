// Carried forward: one household and many, what stands beside the boxes, and what is other than last year.
import { expect, test } from "@playwright/test";
import { noFindings, openCopy, saved } from "./desk";

test("a household is carried forward in one action, and last year stands beside the boxes", async ({
  page,
}) => {
  await openCopy(page, "Pellerin");
  await page.getByRole("link", { name: "Hembo, all households" }).click();
  const row = page.getByRole("row", { name: /^Choose Pellerin \(copy\) 2024/ });
  await row.first().getByRole("button", { name: "Carry Pellerin (copy) forward to 2025" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("status")).toContainText("1 household of 1 in the next year.");
  await noFindings(page, "carried forward");
  await sheet.getByRole("link", { name: "Open 2025" }).click();
  await expect(page.getByText(/is still empty: [\d,]+ for 2024/).first()).toBeVisible();
  await noFindings(page, "points of a household that was carried forward");
  await page.getByRole("link", { name: "Spread" }).click();
  await expect(page.getByRole("heading", { name: "Against 2024" })).toBeVisible();
  await page.getByRole("link", { name: "Papers" }).click();
  const list = page.getByRole("complementary").or(page.getByRole("navigation")).first();
  await expect(list).toBeVisible();
  await page
    .getByRole("link", { name: /^1099-R/ })
    .first()
    .click();
  await expect(page.getByText(/^2024: [\d,.]+$/).first()).toBeVisible();
  await noFindings(page, "a paper with last year's amounts");
  const gross = page.getByRole("textbox", { name: /^1 Gross distribution/ });
  await gross.fill("90000");
  await gross.press("Enter");
  await saved(page);
  await expect(page.getByText("is far from last year: 90,000", { exact: false }).first()).toBeVisible();
  // Back to the year before, and forward again: it is there already.
  await page.getByRole("link", { name: "The same household for 2024" }).click();
  await expect(page.getByRole("link", { name: "The same household for 2025" })).toBeVisible();
});

test("many households are carried forward together; what cannot be says why, what is there stays", async ({
  page,
}) => {
  await openCopy(page, "Abernathy-Solis");
  await page.goto("/");
  for (const name of [/^Choose Abernathy-Solis \(copy\) 2024/, /^Choose Marchbank-Oyelaran 2025/]) {
    await page.getByRole("checkbox", { name }).first().check();
  }
  await page.getByRole("button", { name: "Carry 2 households forward…" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("status")).toContainText("1 household of 2 in the next year.");
  await expect(sheet).toContainText("The figures of 2026 are not here yet");
  await sheet.getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: "Carry Abernathy-Solis (copy) forward to 2025" }).first().click();
  await expect(sheet).toContainText("was there already");
});
