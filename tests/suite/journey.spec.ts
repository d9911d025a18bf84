// A new user's first household, by keyboard only.
import { expect, test } from "@playwright/test";
import { cell, saved, tabTo, type } from "./desk";

test("a household is made, keyed, weighed, pinned and explained without a mouse", async ({ page }) => {
  await page.goto("/");
  await page.getByLabel("Name").waitFor();
  await tabTo(page, "Name");
  await type(page, "demo", "<Tab>", "quay-street-12", "<Enter>");
  await page.getByRole("heading", { name: "Households" }).waitFor();

  // The household and its filers.
  await type(page, "n");
  await page.getByRole("dialog").waitFor();
  await tabTo(page, "Household");
  await type(page, "Tern-Alvarez");
  await tabTo(page, "First filer");
  await type(page, "Pilar Tern", "<Tab>", "03141985");
  await tabTo(page, "Second filer, if any");
  await type(page, "Joaquin Alvarez", "<Tab>", "07221983", "<Enter>");
  await page.getByRole("heading", { name: "Tern-Alvarez household" }).first().waitFor();

  // The questions about the household stand beside the empty Spread; the first one has the focus.
  await expect(page.getByLabel("On the last day of the year")).toBeFocused();
  await tabTo(page, "On the last day of the year");
  await type(page, "Mar");
  await tabTo(page, "The two lived apart from July to December");
  await type(page, "n");
  await tabTo(page, "State of residence");
  await type(page, "Oreg");
  await tabTo(page, "Received or disposed of digital assets");
  await type(page, "n");
  // What Hembo does not compute yet must be known to be absent: asked, and answered in one press.
  await tabTo(page, "No to the 3 questions still open");
  await type(page, "<Enter>", "<Escape>");
  await saved(page);

  // Two W-2s. Enter takes over the dashed figures that box 1 makes.
  const wages = async (
    employer: string,
    who: string,
    ein: string,
    pay: string,
    withheld: string,
    state: string,
  ) => {
    await type(page, "n", "w-2", "<Enter>");
    await expect(page.getByRole("combobox", { name: "Employer", exact: true })).toBeFocused();
    await type(page, employer);
    await tabTo(page, "Whose");
    await type(page, who);
    await tabTo(page, "b Employer's EIN");
    await type(page, ein);
    await tabTo(page, "1 Wages, tips, other pay");
    await type(page, pay, "<Enter>", withheld, "<Enter>");
    for (const box of [
      "3 Social security wages",
      "4 Social security tax",
      "5 Medicare wages",
      "6 Medicare tax",
    ]) {
      const here = page.getByRole("textbox", { name: box });
      await expect(here).toBeFocused();
      await expect(here).toHaveAttribute("placeholder", /\d/);
      await type(page, "<Enter>");
    }
    await tabTo(page, "17 State tax withheld");
    await type(page, state, "<Enter>");
    await saved(page);
    await type(page, "<Escape>");
  };
  await wages("Gull Rock Ferries", "Pilar", "93-4410927", "96,400", "9870", "6900");
  await wages("Cask & Copper", "Joaquin", "93-7712094", "52310.50", "4104", "3108");

  // A home loan in both names, and two gifts.
  await type(page, "n", "1098", "<Enter>");
  await expect(page.getByRole("combobox", { name: "Lender", exact: true })).toBeFocused();
  await type(page, "Ledge Savings");
  await tabTo(page, "Whose");
  await type(page, "Both");
  await tabTo(page, "1 Interest received");
  await type(page, "14,512.40", "<Enter>", "388200", "<Enter>", "380150", "<Enter>");
  await tabTo(page, "10 Real estate tax in escrow");
  await type(page, "7310", "<Enter>");
  await saved(page);
  await type(page, "<Escape>", "n", "gifts", "<Enter>");
  await expect(page.getByRole("textbox", { name: "About", exact: true })).toBeFocused();
  await tabTo(page, "To whom, line 1");
  await type(page, "Lifeboat fund");
  await tabTo(page, "Amount, line 1");
  await type(page, "200", "<Tab>");
  await expect(page.getByText("1 line.")).toBeVisible();
  await tabTo(page, "To whom, line 2");
  await type(page, "Library");
  await tabTo(page, "Amount, line 2");
  await type(page, "240.50", "<Enter>");
  await saved(page);

  // Wages 148,710.50; taxes 10,008 + 7,310, interest 14,512, gifts 441: 32,271 beats 31,500.
  // 148,711 − 32,271 = 116,440: 11,157 + 22 % × 19,490 = 15,444.80.
  await type(page, "<Escape>", "s");
  await expect(cell(page, "Taxable income", 2)).toHaveText("116,440");
  await expect(cell(page, "Total tax", 2)).toHaveText("15,445");
  const ways = page.getByRole("region", { name: "Ways to file" });
  await expect(ways).toContainText("Joint · itemized");
  await expect(ways).toContainText("+169"); // standard: 117,211, tax 15,614

  // Pin the standard deduction and read what it costs.
  await type(page, "w");
  await page.getByRole("heading", { name: "What the law leaves open" }).waitFor();
  await tabTo(page, "Hold Standard deduction");
  await type(page, "<Enter>");
  await expect(page.getByRole("button", { name: "pinned by you · let go" })).toBeVisible();
  await type(page, "s");
  await expect(ways).toContainText("1 pin held, costs 169");
  await expect(cell(page, "Taxable income", 2)).toHaveText("117,211");
  await type(page, "z");
  await expect(cell(page, "Taxable income", 2)).toHaveText("116,440");

  // From taxable income down the trail to a box.
  await tabTo(page, "Wages: 96,400");
  for (
    let i = 0;
    i < 20 &&
    !(await cell(page, "Taxable income", 2)
      .getByRole("button")
      .evaluate((b) => b === document.activeElement));
    i++
  ) {
    await type(page, i < 2 ? "<ArrowRight>" : "<ArrowDown>");
  }
  await type(page, "t");
  const about = page.getByRole("complementary", { name: "About the marked place" });
  await expect(about).toContainText("Form 1040, line 15");
  await type(page, "<ArrowRight>");
  await expect(about).toContainText("Form 1040, line 11a");
  await type(page, "<ArrowRight>");
  await expect(about).toContainText("Form 1040, line 9");
  await type(page, "<ArrowRight>");
  await expect(about).toContainText("Form 1040, line 1z");
  await type(page, "<ArrowRight>");
  await expect(about).toContainText("Form 1040, line 1a");
  await type(page, "<ArrowRight>", "<ArrowRight>");
  await expect(page).toHaveURL(/papers/);
  await expect(page.getByRole("textbox", { name: "1 Wages, tips, other pay" })).toBeFocused();

  // A reload finds everything as it was.
  await page.reload();
  await expect(page.getByRole("textbox", { name: "1 Wages, tips, other pay" })).toHaveValue("96,400.00");
  await type(page, "<Escape>", "s");
  await expect(cell(page, "Total tax", 2)).toHaveText("15,445");
  await expect(page.getByRole("button", { name: /^Pilar/ })).toBeVisible();
});
