// Households whose members each file alone: a new one by keyboard, flows between returns, amounts on Ways.
import { expect, test } from "@playwright/test";
import { cell, choose, openCopy, saved, signIn, tabTo, type } from "./desk";

test("a couple is made and keyed by keyboard; the split is chosen, pinned at zero and priced", async ({
  page,
}) => {
  await signIn(page);
  await type(page, "n");
  await page.getByRole("dialog").waitFor();
  await tabTo(page, "Household");
  await type(page, "Sandpiper-Loon");
  await tabTo(page, "Law");
  await type(page, "Can");
  await tabTo(page, "First filer");
  await type(page, "Ivo Sandpiper", "<Tab>", "05051957");
  await tabTo(page, "Second filer, if any");
  await type(page, "Greta Loon", "<Tab>", "03031961", "<Enter>");
  await page.getByRole("heading", { name: "Sandpiper-Loon household" }).first().waitFor();
  // Nothing that could be taken for a tax before the province is known.
  const strip = page.getByRole("region", { name: "Ways to file" });
  await expect(strip).toContainText("No tax is shown");
  await tabTo(page, "Province or territory on 31 December");
  await type(page, "Ont");
  await tabTo(page, "Marital status on 31 December");
  await type(page, "Marr", "<Enter>");
  await tabTo(page, "Came to or left Canada in the year");
  await type(page, "n");
  await tabTo(page, "Foreign property that cost over 100,000");
  await type(page, "n");
  await tabTo(page, "No to the 4 questions still open");
  await type(page, "<Enter>", "<Escape>");
  await saved(page);

  await type(page, "n", "t4a", "<Enter>");
  await expect(page.getByRole("combobox", { name: "Payer", exact: true })).toBeFocused();
  await type(page, "Glass-blowers' Guild Plan");
  await tabTo(page, "016 Pension or superannuation");
  await type(page, "64000");
  await tabTo(page, "022 Income tax deducted");
  await type(page, "9000", "<Enter>");
  await saved(page);
  await page.getByRole("heading", { level: 1 }).click();
  await type(page, "n", "t4", "<Enter>");
  await expect(page.getByRole("combobox", { name: "Employer", exact: true })).toBeFocused();
  await type(page, "Harbour Kiosk");
  await tabTo(page, "Whose");
  await type(page, "Greta");
  await tabTo(page, "14 Employment income");
  await type(page, "18000", "<Enter>");
  // Enter takes over what the earnings make.
  const offered = page.getByRole("textbox", { name: "16 Employee's CPP contributions" });
  await expect(offered).toBeFocused();
  await expect(offered).toHaveAttribute("placeholder", "862.75");
  await type(page, "<Enter>");
  await tabTo(page, "18 Employee's EI premiums");
  await type(page, "<Enter>");
  await saved(page);
  await page.getByRole("heading", { level: 1 }).click();

  // The split is there on both returns, and the two together pay 7,963 instead of 9,516.
  await type(page, "s");
  await expect(strip).toContainText("7,963");
  await expect(cell(page, "Split pension given", 0)).toContainText("→ Greta");
  await expect(cell(page, "Split pension received", 1)).toContainText("← Ivo");
  await type(page, "w");
  const open = page.getByRole("region", { name: "What the law leaves open" });
  await expect(
    open.getByRole("img", { name: /^Pension income split: tax from 9,516 at none/ }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Hold none of it" }).focus();
  await type(page, "<Enter>");
  await expect(open).toContainText("Held at 0");
  await expect(open).toContainText("7,963 if let go");
  await page.getByRole("heading", { level: 1 }).click();
  await type(page, "s");
  await expect(strip).toContainText("1 pin held, costs 1,553");
  await expect(cell(page, "Total tax", 2)).toHaveText("9,516");
});

test("an amount is held at any value, and what cannot be is refused", async ({ page }) => {
  const id = await openCopy(page, "Marchbank-Oyelaran");
  await page.goto(`/h/${id}/ways`);
  const box = page.getByRole("textbox", { name: "Hold an amount of Pension income split" });
  await box.fill("40000");
  await box.press("Enter");
  await expect(page.getByText("Held at 40,000")).toBeVisible();
  await box.fill("80000");
  await box.press("Enter");
  await expect(page.getByRole("alert")).toContainText("an amount from 0 to 70,500 can");
  await expect(page.getByText("Held at 40,000")).toBeVisible();
  await page.getByRole("button", { name: "pinned by you · let go" }).click();
  await expect(page.getByText("Best 69,494")).toBeVisible();
});

test("the trail leads across both returns", async ({ page }) => {
  await openCopy(page, "Kettering-Adebayo");
  // The amounts that make credits fold into their sum.
  await page.getByRole("button", { name: /Amounts that make credits/ }).click();
  await cell(page, "Transferred from the partner", 0).getByRole("button").click();
  await page.keyboard.press("t");
  const about = page.getByRole("complementary", { name: "About the marked place" });
  await expect(about).toContainText("← from the return of Corin");
  await about.getByRole("button", { name: /^Tuition handed on/ }).click();
  await expect(about).toContainText("Corin Adebayo");
  await expect(about).toContainText("Tuition used");
});

test("a province that is not covered shows no tax and says so", async ({ page }) => {
  await openCopy(page, "Pell-Achterberg");
  await page.getByRole("button", { name: /^Together/ }).click();
  await choose(page.getByLabel("Province or territory on 31 December"), "Quebec");
  await expect(page.getByRole("status").filter({ hasText: "not a result" })).toContainText(
    "Quebec is not covered",
  );
  await expect(page.getByRole("region", { name: "Ways to file" })).toContainText("No tax is shown");
  await expect(page.getByRole("row", { name: /^Total tax/ })).toHaveCount(0);
  await expect(page.getByText(/^Balance/)).toHaveCount(0);
});

test("the list keeps currencies apart", async ({ page }) => {
  await signIn(page);
  // The list shows a hundred at first, and the specs make many: Pell-Achterberg of Canada, Pellerin of the United States.
  await page.getByPlaceholder(/^Name, own number/).fill("Pell");
  const row = page.getByRole("row", { name: /^Choose Pell-Achterberg 2025/ }).first();
  await expect(row).toContainText("C$ 18,234");
  await page.getByRole("button", { name: "Lowest tax" }).click();
  // The rows of the new order come with the next answer of the server.
  const apart = async () => {
    const totals = await page.getByRole("cell", { name: /^(C\$|\$) [−\d]/ }).allTextContents();
    const firsts = totals.filter((_, i) => i % 3 === 0).map((t) => t.startsWith("C$"));
    return firsts.join() === [...firsts].sort().join();
  };
  await expect.poll(apart).toBe(true);
});
