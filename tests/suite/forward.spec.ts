// Carried forward: one household and many, what stands beside the boxes, and what is other than last year.
import { expect, test } from "@playwright/test";
import { choose, noFindings, openCopy, saved, signIn } from "./desk";

test("a household is carried forward in one action, and last year stands beside the boxes", async ({
  page,
}) => {
  await openCopy(page, "Pellerin");
  await page.getByRole("link", { name: "Hembo, all households" }).click();
  const row = page.getByRole("row", { name: /^Choose Pellerin \(copy\) 2024/ });
  await row.first().getByRole("button", { name: "More about Pellerin (copy) 2024" }).click();
  await page.getByRole("menuitem", { name: "Carry forward to 2025" }).click();
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

test("the list is narrowed to a law, a year, and what is held up", async ({ page }) => {
  await signIn(page);
  const rows = page.getByRole("table").getByRole("row");
  await page.getByLabel("Show the law").selectOption("Canada");
  await expect(rows.filter({ hasText: "United States" })).toHaveCount(0);
  await expect(rows.filter({ hasText: "Canada" }).first()).toBeVisible();
  await page.getByLabel("Show the year").selectOption("2026");
  await expect(page.getByText("No household is like that")).toBeVisible();
  await noFindings(page, "no household is like that");
  await page.getByRole("button", { name: "Show all households" }).click();
  await page.getByLabel("Show by open points").selectOption("Held up by open points");
  await expect(rows.filter({ hasText: "Halvorsen-Achebe" })).toHaveCount(0);
  await rows
    .getByRole("link", { name: /^Ravensworth/ })
    .first()
    .click();
  await expect(page.getByRole("heading", { name: /^Ravensworth/ })).toBeVisible();
  // Back to what was shown.
  await page.goBack();
  await page.waitForURL(/held=true/);
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
  const menu = page.getByRole("button", { name: "More about Abernathy-Solis (copy) 2024" });
  await menu.first().click();
  await page.getByRole("menuitem", { name: "Carry forward to 2025" }).click();
  await expect(sheet).toContainText("was there already");
});

test("a household is made with its dependents from a list", async ({ page }) => {
  await signIn(page);
  await page.keyboard.press("n");
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Household").fill("Whimbrel");
  await choose(dialog.getByLabel("State of residence"), "Oregon");
  await dialog.getByLabel("First filer").fill("Ilse Whimbrel");
  const list = dialog.getByLabel("Dependents, one a line: name, born, relationship");
  await list.fill("Rune Whimbrel, 13/45/2014");
  await dialog.getByRole("button", { name: "Make it" }).click();
  await expect(dialog.getByRole("alert")).toContainText("Line 1");
  await list.fill("Rune Whimbrel, 5/3/2014\nAgda Whimbrel; 2 Jan 1949; parent");
  await noFindings(page, "new household with dependents");
  await dialog.getByRole("button", { name: "Make it" }).click();
  await expect(page.getByRole("heading", { name: "Whimbrel household" }).first()).toBeVisible();
  const heads = page.getByRole("columnheader");
  await expect(heads.filter({ hasText: "Rune" })).toContainText("11 · child");
  await expect(heads.filter({ hasText: "Agda" })).toContainText("76 · parent");
});
