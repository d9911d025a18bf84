// The official forms of a return: which are filed and why not, line by line, each with its trail, and on paper.
import { expect, test } from "@playwright/test";
import { cell, openCopy, saved } from "./desk";

test("the forms of a joint return, each line with its trail", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  await page.keyboard.press("f");
  const forms = page.getByRole("navigation", { name: "Forms" });
  await expect(forms.getByText("joint · 3 forms filed")).toBeVisible();
  await expect(forms).toContainText("Schedule B");
  await expect(forms).toContainText("neither interest nor dividends above 1,500");

  // From the return to the schedule that a line comes from, then to its trail and down to the paper.
  const form = page.getByRole("region", { name: "Form" });
  await form.getByRole("button", { name: "Schedule A" }).click();
  await expect(form.getByRole("heading", { name: "Schedule A · Itemized deductions" })).toBeVisible();
  const total = form.getByRole("row", { name: /^17 Itemized deductions/ });
  await expect(total).toContainText("32,475");
  await form.getByRole("button", { name: /^Real estate tax:/ }).focus();
  await page.keyboard.press("ArrowUp");
  await expect(form.getByRole("button", { name: /^State income or sales tax:/ })).toBeFocused();
  await page.keyboard.press("Enter");
  const trail = page.getByRole("complementary", { name: "About the marked line" });
  await expect(trail.getByRole("heading", { name: "State income or sales tax" })).toBeVisible();
  await expect(trail.getByText("Schedule A, line 5a").first()).toBeVisible();
  await page.keyboard.press("t");
  await expect(trail.getByRole("button", { name: "Print all forms" })).toBeVisible();
  await page.keyboard.press("]");
  await expect(form.getByRole("heading", { name: /^Schedule 8812/ })).toBeVisible();
});

test("forms follow the chosen way", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  await page.keyboard.press("w");
  await page
    .getByRole("button", { name: /Standard deduction/ })
    .first()
    .click();
  await saved(page);
  await page.keyboard.press("f");
  const forms = page.getByRole("navigation", { name: "Forms" });
  await expect(forms).toContainText("standard deduction taken");
  await expect(forms.getByRole("button", { name: /^Schedule A/ })).toHaveCount(0);
});

test("every return of a couple who file alone has its forms, on paper all of them", async ({ page }) => {
  await openCopy(page, "Marchbank-Oyelaran");
  await page.keyboard.press("f");
  const forms = page.getByRole("navigation", { name: "Forms" });
  await expect(forms.getByRole("button", { name: /^Form T1032/ })).toHaveCount(2);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("heading", { name: "T1 · Return" })).toHaveCount(2);
  await expect(page.getByRole("navigation", { name: "Views" })).toBeHidden();
  await page.emulateMedia({ media: "screen" });
});

test("a cell's trail is asked for when it is opened", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  const asked: string[] = [];
  page.on("request", (request) => asked.push(new URL(request.url()).pathname.split("/").pop() ?? ""));
  await cell(page, "Home-loan interest", 4).getByRole("button").click();
  await expect(page.getByText("Schedule A, line 8e")).toBeVisible();
  expect(asked).toContain("trail");
  expect(asked).not.toContain("ways");
  await page.keyboard.press("w");
  await expect(page.getByText("Only lines that differ")).toBeVisible();
  await expect.poll(() => asked).toContain("ways");
});
