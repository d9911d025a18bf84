// Ways: prices, pins, bars, the comparison, and finding things.
import { expect, test } from "@playwright/test";
import { cell, choose, openCopy } from "./desk";

test("a pin is held, priced and let go", async ({ page }) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.goto(`/h/${id}/ways`);
  const open = page.getByRole("region", { name: "What the law leaves open" });
  await expect(open).toContainText("worth 1,140");
  await expect(open).toContainText("Head of household — lived together after June");
  await page.getByRole("button", { name: "Hold Jointly" }).click();
  await expect(page.getByRole("button", { name: "Hold Jointly" })).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByRole("button", { name: "Hold Separately" })).toContainText("−1,140");
  await page.getByRole("link", { name: "Spread" }).click();
  const strip = page.getByRole("region", { name: "Ways to file" });
  await expect(strip).toContainText("1 pin held, costs 1,140");
  await expect(cell(page, "Total tax", 3)).toHaveText("15,546");
  await page.getByRole("link", { name: "Ways", exact: true }).click();
  await page.getByRole("button", { name: "pinned by you · let go" }).click();
  await page.getByRole("link", { name: "Spread" }).click();
  await expect(cell(page, "Total tax", 3)).toHaveText("14,406");
});

test("two pins in a row are both held, and the second is priced under the first", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/ways`);
  await page.getByRole("button", { name: "Hold Separately" }).click();
  await expect(page.getByText("pinned by you")).toHaveCount(1);
  await page.getByRole("button", { name: "Hold Standard deduction" }).click();
  await expect(page.getByText("pinned by you")).toHaveCount(2);
  await expect(page.getByRole("button", { name: "Hold Itemized deductions" })).toContainText("12,206");
  await expect(page.getByRole("button", { name: "Hold Jointly" })).toContainText("11,355");
  await page.reload();
  await expect(page.getByText("pinned by you")).toHaveCount(2);
});

test("the lowest ways stand side by side, line by line", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/ways`);
  const compared = page.getByRole("region", { name: "Only lines that differ" });
  await expect(compared.getByRole("row", { name: /^Taxable income/ })).toContainText("116,877117,852116,876");
  await expect(compared.getByRole("row", { name: /^Standard deduction/ })).toContainText("−31,500");
  await expect(compared).not.toContainText("Adjusted gross income");
  await expect(compared.getByRole("listitem")).toHaveCount(23);
  await page.getByRole("link", { name: /^Medical below the floor/ }).click();
  await expect(page.getByRole("complementary", { name: "About the marked place" })).toContainText(
    "2,633 lost",
  );
});

test("lines, people and papers are found by a few letters", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  const about = page.getByRole("complementary", { name: "About the marked place" });
  const find = async (words: string) => {
    await page.keyboard.press("/");
    await page.getByRole("combobox", { name: "Find" }).fill(words);
  };
  await find("taxable income");
  await page.keyboard.press("Enter");
  await expect(about).toContainText("Form 1040, line 15");
  await find("teasel");
  await page.keyboard.press("Enter");
  await expect(about.getByRole("heading", { name: "Teasel Mbeki" })).toBeVisible();
  await find("ledge");
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "1098 · Ledge Island Credit Union" })).toBeVisible();
  await page.getByRole("heading", { level: 1 }).click();
  await find("nothing of the kind");
  await expect(page.getByText("Nothing by that name here.")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toContainText("walk the Spread");
});

test("a paper is added for the person chosen with it", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  await page.keyboard.press("n");
  await choose(page.getByLabel("Whose"), "Osric Mbeki");
  await page.getByRole("combobox", { name: "Paper" }).fill("interest");
  await page.getByRole("option", { name: /1099-INT/ }).click();
  await expect(page.getByRole("heading", { name: "Osric 2 papers" })).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Payer" })).toBeFocused();
});

test("the trail of a household with two returns shows both", async ({ page }) => {
  await openCopy(page, "Okonjo-Farrell");
  await cell(page, "Taxable income", 3).getByRole("button").click();
  await page.keyboard.press("t");
  const about = page.getByRole("complementary", { name: "About the marked place" });
  await expect(about).toContainText("Isolde Farrell · separate");
  await expect(about).toContainText("Bram Okonjo · separate");
  await about
    .getByRole("button", { name: /^Total deductions/ })
    .first()
    .click();
  await expect(about).toContainText("Form 1040, line 14");
  await about.getByRole("button", { name: "Back" }).click();
  await expect(about).toContainText("Form 1040, line 15");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Open the trail" })).toBeVisible();
});
