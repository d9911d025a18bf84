// California on the federal return: months of health cover by their codes, the penalty in its three steps, ways weighed for both.
import { expect, test } from "@playwright/test";
import { noFindings, openCopy, saved } from "./desk";

test("a gap is keyed with codes, the penalty seen in its three steps, and hardship brings it back to zero", async ({
  page,
}) => {
  const id = await openCopy(page, "Sorrel-Okafor");
  await page.goto(`/h/${id}/papers`);
  await page.getByRole("link", { name: /^Health cover/ }).click();
  const month = (name: string) => page.getByRole("textbox", { name: `${name}, line 2`, exact: true });
  // February to April are empty: the rules find one short gap.
  await expect(month("Feb")).toHaveAttribute("placeholder", "B");
  const result = page.getByRole("region", { name: "What it comes to" });
  await expect(result).toContainText("no penalty");
  // From October on without a certificate it is a second gap. Separately the penalty goes by the income of one alone, and is by head: 237.50
  // for three months, 53.83 by income.
  await month("Oct").fill("X");
  await month("Oct").press("Shift+ArrowRight");
  await expect(month("Nov")).toHaveValue("X");
  await month("Nov").press("Shift+ArrowRight");
  await month("Dec").press("Tab");
  await expect(result).toContainText("238 is added to the tax of California");
  await expect(result).toContainText("237.50");
  await expect(result).toContainText("53.83");
  await expect(result).toContainText("1,206.00");
  const state = page.getByRole("contentinfo").getByText(/California .* back/);
  await expect(state).not.toContainText("1,050 back");
  await noFindings(page, "months of health cover");
  // The certificate of hardship covers these months: nothing is due.
  await month("Oct").fill("ECN");
  await month("Oct").press("Shift+ArrowRight");
  await month("Nov").press("Shift+ArrowRight");
  await month("Dec").press("Tab");
  await expect(result).toContainText("no penalty");
  await expect(state).toContainText("1,050 back");
  // Which codes are open to a month is told where it is typed.
  await month("Mar").focus();
  await expect(result).toContainText("open: one gap of three months or less");
  await month("May").focus();
  await expect(result).toContainText("no short gap, or not the first");
  // A code is tried before it is used: X in May would make one gap of four months.
  await page.getByRole("button", { name: "Try X" }).click();
  const tried = page.getByRole("region", { name: "With X instead" });
  await expect(tried).toContainText("0.00 → 317.00");
  await expect(page.getByRole("figure").filter({ hasText: "If Tobin were without cover" })).toBeVisible();
  await noFindings(page, "a code that is tried");
  await tried.getByRole("button", { name: "Leave it" }).click();
  await expect(month("May")).toHaveValue("Z");
  // A month is tried, and thrown away.
  await month("Oct").fill("X");
  await month("Oct").press("Tab");
  await expect(result).toContainText("79 is added to the tax of California");
  const side = page.getByRole("complementary");
  await expect(side).toContainText("1,050 back → 971 back");
  await side.getByRole("button", { name: "Throw it away" }).click();
  await expect(month("Oct")).toHaveValue("ECN");
  await expect(result).toContainText("no penalty");
});

test("what California leaves open holds up its own return alone, and tells what it waits for", async ({
  page,
}) => {
  const id = await openCopy(page, "Sorrel-Okafor");
  await page.goto(`/h/${id}/points`);
  await page.goto(`/h/${id}/spread?household=true&field=ca_all_year`);
  // The question has the focus: N answers it.
  await expect(page.locator(":focus")).toHaveText("Yes");
  await page.keyboard.press("n");
  await saved(page);
  await page.goto(`/h/${id}/points`);
  await expect(
    page.getByRole("heading", { name: "1 point holds up the return of California alone" }),
  ).toBeVisible();
  await page.getByText("When did who files live in California?").click();
  const about = page.getByRole("complementary", { name: "About the point" });
  await expect(about).toContainText("the return of California is filed");
  await expect(about).toContainText("The federal return does not wait on it");
  await noFindings(page, "points of a state");
});

test("separately is lower federally and dearer in California: both are weighed together", async ({
  page,
}) => {
  const id = await openCopy(page, "Castellan-Rhee");
  await page.goto(`/h/${id}/ways`);
  await expect(page.getByText("every one weighed").first()).toBeVisible();
  const row = (name: string) => page.getByRole("row", { name: new RegExp(`^${name}`) }).first();
  await expect(row("Total tax of California")).toContainText("2,238");
  await expect(row("Total tax of California")).toContainText("1,960");
  await expect(row("Total tax ")).toContainText("7,072");
  await page.goto(`/h/${id}/schedules`);
  await page
    .getByRole("button", { name: /^Form 540/ })
    .first()
    .click();
  await expect(page.getByRole("row", { name: /Taxable income/ }).first()).toBeVisible();
  await noFindings(page, "Form 540");
});
