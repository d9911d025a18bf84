// Trials: a copy beside the return; what it changes, what turns, and what becomes of it.
import { expect, test } from "@playwright/test";
import { cell, noFindings, openCopy } from "./desk";

test("a smaller bill is tried by keyboard, its turn found on the curve, and nothing is applied", async ({
  page,
}) => {
  await openCopy(page, "Okonjo-Farrell");
  await page.keyboard.press("e");
  await page.getByLabel("What would happen if…").fill("smaller hospital bill");
  await page.keyboard.press("Enter");
  await expect(
    page.getByText("A trial, “smaller hospital bill” — the return itself is not changed."),
  ).toBeVisible();
  const row = (name: RegExp) => page.getByRole("table").getByRole("row", { name });
  await row(/^Medical above the floor/)
    .getByRole("button")
    .press("Enter");
  await page.getByPlaceholder("± amount").fill("−12,200");
  await page.keyboard.press("Enter");
  await expect(row(/^Medical above the floor/)).toContainText("−21,413−9,213+12,200");
  await expect(row(/^Total tax/)).toContainText("14,40616,790+2,384");
  await expect(row(/^Balance/)).toContainText("3,954 back1,570 back+2,384");
  await page.keyboard.press("Escape");
  await page.keyboard.press("Escape");
  await page.getByRole("link", { name: "Spread" }).click();
  const side = page.getByRole("complementary", { name: "About the marked place" });
  await expect(side).toContainText("18,650 → 6,450");
  await expect(side).toContainText("How to file: Separately below 30,048, Jointly from there on.");
  await noFindings(page, "trial");
  // Held together: what differs is marked, and the way is told to turn.
  await page.keyboard.press("w");
  await page.getByRole("button", { name: "Hold Jointly" }).click();
  await expect(page.getByRole("button", { name: "Hold Jointly" })).toHaveAttribute("aria-pressed", "true");
  await page.getByRole("link", { name: "Spread" }).click();
  await expect(side).toContainText("The best way turns from Separate");
  await expect(page.getByRole("button", { name: "Apply 2 changes" })).toBeVisible();
  await expect(page.getByRole("link", { name: "Hand-over" })).toBeHidden();
  await page.getByRole("button", { name: "Keep, back to the return" }).click();
  await expect(cell(page, "Total tax", 3)).toHaveText("14,406");
  await page.keyboard.press("e");
  const list = page.getByRole("dialog", { name: "Trials" });
  await expect(list.getByRole("row", { name: /^smaller hospital bill/ })).toContainText("17,105+2,699");
  await noFindings(page, "trials");
});

test("a trial begun at a figure is applied as one edit, and undo takes all of it back", async ({ page }) => {
  await openCopy(page, "Okonjo-Farrell");
  await cell(page, "Medical above the floor", 3).click();
  await page.getByRole("button", { name: "without this paper" }).click();
  await expect(page.getByText(/^A trial, “without Isolde's operation”/)).toBeVisible();
  await page.getByRole("link", { name: "Spread" }).click();
  await page.getByRole("button", { name: "one more child" }).click();
  await expect(page.getByText("Added One more child")).toBeVisible();
  await page.keyboard.press("z");
  await page.getByRole("button", { name: "Apply 1 change" }).click();
  await expect(page.getByText(/applied: .*Undo takes all of it back/)).toBeVisible();
  await expect(cell(page, "Total tax", 3)).toHaveText("17,098");
  await page.keyboard.press("z");
  await expect(cell(page, "Total tax", 3)).toHaveText("14,406");
});

test("someone retires in May, and a line comes next year", async ({ page }) => {
  await openCopy(page, "Okonjo-Farrell");
  await cell(page, "Wages", 0).click();
  await page.getByRole("combobox", { name: /until the end of a month$/ }).selectOption("May");
  await expect(page.getByText(/^A trial, “.* until May”/)).toBeVisible();
  await page.getByRole("link", { name: "Spread" }).click();
  await expect(page.getByText("Box 1 of W-2 Kiln Lane Glassworks: 78,400 → 32,666.67")).toBeVisible();
  await page.getByRole("button", { name: "Keep, back to the return" }).click();
  await cell(page, "Medical above the floor", 3).click();
  await page.getByRole("button", { name: "this line next year" }).click();
  await expect(page.getByText(/^A trial, “a line of Isolde's operation next year”/)).toBeVisible();
  await page.getByRole("link", { name: "Spread" }).click();
  await expect(page.getByText(/^Removed line \d+ of/)).toBeVisible();
});

test("a trial follows its return, and one thrown away is taken back", async ({ page }) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.keyboard.press("e");
  await page.getByRole("button", { name: "By the law of 2026" }).click();
  await expect(page.getByText("By the law of another year: not applied")).toBeVisible();
  const trial = page.url();
  await page.goto(`/h/${id}/papers?paper=w2-isolde&field=2`);
  const box = page.getByRole("textbox", { name: "2 Federal tax withheld" });
  await box.fill("9000");
  await box.press("Enter");
  await expect(page.getByText(/rev 2/)).toBeVisible();
  await page.goto(trial);
  await expect(page.getByText(/Since then in the return: .*9,000/)).toBeVisible();
  await page.getByRole("button", { name: "Let the trial follow" }).click();
  await expect(page.getByText(/Since then in the return/)).toBeHidden();
  await page.getByRole("button", { name: "Throw away" }).click();
  await expect(page.getByText(/was thrown away/)).toBeVisible();
  await page.keyboard.press("e");
  await page.getByRole("button", { name: "Take it back" }).click();
  await expect(
    page.getByRole("dialog").getByRole("button", { name: "By the law of 2026" }).first(),
  ).toBeVisible();
});
