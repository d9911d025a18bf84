// The desk with the mouse: every view, every refusal.

import { readFile } from "node:fs/promises";
import { expect, type Page, test } from "@playwright/test";
import { cell, choose, more, noFindings, openCopy, saved, signIn } from "./desk";

test("axe finds nothing on any view", async ({ page }) => {
  await page.goto("/");
  await page.getByLabel("Name").waitFor();
  await noFindings(page, "sign-in");
  await signIn(page);
  await noFindings(page, "households");
  await page.keyboard.press("n");
  await noFindings(page, "new household");
  await page.keyboard.press("Escape");
  const id = await openCopy(page, "Vreeland-Mbeki");
  await noFindings(page, "spread");
  await cell(page, "Medical above", 4).getByRole("button").click();
  await page.getByText("What this changes").waitFor();
  await noFindings(page, "cell");
  await page.keyboard.press("t");
  await page.getByText("Close the trail").waitFor();
  await noFindings(page, "trail");
  for (const search of ["?person=wren", "?household=true"]) {
    await page.goto(`/h/${id}/spread${search}`);
    await page.getByRole("heading", { level: 2 }).first().waitFor();
    await noFindings(page, search);
  }
  for (const paper of ["w2-tamsin", "loan", "medical"]) {
    await page.goto(`/h/${id}/papers?paper=${paper}`);
    await page.getByText("What it does to the tax").waitFor();
    await noFindings(page, paper);
  }
  await page.goto(`/h/${id}/ways`);
  await page.getByText("now 96,400").waitFor();
  await noFindings(page, "ways");
  await page.goto(`/h/${id}/points`);
  await page.getByText("1 worth a look").waitFor();
  await noFindings(page, "points");
  await page.keyboard.press("/");
  await page.getByRole("dialog").waitFor();
  await noFindings(page, "finder");
  const partners = await openCopy(page, "Marchbank-Oyelaran");
  await cell(page, "Split pension received", 1).getByRole("button").click();
  await noFindings(page, "flows");
  await page.goto(`/h/${partners}/ways`);
  await page.getByText("Held at").or(page.getByText("Best 69,494")).waitFor();
  await noFindings(page, "amounts");
});

test("figures, limits and ways move after each box", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  const side = page.getByRole("complementary", { name: "Where these boxes go" });
  await expect(side).toContainText("Wages, Form 1040, line 1a");
  const wages = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
  await wages.fill("25166.67");
  await wages.blur();
  await saved(page);
  // 15 % × 22,667 = 3,400: the whole refundable part.
  await page.getByRole("link", { name: "Spread" }).click();
  await expect(cell(page, "Child credit paid out", 3)).toContainText("−3,400");
  await expect(cell(page, "Balance", 3)).toHaveText(/^[\d,]+ back$/);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(cell(page, "Child credit paid out", 3)).toContainText("−2,538");
  await page.getByRole("button", { name: /^Redo/ }).click();
  await expect(cell(page, "Child credit paid out", 3)).toContainText("−3,400");
});

test("a figure leads to its limit, its paper and its box", async ({ page }) => {
  await openCopy(page, "Okonjo-Farrell");
  await cell(page, "Medical above", 0).getByRole("button").click();
  const about = page.getByRole("complementary", { name: "About the marked place" });
  await expect(about).toContainText("5,887 lost — below the floor");
  await expect(about).toContainText("IRC §213(a)");
  await about.getByRole("link", { name: /Medical · Isolde's operation/ }).click();
  await expect(page.getByRole("heading", { name: "Medical · Isolde's operation" })).toBeVisible();
});

test("bad input is refused at its box and changes nothing", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  const wages = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
  for (const [typed, words] of [
    ["-5", "a negative amount is not possible"],
    ["12.345", "at most two decimals"],
    ["12,50", "12.50 or 1,250?"],
    ["12 50", "12.50 or 1,250?"],
    ["9999999999999", "may not exceed"],
  ] as const) {
    await wages.fill(typed);
    await wages.blur();
    await expect(page.getByRole("alert")).toContainText(words);
  }
  await page.goto(`/h/${id}/papers?paper=int`);
  await page.getByLabel("Whose").waitFor();
  await page.goto(`/h/${id}/spread?person=delphine`);
  const number = page.getByRole("textbox", { name: "SSN, ITIN or ATIN" });
  await number.fill("000-12-3456");
  await number.blur();
  await expect(page.getByRole("alert")).toContainText("nine digits");
  await number.press("Escape");
  // Removing names what goes with it.
  await page.getByRole("button", { name: "Remove Delphine Fennimore" }).click();
  const removing = page.getByRole("dialog");
  await expect(removing).toContainText("the paper W-2");
  await removing.getByRole("button", { name: "Remove", exact: true }).click();
  await expect(page.getByRole("alert")).toContainText("A household has one or two filers, not 0");
  await expect(number).toHaveValue("•••-••-3358");
  await page.getByRole("button", { name: "Show SSN, ITIN or ATIN" }).click();
  await expect(number).toHaveValue("831-26-3358");
  await expect(page.getByText("rev 1")).toBeVisible();
});

test("an amount is read as the return writes it, and kept once", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  const wages = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
  const before = await wages.inputValue();
  let revision = 1;
  for (const [typed, kept] of [
    ["$45", "45.00"],
    ["1,250.5", "1,250.50"],
    ["12 345", "12,345.00"],
    [".5", "0.50"],
    ["7.", "7.00"],
  ] as const) {
    await wages.fill(typed);
    await wages.press("Enter");
    await expect(wages).toHaveValue(kept);
    revision += 1;
    await expect(page.getByText(`rev ${revision}`, { exact: false })).toBeVisible();
  }
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(wages).toHaveValue("0.50");
  for (let left = 4; left > 0; left -= 1) {
    await page.getByRole("button", { name: /^Undo/ }).click();
    await saved(page);
  }
  await expect(wages).toHaveValue(before);
});

test("shares that do not add up are refused", async ({ page }) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.goto(`/h/${id}/papers?paper=loan`);
  const share = page.getByRole("textbox", { name: "Isolde Farrell's share in per cent" });
  await share.fill("130");
  await share.blur();
  await expect(page.getByRole("alert")).toContainText("not to 100 %");
  await share.fill("70");
  await share.blur();
  await expect(page.getByRole("textbox", { name: "Bram Okonjo's share in per cent" })).toHaveValue("30");
});

test("two people at one household: edits are put together, or the later one chooses", async ({
  page,
  context,
}) => {
  const id = await openCopy(page, "Fennimore");
  const other = await context.newPage();
  await other.goto(`/h/${id}/papers?paper=w2`);
  const box = (p: Page, name = "2 Federal tax withheld") => p.getByRole("textbox", { name });
  await box(other).waitFor();
  await page.goto(`/h/${id}/papers?paper=w2`);
  await box(page).fill("300");
  await box(page).blur();
  await saved(page);
  await expect(page.getByText("rev 2")).toBeVisible();
  // Another box: put on top of what this window has not seen.
  await box(other, "14 State disability, family leave").fill("55");
  await box(other, "14 State disability, family leave").blur();
  await expect(other.getByText("rev 3")).toBeVisible();
  await expect(box(other)).toHaveValue("300.00");
  // The same box: both values, and a choice.
  // The other window does not look for changes just then.
  await other.route("**/since", (route) => route.abort());
  await box(page).fill("301");
  await box(page).blur();
  await expect(page.getByText("rev 4")).toBeVisible();
  await box(other).fill("400");
  await box(other).blur();
  const note = other.getByRole("alert").filter({ hasText: "Federal tax withheld is 301.00 by N. Ostrava" });
  await expect(note).toContainText("you typed 400.00");
  await expect(other.getByRole("alert").first()).toContainText("Box 2 of W-2");
  await expect(box(other)).toHaveValue("400");
  await noFindings(other, "a choice");
  await note.getByRole("button", { name: "set mine" }).click();
  await expect(box(other)).toHaveValue("400.00");
  await expect(other.getByText("rev 5")).toBeVisible();
  await expect(other.getByRole("alert")).toHaveCount(0);
});

test("the history tells what was done, shows an earlier revision and brings it back", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  const box = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
  await box.fill("20000");
  await box.blur();
  await saved(page);
  await expect(page.getByText("rev 2")).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "History H" }).click();
  const sheet = page.getByRole("dialog");
  await expect(sheet.getByRole("listitem").first()).toContainText("Box 1 of W-2");
  await expect(sheet.getByRole("listitem").first()).toContainText("19,420 → 20,000");
  await noFindings(page, "history");
  await sheet.getByRole("button", { name: "View revision 1" }).click();
  await expect(page.getByText("Revision 1, ", { exact: false })).toBeVisible();
  await expect(box).toHaveValue("19,420.00");
  await box.fill("7");
  await box.blur();
  await expect(page.getByRole("alert")).toContainText("This is an earlier revision");
  await page.getByRole("button", { name: "Bring this back" }).click();
  await expect(page.getByText("rev 3")).toBeVisible();
  await expect(box).toHaveValue("19,420.00");
  await page.getByRole("button", { name: "Undo Z" }).click();
  await expect(box).toHaveValue("20,000.00");
});

test("a question is asked for the years in which it matters", async ({ page }) => {
  await signIn(page);
  await page.keyboard.press("n");
  await page.getByLabel("Household", { exact: true }).fill("Sandpiper");
  await choose(page.getByLabel("Return year"), "2024");
  await page.getByLabel("First filer").fill("Ines Sandpiper");
  await page.getByRole("button", { name: "Make it" }).click();
  await page.getByRole("link", { name: /Open points/ }).click();
  await expect(page.getByRole("button", { name: "No to the 3 questions still open" })).toBeVisible();
  await page.goto(`${page.url().replace("/points", "/spread")}?household=true`);
  await expect(page.getByLabel("Paid student loan interest")).toBeVisible();
  await expect(page.getByLabel("Overtime pay or tips")).toHaveCount(0);
});

test("questions on which the result hangs are answered one by one or together", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/spread?household=true`);
  await choose(page.getByLabel("Sold property of a business, an option at work, or in instalments"), "Yes");
  await expect(page.getByText("The figures are not a result.")).toBeVisible();
  await choose(page.getByLabel("Sold property of a business, an option at work, or in instalments"), "");
  await choose(page.getByLabel("Other credits or taxes"), "");
  await expect(
    page.getByText("Sold property of a business, an option at work, or in instalments: yes or no?"),
  ).toBeVisible();
  await page.getByRole("button", { name: "No to the 2 questions still open" }).click();
  await expect(page.getByText("The figures are not a result.")).toBeHidden();
});

test("questions come once their order is known, and stay where they are", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.route("**/questions*", async (route) => {
    await new Promise((go) => setTimeout(go, 1_500));
    await route.continue();
  });
  await page.goto(`/h/${id}/spread?household=true`);
  await expect(page.getByText("What each question decides here")).toBeVisible();
  const box = page.getByLabel("Other credits or taxes");
  await expect(box).toHaveCount(0);
  await expect(box).toBeVisible();
  await box.getByRole("radio").first().focus();
  await page.keyboard.press("Delete");
  await saved(page);
  await expect(box.getByRole("radio").first()).toBeFocused();
});

test("a secret of a question is hidden and shown on demand", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/spread?household=true`);
  const box = page.getByRole("textbox", { name: "Account for a refund" });
  await box.fill("021000021 5561-9034");
  await box.blur();
  await expect(box).toHaveValue("••••••••• ••••-9034");
  await page.getByRole("button", { name: "Show Account for a refund" }).click();
  await expect(box).toHaveValue("021000021 5561-9034");
});

test("people are added, asked about and counted", async ({ page }) => {
  await openCopy(page, "Fennimore");
  await page.getByRole("button", { name: "Add a person" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name").fill("Bee Fennimore");
  await dialog.getByLabel("Born").fill("4 1 2025");
  await dialog.getByRole("button", { name: "Add", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Bee Fennimore" })).toBeVisible();
  await choose(page.getByLabel("Relationship to a filer"), "Child");
  await saved(page);
  await expect(page.getByRole("columnheader", { name: /Bee 0 · child/ })).toBeVisible();
  await expect(cell(page, "Child and dependent credits", 3)).toContainText("2,200");
  await page.getByRole("link", { name: /Open points/ }).click();
  await expect(
    page.getByText("Bee Fennimore has no social security or taxpayer number.").first(),
  ).toBeVisible();
});

test("grandmother: what was not said is asked, and two homes have no more months than the year", async ({
  page,
}) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.goto(`/h/${id}/spread?household=true`);
  await choose(page.getByLabel("The two lived apart from July to December"), "Yes");
  await saved(page);
  await page.getByRole("button", { name: "Add a person" }).click();
  const dialog = page.getByRole("dialog");
  await dialog.getByLabel("Name").fill("Orla Farrell");
  await dialog.getByLabel("Born").fill("4/1/48");
  await dialog.getByRole("button", { name: "Add", exact: true }).click();
  await choose(page.getByLabel("Relationship to a filer"), "Parent, father or mother");
  await saved(page);
  await expect(page.getByRole("columnheader", { name: /Orla 77 · parent/ })).toBeVisible();
  const months = page.getByRole("textbox", { name: /^Months with/ });
  await expect(months.first()).toHaveValue("");
  for (const box of [months.first(), months.last()]) {
    await box.fill("12");
    await box.press("Enter");
  }
  await page.getByRole("link", { name: /Open points/ }).click();
  await expect(
    page.getByText("Orla Farrell cannot have lived 24 months with filers who were apart"),
  ).toBeVisible();
  await expect(page.getByText("Orla Farrell is not a dependent")).toBeHidden();
  await choose(page.getByLabel("Do the filers pay over half of the support of Orla Farrell?"), "Yes");
  await expect(
    page.getByText("Does one filer alone pay over half of the support of Orla Farrell?"),
  ).toBeVisible();
});

test("each receipt tells whether its proof is at hand", async ({ page }) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.goto(`/h/${id}/papers?paper=medical`);
  const line = (n: number) => page.getByLabel(`What proves line ${n} is at hand`);
  await line(2).click();
  await expect(page.getByLabel("It is at hand for 1 of 5 lines")).not.toBeChecked();
  await noFindings(page, "A list with its proofs");
  await page.getByLabel("It is at hand for").click();
  await expect(page.getByLabel("It is at hand for 5 of 5 lines")).toBeChecked();
  await line(1).click();
  await expect(page.getByLabel("It is at hand for 4 of 5 lines")).toBeVisible();
  await expect(line(1)).not.toBeChecked();
  await page.keyboard.press("z");
  await expect(line(1)).toBeChecked();
});

test("what is done beside the return is said so, and taken up again", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/papers?paper=gifts`);
  const sort = page.getByLabel(/^Sort/).first();
  await choose(sort, "Used goods");
  await saved(page);
  const amount = page.getByRole("textbox", { name: /^Amount/ }).first();
  await amount.fill("812");
  await amount.press("Enter");
  await page.getByRole("link", { name: /Open points/ }).click();
  await expect(page.getByText(/Goods worth [\d,]+ need Form 8283/).first()).toBeVisible();
  await page.getByRole("button", { name: "Done beside this return" }).click();
  await expect(page.getByText(/done beside this return · N. Ostrava, \d+ \w+ \d{4}/)).toBeVisible();
  await expect(page.getByRole("heading", { name: /hold.* up the filing/ })).toBeHidden();
  await page.getByRole("button", { name: "Take it up again" }).first().click();
  await expect(page.getByRole("heading", { name: "1 point holds up the filing" })).toBeVisible();
});

test("open points are answered where they stand", async ({ page }) => {
  await signIn(page);
  await page.getByRole("button", { name: /New household/ }).click();
  await page.getByLabel("Household", { exact: true }).fill("Osprey");
  await page.getByLabel("First filer").fill("Odile Osprey");
  await page.getByRole("button", { name: "Make it" }).click();
  await page.getByRole("link", { name: /Open points/ }).click();
  await expect(page.getByRole("heading", { name: "8 points hold up the filing" })).toBeVisible();
  await choose(page.getByLabel("Digital assets: yes or no?"), "No");
  await expect(page.getByRole("heading", { name: "7 points hold up the filing" })).toBeVisible();
  // The next point has the focus, and its rule and what answering does stand at the right.
  const about = page.getByRole("complementary", { name: "About the point" });
  await expect(page.locator("[data-point]:has(:focus)")).toHaveCount(1);
  await page.getByLabel("Were the filers married on the last day of the year?").focus();
  await expect(about).toContainText("IRC §");
  await expect(about).toContainText("What answering does");
  await expect(about.getByRole("listitem").first()).toContainText("settles 1 point");
  await page.getByRole("button", { name: "Put aside…" }).click();
  await page.getByLabel("Reason").fill("moves in spring");
  await page.getByRole("button", { name: "Put aside", exact: true }).click();
  await expect(page.getByRole("heading", { name: "1 put aside" })).toBeVisible();
  await choose(page.getByLabel("Were the filers married on the last day of the year?"), "Married");
  await expect(page.getByText("Does the spouse itemize?")).toBeVisible();
});

test("what is not computed yet says so over the figures", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  await choose(page.getByLabel("12a Code"), "T · adoption benefits");
  await expect(page.getByText("The figures are not a result.")).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByText("The figures are not a result.")).toBeHidden();
});

test("households are found, sorted, renamed, deleted, brought back", async ({ page }) => {
  await signIn(page);
  const rows = page.locator("tbody tr");
  await page.getByLabel("Find a household or a person").fill("chidi");
  await expect(rows).toHaveCount(1);
  await page.getByLabel("Find a household or a person").fill("nobody");
  await expect(page.getByText("Nothing matches “nobody”")).toBeVisible();
  await page.getByRole("button", { name: "Show all households" }).click();
  await page.getByRole("button", { name: "Household", exact: true }).click();
  await expect(rows.first()).toContainText("Abernathy-Solis");
  await more(page, "Halvorsen-Achebe", "Copy");
  await more(page, "Halvorsen-Achebe (copy)", "Rename");
  await page.getByLabel("New name").fill("Stonebridge");
  await page.keyboard.press("Enter");
  await more(page, "Stonebridge", "Delete");
  await expect(page.getByText("Stonebridge was deleted.")).toBeVisible();
  await expect(page.getByRole("link", { name: /^Stonebridge/ })).toBeHidden();
  // Also after a reload, by key or from the list below.
  await page.reload();
  await page.getByText("Deleted, 30 days").click();
  await expect(page.getByRole("button", { name: "Bring Stonebridge back" })).toBeVisible();
  await page.keyboard.press("z");
  await expect(page.getByText("Stonebridge is back.")).toBeVisible();
  await expect(page.getByRole("link", { name: /^Stonebridge/ })).toBeVisible();
});

test("files come in and go out; a bad one is refused with its place", async ({ page }) => {
  await signIn(page);
  const file = page.getByLabel("Household file");
  // The list may still be on its way, which is a status, too.
  const refusal = page.getByRole("status").filter({ hasText: /was not imported|Nothing was stored/ });
  const give = (name: string, text: string) =>
    file.setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
  await give("notes.json", "dear family");
  await expect(refusal).toContainText("line 1 column 1");
  await give("huge.json", " ".repeat(5_000_000));
  await expect(refusal).toContainText("at most 4,194,304 bytes");
  const demo = await readFile("../demo/us/fennimore.json", "utf8");
  await give("odd.json", demo.replace('"W-2"', '"W-3"'));
  await expect(refusal).toContainText("/papers/0/kind: There is no kind of paper 'W-3'.");
  await give("good.json", demo);
  await expect(page.getByRole("heading", { name: "Fennimore (imported) household" })).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Export" }).click();
  await noFindings(page, "export");
  await page.getByRole("link", { name: "With full numbers" }).click();
  const path = await (await download).path();
  const name = "Fennimore (imported)";
  expect(JSON.parse(await readFile(path, "utf8"))).toEqual({ ...JSON.parse(demo), name });
});

test("a wrong password, a lost server and an unknown household are told plainly", async ({ page }) => {
  await page.goto("/");
  await page.getByLabel("Name").fill("demo");
  await page.getByLabel("Password").fill("wrong");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("alert")).toContainText("do not go together");
  const id = await openCopy(page, "Fennimore");
  await page.route("**/edits", (route) => route.abort());
  await page.goto(`/h/${id}/papers?paper=w2`);
  const box = page.getByRole("textbox", { name: "2 Federal tax withheld" });
  await box.fill("300");
  await box.blur();
  await expect(page.getByText("No answer: not kept yet, trying again")).toBeVisible();
  await page.goto("/h/00000000-0000-4000-8000-000000000000/spread");
  await expect(page.getByText("This household cannot be opened")).toBeVisible();
  await page.goto("/");
  await page.getByRole("button", { name: "Sign out" }).click();
  await expect(page.getByRole("heading", { name: "Sign in" })).toBeVisible();
});
