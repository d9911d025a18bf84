// What is typed: read as it was meant, kept whatever happens, refused at its place.
import { expect, type Page, test } from "@playwright/test";
import { typedDay } from "../../web/src/entry/dates";
import { answer, noFindings, openCopy, saved, signIn, type } from "./desk";

test("a day is read in the order of its country, with or without separators", () => {
  const us = (text: string) => typedDay(text, "month_day_year", 2025);
  const ca = (text: string) => typedDay(text, "year_month_day", 2025);
  const de = (text: string) => typedDay(text, "day_month_year", 2025);
  for (const [read, iso] of [
    [us("5 14 83"), "1983-05-14"],
    [us("05141983"), "1983-05-14"],
    [us("051483"), "1983-05-14"],
    [us("14 5 83"), "1983-05-14"],
    [us("14 May 1983"), "1983-05-14"],
    [us("May 14, 1983"), "1983-05-14"],
    [us("1983-05-14"), "1983-05-14"],
    [us("19830514"), "1983-05-14"],
    [us("03/04"), "2025-03-04"],
    [us("0304"), "2025-03-04"],
    [us("3/4/26"), "2026-03-04"],
    [us("3/4/27"), "1927-03-04"],
    [us("2 29 2024"), "2024-02-29"],
    [de("03/04"), "2025-04-03"],
    [de("3.4.25"), "2025-04-03"],
    [de("03042025"), "2025-04-03"],
    [ca("03/04"), "2025-03-04"],
    [ca("1983 5 14"), "1983-05-14"],
    [ca("19830514"), "1983-05-14"],
    [ca("05141983"), "1983-05-14"],
    [de("20121983"), "1983-12-20"],
    [de("19830514"), "1983-05-14"],
    [ca("830514"), "1983-05-14"],
    [ca("14 5 83"), "1983-05-14"],
    [ca("25/03/2025"), "2025-03-25"],
  ] as const) {
    expect(read).toEqual({ iso });
  }
  for (const [read, words] of [
    [us("31 2 2025"), "February 2025 has 28 days, not 31."],
    [us("2/30/2024"), "February 2024 has 29 days, not 30."],
    [us("4 31 2025"), "April 2025 has 30 days, not 31."],
    [us("13 13 2025"), "“13 13 2025” is no day. Type it as month day year, such as 3 31 2025."],
    [us("soon"), "“soon” is no day. Type it as month day year, such as 3 31 2025."],
    // Year first is the country's order: day and month before it could be either.
    [ca("03/04/2025"), "“03/04/2025” may be 4 Mar 2025 or 3 Apr 2025: type it as year month day."],
  ] as const) {
    expect(read).toEqual({ fault: words });
  }
});

const wages = (page: Page) => page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
const status = (page: Page) => page.getByRole("banner").getByRole("status");

async function openW2(page: Page) {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  await wages(page).waitFor();
  return id;
}

test("typing is kept after a rest, as one edit, and told until then", async ({ page }) => {
  await openW2(page);
  await wages(page).fill("12");
  await expect(status(page)).toHaveText("typing, not kept yet");
  await expect(status(page)).toContainText("rev 2");
  // What is typed stays as it is while the box has the focus; more of it goes on with the same edit.
  await expect(wages(page)).toHaveValue("12");
  await page.keyboard.type("345");
  await expect(status(page)).toContainText("rev 3");
  await page.keyboard.press("Enter");
  await expect(wages(page)).toHaveValue("12,345.00");
  await expect(status(page)).toContainText("rev 3");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(wages(page)).toHaveValue("19,420.00");
  await expect(page.getByText("Undone: Box 1 of W-2")).toContainText("19,420 → 12,345");
});

test("the same amount in another form is no edit", async ({ page }) => {
  await openW2(page);
  await wages(page).fill("19420");
  await wages(page).press("Enter");
  await expect(wages(page)).toHaveValue("19,420.00");
  await expect(status(page)).toContainText("rev 1");
  await expect(page.getByRole("button", { name: "✓ Checked against the original" })).toBeVisible();
});

test("typing survives going back, a reload and a closed tab", async ({ page, context }) => {
  const id = await openW2(page);
  const paper = `/h/${id}/papers?paper=w2`;
  await wages(page).fill("20001");
  await page.goBack();
  await page.goto(paper);
  await expect(wages(page)).toHaveValue("20,001.00");
  await wages(page).fill("20002");
  await page.reload();
  await expect(wages(page)).toHaveValue("20,002.00");
  await wages(page).fill("20003");
  await page.close({ runBeforeUnload: true });
  const again = await context.newPage();
  await again.goto(paper);
  await expect(wages(again)).toHaveValue("20,003.00");
  // Escape takes the typing back, also what a rest has kept of it.
  await wages(again).fill("7");
  await expect(status(again)).toContainText(/rev \d/);
  await wages(again).press("Escape");
  await expect(wages(again)).toHaveValue("20,003.00");
  await saved(again);
  await again.reload();
  await expect(wages(again)).toHaveValue("20,003.00");
});

test("typing outlives a lost connection and the page that it was lost on", async ({ page }) => {
  const id = await openW2(page);
  await page.route("**/edits", (route) => route.abort());
  await wages(page).fill("30000");
  await wages(page).press("Enter");
  await expect(status(page)).toHaveText("No answer: not kept yet, trying again");
  await expect(wages(page)).toHaveValue("30000");
  await page.goto("/");
  await page.unroute("**/edits");
  await page.goto(`/h/${id}/papers?paper=w2`);
  await expect(wages(page)).toHaveValue("30,000.00");
  await page.route("**/edits", (route) => route.abort());
  await wages(page).fill("31000");
  await wages(page).press("Enter");
  await expect(status(page)).toHaveText("No answer: not kept yet, trying again");
  await page.unroute("**/edits");
  await expect(wages(page)).toHaveValue("31,000.00");
  await saved(page);
});

test("a choice keeps what is meant, and Enter goes on", async ({ page }) => {
  await openW2(page);
  const code = page.getByLabel("12a Code");
  await code.focus();
  // Enter on what was not touched neither opens it nor swallows what follows.
  await type(page, "<Enter>", "455");
  await expect(page.getByRole("textbox", { name: "12a Amount" })).toHaveValue("455");
  await type(page, "<Escape>");
  await code.focus();
  await type(page, "d", "<Enter>");
  await expect(code).toHaveValue(/^D ·/);
  await code.focus();
  await type(page, "<Alt+ArrowDown>");
  await expect(page.getByRole("listbox")).toBeVisible();
  await expect(page.getByRole("option", { selected: true })).toHaveText(/^D ·/);
  await type(page, "<Escape>", "zzz", "<Tab>");
  await expect(page.getByRole("alert")).toContainText("“zzz” is none of the list");
  await expect(code).toHaveValue("zzz");
  await code.focus();
  await type(page, "<Escape>", "<Delete>");
  await expect(code).toHaveValue("");
  // Yes and no: Y, N and Delete answer, Enter goes on.
  const plan = page.getByLabel("13 Retirement plan");
  await plan.getByRole("radio").first().focus();
  await type(page, "y");
  await expect(answer(plan)).toHaveText("Yes");
  await type(page, "n");
  await expect(answer(plan)).toHaveText("No");
  await type(page, "<Delete>");
  await expect(answer(plan)).toHaveCount(0);
  await type(page, "<Enter>");
  await expect(page.getByLabel("13 Third-party sick pay").getByRole("radio").first()).toBeFocused();
});

test("a choice is made by mouse, in a dialog as well", async ({ page }) => {
  await signIn(page);
  await page.getByRole("button", { name: /New household/ }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Law").click();
  await page.getByRole("option", { name: "Canada" }).click();
  await expect(dialog.getByLabel("Law")).toHaveValue("Canada");
  await dialog.getByLabel("Household", { exact: true }).fill("Turnstone");
  await dialog.getByLabel("First filer").fill("Wenna Turnstone");
  await dialog.getByLabel("Born", { exact: true }).fill("14/5/83");
  await dialog.getByRole("button", { name: "Make it" }).click();
  // The first question of the household has the focus.
  await expect(page.locator("[data-box]:focus, [data-box] :focus")).toHaveCount(1);
  await page.getByRole("button", { name: /^Wenna/ }).click();
  await expect(page.getByRole("textbox", { name: "Born" })).toHaveValue("14 May 1983");
});

test("Enter goes on through a form and a list, and ends the edit", async ({ page }) => {
  await signIn(page);
  await page.keyboard.press("n");
  await page.getByRole("dialog").waitFor();
  await type(
    page,
    "Dunlin",
    "<Enter>",
    "<Enter>",
    "<Enter>",
    "<Enter>",
    "Ebbe Dunlin",
    "<Enter>",
    "5 14 83",
    "<Enter>",
  );
  await expect(page.getByLabel("Second filer, if any")).toBeFocused();
  await type(page, "<Enter>", "<Enter>");
  await expect(page.getByRole("heading", { name: "Dunlin household" }).first()).toBeVisible();
  await expect(page.getByLabel("On the last day of the year")).toBeFocused();
  await type(page, "never", "<Enter>");
  await expect(page.getByLabel("On the last day of the year")).toHaveValue("Never married");
  await expect(page.getByLabel("On the last day of the year")).not.toBeFocused();
  await type(page, "<Escape>", "n", "gifts", "<Enter>");
  await expect(page.getByRole("textbox", { name: "About", exact: true })).toBeFocused();
  const amount = page.getByRole("textbox", { name: "Amount, line 1" });
  await amount.focus();
  await type(page, "180", "<Enter>");
  await expect(page.getByRole("textbox", { name: "Given on, line 2" })).toBeFocused();
  await type(page, "<Escape>");
  await saved(page);
  await expect(amount).toHaveValue("180.00");
  // Escape after Enter takes nothing back, in the last box of a paper as well.
  await type(page, "n", "1099-int", "<Enter>");
  await page.getByRole("combobox", { name: "Payer" }).waitFor();
  const last = page.getByRole("region", { name: "Boxes" }).getByRole("textbox").last();
  await last.fill("12");
  await type(page, "<Enter>");
  await saved(page);
  await type(page, "<Escape>");
  await saved(page);
  await expect(last).toHaveValue(/^12/);
});

test("the first letters of a relationship are no other one, and fire no shortcut", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/spread?person=asa`);
  const box = page.getByLabel("Relationship to a filer");
  await box.focus();
  await type(page, "Grandp");
  await expect(page.getByRole("option")).toHaveText(["Grandparent, or a further ancestor"]);
  await type(page, "<Enter>");
  await expect(box).toHaveValue("Grandparent, or a further ancestor");
  await expect(page).toHaveURL(/person=asa/);
});

test("a day and a number take their shape; what is no day is refused", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/spread?person=asa`);
  const born = page.getByRole("textbox", { name: "Born" });
  await born.fill("31 2 2015");
  await born.press("Enter");
  await expect(page.getByRole("alert")).toHaveText("February 2015 has 28 days, not 31.");
  await expect(born).toHaveValue("31 2 2015");
  await born.fill("2 14 15");
  await born.press("Enter");
  await expect(born).toHaveValue("14 Feb 2015");
  await page.goto(`/h/${id}/papers?paper=w2`);
  const ein = page.getByLabel("b Employer's EIN");
  await ein.fill("934410927");
  await ein.press("Enter");
  await expect(ein).toHaveValue("93-4410927");
});

test("another window's change appears by itself and is told", async ({ page, context }) => {
  const id = await openW2(page);
  const other = await context.newPage();
  await other.goto(`/h/${id}/papers?paper=w2`);
  await wages(other).waitFor();
  await wages(page).fill("21000");
  await wages(page).press("Enter");
  await expect(wages(other)).toHaveValue("21,000.00");
  await expect(other.getByText("in another window: Box 1 of W-2")).toBeVisible();
});

test("single letters can be turned off", async ({ page }) => {
  await signIn(page);
  await openCopy(page, "Fennimore");
  await page.keyboard.press("?");
  await page.getByLabel("Single letters and signs do something").uncheck();
  await page.keyboard.press("Escape");
  await page.keyboard.press("w");
  await expect(page).toHaveURL(/spread/);
  await page.evaluate(() => localStorage.clear());
  await page.keyboard.press("w");
  await expect(page).toHaveURL(/ways/);
});

test("a payer comes back by its first letters, with its number, and a box says what it is", async ({
  page,
}) => {
  await openCopy(page, "Vreeland-Mbeki");
  await type(page, "n", "W-2", "<Enter>");
  const title = page.getByLabel("Employer", { exact: true });
  await title.pressSequentially("kiln");
  // What is offered is chosen as a list offers it: its words stand in the box.
  const offered = page.locator("datalist option").first();
  await expect(offered).toHaveAttribute("value", /kiln/i);
  // Both at once: the list may still be narrowing.
  const [name, number] = await offered.evaluate((option) => [
    (option as HTMLOptionElement).value,
    option.textContent ?? "",
  ]);
  await title.fill(name);
  await title.press("Tab");
  await saved(page);
  await expect(page.getByLabel("b Employer's EIN")).toHaveValue(number);

  await page.getByLabel("1 Wages, tips, other pay").focus();
  await page.keyboard.press("F1");
  const told = page.getByRole("dialog");
  await expect(told).toContainText("An amount, not below zero.");
  await expect(told).toContainText("Form 1040, line 1a");
  await expect(told).toContainText("changes by +2");
  await noFindings(page, "What a box is");
  await page.keyboard.press("Escape");
  await expect(page.getByLabel("1 Wages, tips, other pay")).toBeFocused();
});
