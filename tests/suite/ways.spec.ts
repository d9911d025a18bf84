// Ways: prices, pins, bars, the comparison, and finding things.
import { expect, test } from "@playwright/test";
import { cell, choose, noFindings, openCopy, saved } from "./desk";

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

test("a way is held against the lowest with a reason, which the certificate says too", async ({ page }) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.goto(`/h/${id}/ways`);
  await page.getByRole("button", { name: "Hold Jointly" }).click();
  const why = page.getByRole("textbox", { name: /^Why .* is held$/ });
  await why.fill("Their lender asks for a joint return");
  await why.press("Enter");
  await expect(page.getByText("rev 3")).toBeVisible();
  await page.reload();
  await expect(why).toHaveValue("Their lender asks for a joint return");
  await noFindings(page, "a reason");
  await page.getByRole("button", { name: "Certificate", exact: true }).click();
  const sheet = page.getByRole("dialog", { name: "Certificate" });
  await expect(sheet).toContainText("Jointly (Their lender asks for a joint return)");
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "pinned by you · let go" }).click();
  await expect(why).toHaveCount(0);
});

test("the curve is read as a table, and is a file", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/ways`);
  await page.getByRole("button", { name: "As a table" }).press("Enter");
  const table = page.getByRole("region", { name: "The curve as a table" });
  await expect(table.getByRole("row").nth(1)).toContainText("0");
  await expect(table).toContainText("from 65,819");
  await noFindings(page, "curve as a table");
  const download = page.waitForEvent("download");
  await table.getByRole("link", { name: /points as CSV$/ }).click();
  expect((await download).suggestedFilename()).toMatch(/^curve-.*\.csv$/);
  await page.getByRole("button", { name: "Drawn" }).click();
  await expect(table).toHaveCount(0);
});

test("the certificate says why nothing is lower, and is a file that can be verified", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/ways`);
  await page.getByRole("button", { name: "Certificate", exact: true }).press("Enter");
  const sheet = page.getByRole("dialog", { name: "Certificate" });
  await expect(sheet).toContainText(
    "Total tax 11,141 (Joint · itemized) for 2025: the lowest lawful tax of the year.",
  );
  await expect(sheet).toContainText("23 ways are lawful; every one was weighed");
  await sheet.getByText("1 option barred, each by its rule").click();
  await expect(sheet).toContainText("lived together after June");
  await noFindings(page, "certificate");
  const download = page.waitForEvent("download");
  await sheet.getByRole("link", { name: "The file that can be verified" }).click();
  expect((await download).suggestedFilename()).toBe("certificate-2025.json");
  await page.keyboard.press("Escape");
  await expect(sheet).toBeHidden();
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
  // What is the same in all stands as one row before each result, so that the columns foot.
  await expect(compared.getByRole("row", { name: /^The same in all/ }).first()).toContainText(
    "149,352149,352149,352",
  );
  // Ways that tie are one row, unfolded on demand.
  await expect(compared).toContainText("All 23 ways, lowest first");
  await expect(compared.locator("ol > li")).toHaveCount(8);
  await expect(compared.locator("ol > li").nth(2)).toContainText("but separate4 ways tie");
  await compared.getByText("4 ways tie").first().click();
  await expect(
    compared.getByText("Separate · itemized · Wren with Tamsin · Teasel with Osric").first(),
  ).toBeVisible();
  // A figure of any way opens its trail.
  await compared.getByRole("button", { name: "Taxable income, but standard: 117,852" }).click();
  const trail = page.getByRole("dialog", { name: "But standard" });
  await expect(trail).toContainText("Form 1040, line 15");
  await trail.getByRole("button", { name: /^Total deductions/ }).click();
  await trail.getByRole("button", { name: /^Standard or itemized/ }).click();
  await expect(trail).toContainText("31,500");
  await page.keyboard.press("Escape");
  await page.getByRole("link", { name: /^Medical below the floor/ }).click();
  await expect(page.getByRole("complementary", { name: "About the marked place" })).toContainText(
    "2,633 lost",
  );
});

test("ways of choice stand beside the chosen one, in the lines that differ or in all", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/ways`);
  const compared = page.getByRole("region", { name: "Only lines that differ" });
  const heads = compared.getByRole("columnheader");
  await expect(heads).toHaveCount(4);
  await compared.getByRole("checkbox", { name: "Beside: but sales tax" }).press("Space");
  await expect(heads).toHaveCount(3);
  await expect(heads.nth(2)).toContainText("but sales tax by the table+1,657");
  await expect(compared.getByRole("row", { name: /^Total tax/ })).toContainText("11,14112,798");
  // Its curve lies over that of the lowest ways, drawn and as a table.
  await expect(page.getByRole("img", { name: /^Tax on the next hundred/ })).toHaveAttribute(
    "aria-label",
    /and but sales tax by the table over it/,
  );
  await page.getByRole("button", { name: "As a table" }).click();
  await expect(page.getByRole("columnheader", { name: "Total, but sales tax by the table" })).toBeVisible();
  await page.getByRole("button", { name: "Drawn" }).click();
  await compared.getByRole("checkbox", { name: "Beside: but standard" }).check();
  await compared
    .getByRole("checkbox", { name: /^Beside: but separate, / })
    .first()
    .check();
  await expect(heads).toHaveCount(5);
  // Four columns are the most; one that is taken away makes room.
  const other = compared.getByRole("checkbox", { name: /^Beside: but separate/ }).first();
  await expect(other).toBeDisabled();
  await compared.getByRole("checkbox", { name: "Beside: but standard" }).uncheck();
  await expect(other).toBeEnabled();
  await expect(compared).not.toContainText("Adjusted gross income");
  await compared.getByRole("button", { name: "All lines" }).press("Enter");
  await expect(compared.getByRole("row", { name: /^Adjusted gross income/ })).toBeVisible();
  await noFindings(page, "ways of choice");
  // The trail of a figure is that of its way.
  await compared.getByRole("button", { name: "Total tax, but sales tax by the table: 12,798" }).click();
  await expect(page.getByRole("dialog", { name: "But sales tax by the table" })).toContainText("12,798");
  await page.keyboard.press("Escape");
  await compared.getByRole("button", { name: "The lowest beside" }).click();
  await compared.getByRole("button", { name: "Only those that differ" }).click();
  await expect(heads).toHaveCount(4);
});

test("what is left to later years has its worth, and ways within a tolerance stand once", async ({
  page,
}) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/ways`);
  const compared = page.getByRole("region", { name: "Only lines that differ" });
  await expect(compared.locator("ol > li")).toHaveCount(8);
  await compared.getByLabel("Equal within").fill("214");
  await compared.getByLabel("Equal within").press("Enter");
  await expect(compared.locator("ol > li")).toHaveCount(6);
  await expect(compared.locator("ol > li").first()).toContainText("nearly tie");
  await page.reload();
  await expect(compared.locator("ol > li")).toHaveCount(6);
  await compared.getByLabel("Equal within").fill("");
  await compared.getByLabel("Equal within").press("Enter");
  await expect(compared.locator("ol > li")).toHaveCount(8);
});

test("a decision tells where it turns, along the amount that was chosen", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/ways`);
  const open = page.getByRole("region", { name: "What the law leaves open" });
  await expect(open).toContainText(
    "Itemized 32,475, standard 31,500: standard wins if itemized falls by 975",
  );
  await expect(open).toContainText("Separately below 65,819 in box 1 of W-2 Harbour Passage Ferries");
  await choose(page.getByLabel("The amount of the curve"), "box 1 of 1098 Ledge Island Credit Union");
  // 975 less of interest are 13,537; as the tax is in whole dollars, up to 13,541 both come to the same.
  await expect(open).toContainText("Standard deduction below 13,542 in box 1 of 1098");
  // The box that was marked last is the first choice.
  await page.goto(`/h/${id}/papers?paper=w2-osric`);
  await page.getByRole("textbox", { name: "1 Wages, tips, other pay" }).focus();
  await page.keyboard.press("Escape");
  await page.keyboard.press("w");
  await expect(page.getByLabel("The amount of the curve")).toHaveValue(/^box 1 of W-2/);
  await expect(page.getByText("now 52,310")).toBeVisible();
});

test("what people type finds what they mean", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  const find = page.getByRole("combobox", { name: "Find" });
  const first = page.getByRole("option").first();
  await page.keyboard.press("/");
  for (const [typed, found] of [
    ["w2", "W-2"],
    ["salt", "tax"],
    ["96,400", "W-2 Harbour Passage Ferries"],
    ["mortgage", "1098"],
    ["donation", "Gifts"],
    ["grandmother", "Person"],
    ["person", "a child, a parent, a second filer"],
  ] as const) {
    await find.fill(typed);
    await expect(first, typed).toContainText(found);
  }
  await find.fill("");
  await page.keyboard.press("Enter");
  await expect(find).toBeVisible();
  await choose(page.getByLabel("Whose"), "Both filers");
  await find.fill("1098");
  await expect(first).toContainText("1098");
  await find.fill("child");
  await page.getByRole("option", { name: /a second filer/ }).click();
  await expect(page.getByRole("dialog", { name: "Add a person" })).toBeVisible();
  await page.keyboard.press("Escape");
  await openCopy(page, "Marchbank-Oyelaran");
  await page.keyboard.press("/");
  await find.fill("cpp");
  await expect(page.getByRole("option", { name: /T4A\(P\)/ }).first()).toBeVisible();
});

test("the keyboard leads: the first arrow marks, brackets walk papers, L leads to the list", async ({
  page,
}) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.keyboard.press("ArrowDown");
  await expect(cell(page, "Wages", 0).getByRole("button")).toBeFocused();
  await page.keyboard.press("ArrowDown");
  await expect(cell(page, "Taxable interest", 0).getByRole("button")).toBeFocused();
  await page.keyboard.press("t");
  await expect(page.getByRole("complementary", { name: "About the marked place" })).toContainText("Trail");
  await page.goto(`/h/${id}/papers?paper=w2-tamsin`);
  await page.getByRole("heading", { name: /W-2 · Harbour/ }).waitFor();
  await page.keyboard.press("]");
  await expect(page).not.toHaveURL(/w2-tamsin/);
  await page.keyboard.press("[");
  await expect(page).toHaveURL(/w2-tamsin/);
  await page.keyboard.press("l");
  await expect(page.getByRole("heading", { name: "Households" })).toBeVisible();
});

test("the trail shows how a figure was worked out", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/spread?line=us.16&scopes=return/0&trail=true`);
  const about = page.getByRole("complementary", { name: "About the marked place" });
  // 2025, joint: 11,157 up to 96,950, then 22 %.
  await expect(about).toContainText("11,157 + (116,877 − 96,950) × 22 %");
  await page.goto(`/h/${id}/spread?line=us.sched_a.3&scopes=return/0&trail=true`);
  await expect(about).toContainText("149,352 × 7.5 %");
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
  await expect(page.getByRole("combobox", { name: "Payer" })).toBeFocused();
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

test("what is lawful and not weighed stands below the ways; foreign tax is credited in three ways", async ({
  page,
}) => {
  const id = await openCopy(page, "Quillfeather-Nakano");
  await page.goto(`/h/${id}/ways`);
  const open = page.getByRole("region", { name: "What the law leaves open" });
  await expect(open).not.toContainText("Credit with Form 1116");
  await page.getByRole("link", { name: "Papers" }).click();
  await expect(page.getByText("Where these boxes go")).toBeVisible();
  await page.keyboard.press("n");
  await page.keyboard.type("1099-DIV");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^1099-DIV/ })).toBeVisible();
  for (const [box, amount] of [
    ["1a Ordinary dividends", "9000"],
    ["7 Foreign tax paid", "1400"],
    ["7 Income taxed abroad", "9000"],
    ["8 Foreign country", "RIC"],
  ]) {
    const field = page.getByRole("textbox", { name: box });
    await field.fill(amount);
    await field.press("Enter");
  }
  await saved(page);
  await page.goto(`/h/${id}/ways`);
  await expect(
    page.getByRole("button", { name: "Hold Credit with Form 1116, gains adjusted" }),
  ).toBeVisible();
  await expect(open).toContainText("Credit without Form 1116 — more foreign tax than goes without the form");
  await open.getByText("chosen beside the return, not weighed for anyone").click();
  await expect(open).toContainText("Foreign tax of the year in which it accrued or was paid");
  await page.goto(`/h/${id}/schedules`);
  await page
    .getByRole("navigation", { name: "Forms" })
    .getByRole("button", { name: /^Form 1116/ })
    .click();
  await expect(page.getByRole("row", { name: /Taxable income, adjusted/ })).toBeVisible();
});
