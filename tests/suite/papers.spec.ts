// Papers: receipts line by line, owners, checks where they stand, and what a paper is worth.
import { expect, test } from "@playwright/test";
import { cell, choose, openCopy, saved } from "./desk";

test("receipts are added, changed and removed line by line", async ({ page }) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.goto(`/h/${id}/papers?paper=medical`);
  await expect(page.getByText("5 lines.")).toBeVisible();
  await page.getByLabel("Paid on, line 6").fill("10 10 2025");
  await choose(page.getByLabel("For, line 6", { exact: true }), "Juniper Okonjo");
  await page.getByLabel("To whom, what for, line 6").fill("Lantern Pharmacy");
  await page.getByLabel("Amount, line 6").fill("1,000");
  await page.getByLabel("Amount, line 6").blur();
  await expect(page.getByText("6 lines.")).toBeVisible();
  await saved(page);
  const side = page.getByRole("complementary", { name: "Where these boxes go" });
  // 1,000 less taxable income at 12 %.
  await expect(side).toContainText("−120");
  await page.getByLabel("Amount, line 6").fill("2000");
  await page.getByLabel("Amount, line 6").blur();
  await expect(side).toContainText("−240");
  await page.getByRole("button", { name: "Remove line 6" }).click();
  await expect(page.getByText("5 lines.")).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByText("6 lines.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Amount, line 6")).toHaveValue("2,000.00");
});

test("a box that disagrees with another says so where it stands", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  const social = page.getByRole("textbox", { name: "4 Social security tax" });
  await social.fill("1240.02");
  await social.blur();
  await expect(page.getByText("Box 4 should be 1,204.04 — 6.2 % of boxes 3 and 7.")).toBeVisible();
  await page.getByRole("button", { name: "use 1,204.04" }).click();
  await expect(social).toHaveValue("1,204.04");
  await expect(page.getByText("Box 4 should be", { exact: false })).toBeHidden();
  await social.fill("1100");
  await social.blur();
  await page.getByRole("button", { name: "Put aside…" }).click();
  await page.getByLabel("Reason").fill("asked the employer");
  await page.getByRole("button", { name: "Put aside", exact: true }).click();
  await expect(page.getByText("Box 4 should be", { exact: false })).toBeHidden();
  await page.getByRole("link", { name: /Open points/ }).click();
  await expect(page.getByRole("heading", { name: "1 put aside" })).toBeVisible();
  await page.getByRole("button", { name: "Take it up again" }).click();
  await expect(page.getByRole("heading", { name: "1 worth a look" })).toBeVisible();
  await page.getByRole("link", { name: "Go to the box" }).click();
  await expect(social).toBeFocused();
});

test("a paper changes hands, is checked, removed and brought back", async ({ page }) => {
  const id = await openCopy(page, "Okonjo-Farrell");
  await page.goto(`/h/${id}/papers?paper=int`);
  await choose(page.getByLabel("Whose"), "Bram Okonjo");
  await expect(page.getByRole("heading", { name: "Bram 2 papers" })).toBeVisible();
  // A paper that was checked and changed counts as not checked.
  await expect(page.getByText("Checked, its owners changed since")).toBeVisible();
  await page.getByRole("button", { name: "Mark as checked" }).click();
  await page.getByRole("textbox", { name: "1 Interest", exact: true }).fill("77");
  await page.getByRole("textbox", { name: "1 Interest", exact: true }).press("Enter");
  await expect(page.getByText("Checked, box 1 changed since")).toBeVisible();
  await page.getByRole("button", { name: "Mark as checked" }).click();
  await page.getByRole("button", { name: "✓ Checked against the original" }).click();
  await expect(page.getByRole("button", { name: "Mark as checked" })).toBeVisible();
  await page.getByRole("button", { name: "Remove", exact: true }).click();
  await expect(page.getByRole("dialog")).toContainText(/\d filled box/);
  await page.getByRole("dialog").getByRole("button", { name: "Remove", exact: true }).click();
  await expect(page.getByRole("link", { name: /^Papers 6/ })).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByRole("link", { name: /^Papers 7/ })).toBeVisible();
});

test("Escape takes typing back, and an unknown paper in the address shows another", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=gone`);
  const wages = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
  await wages.fill("99999");
  await wages.press("Escape");
  await expect(wages).toHaveValue("19,420.00");
  await wages.press("Escape");
  await expect(wages).not.toBeFocused();
  await expect(page.getByText("rev 1")).toBeVisible();
});

test("figures typed in a hurry are all kept, in their order", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  await page.getByRole("textbox", { name: "1 Wages, tips, other pay" }).focus();
  // Nothing waits for the server between two boxes.
  for (const figure of ["20001", "301", "20002", "1240.12", "20003", "290.04", "", "", "", ""]) {
    if (figure) await page.keyboard.type(figure);
    await page.keyboard.press("Enter");
  }
  await saved(page);
  await page.reload();
  const expected = {
    "1 Wages, tips, other pay": "20,001.00",
    "2 Federal tax withheld": "301.00",
    "3 Social security wages": "20,002.00",
    "4 Social security tax": "1,240.12",
    "5 Medicare wages": "20,003.00",
    "6 Medicare tax": "290.04",
  };
  for (const [box, value] of Object.entries(expected)) {
    await expect(page.getByRole("textbox", { name: box })).toHaveValue(value);
  }
});

test("who types on before the server answers is no other person", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/papers?paper=w2`);
  const wages = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
  const withheld = page.getByRole("textbox", { name: "2 Federal tax withheld" });
  await expect(wages).toHaveValue("19,420.00");
  let sent = 0;
  await page.route("**/edits", async (route) => {
    sent += 1;
    await new Promise((go) => setTimeout(go, 1500));
    await route.continue();
  });
  // A part is on its way when the rest is typed.
  await wages.focus();
  await page.keyboard.type("2000");
  await expect.poll(() => sent).toBe(1);
  await page.keyboard.type("1");
  await page.keyboard.press("Enter");
  await expect(withheld).toBeFocused();
  // The box is changed back before its first change is answered.
  await page.keyboard.type("301");
  await page.keyboard.press("Enter");
  await withheld.fill("0");
  await withheld.press("Enter");
  await expect(wages).toHaveValue("20,001.00");
  await saved(page);
  await expect(withheld).toHaveValue("0.00");
  await expect(page.getByText("keep theirs")).toBeHidden();
  // Typing that is taken back is taken back also where a part of it is on its way.
  sent = 0;
  await wages.fill("3");
  await expect.poll(() => sent).toBe(1);
  await page.keyboard.press("Escape");
  await expect.poll(() => sent).toBe(2);
  await saved(page);
  await page.reload();
  await expect(wages).toHaveValue("20,001.00");
  await expect(withheld).toHaveValue("0.00");
});

test("the Spread leads into a box and the box back to the Spread", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  await cell(page, "Wages", 1).getByRole("button").click();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "W-2 · Spindle & Bow Lutherie" })).toBeVisible();
  await expect(page.getByRole("textbox", { name: "1 Wages, tips, other pay" })).toBeFocused();
  await page.getByRole("link", { name: /^Withheld from wages/ }).click();
  await expect(page.getByRole("complementary", { name: "About the marked place" })).toContainText(
    "Form 1040, line 25a",
  );
});

test("the trail ends at who set a box, and at the mark against the original", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/papers?paper=w2-osric`);
  const wages = page.getByRole("textbox", { name: "1 Wages, tips, other pay" });
  await wages.fill("61000");
  await wages.press("Enter");
  await saved(page);
  await page.goto(`/h/${id}/spread`);
  await cell(page, "Wages", 1).click();
  await page.keyboard.press("t");
  const step = page.getByRole("listitem").filter({ hasText: "box 1" }).first();
  await expect(step).toContainText(/set by N\. Ostrava, \d+ \w+ \d\d:\d\d/);
  await page.goto(`/h/${id}/papers?paper=w2-osric`);
  await page.getByRole("button", { name: "Mark as checked" }).click();
  await saved(page);
  await page.goBack();
  await cell(page, "Wages", 1).click();
  await page.keyboard.press("t");
  await expect(step).toContainText("checked against the original");
});

test("what another paper brings already is shown where it would be entered again", async ({ page }) => {
  const id = await openCopy(page, "Winterbourne-Adeyemi");
  await page.goto(`/h/${id}/papers`);
  await page.getByRole("link", { name: /^State tax paid/ }).click();
  const already = page.getByRole("heading", { name: "Counted already" });
  await expect(already).toBeVisible();
  await page.getByRole("link", { name: /W-2 .*, box 17/ }).click();
  await expect(page.getByRole("textbox", { name: "17 State tax withheld" }).first()).toBeFocused();
  await expect(already).toBeHidden();
});

test("a broker's statement is keyed once and goes to its lines", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.keyboard.press("n");
  await page.keyboard.type("consolidated");
  await expect(page.getByRole("option")).toHaveCount(1);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^Broker/ })).toBeVisible();
  for (const part of ["1099-DIV Dividends", "1099-INT Interest", "1099-OID", "1099-B Sales"])
    await expect(page.getByRole("heading", { name: new RegExp(`^${part}`) })).toBeVisible();
  await page.getByRole("textbox", { name: "1a Ordinary dividends" }).fill("412");
  await page.getByRole("textbox", { name: "1b Qualified dividends" }).fill("500");
  await page.getByRole("textbox", { name: "1 Interest", exact: true }).fill("88");
  await page.getByRole("textbox", { name: "1 Interest", exact: true }).blur();
  await saved(page);
  // What is wrong stands at its box.
  await expect(page.getByText("Box 1b", { exact: false }).first()).toBeVisible();
  await page.getByRole("textbox", { name: "1b Qualified dividends" }).fill("400");
  await page.getByRole("textbox", { name: "1b Qualified dividends" }).blur();
  await saved(page);
  const side = page.getByRole("complementary", { name: "Where these boxes go" });
  await expect(side).toContainText("Qualified dividends");
  await expect(side).toContainText("Taxable interest");
  await page.goto(`/h/${id}/spread`);
  await cell(page, "Dividends", 0).click();
  await page.keyboard.press("t");
  await expect(page.getByText("1099-DIV · box 1a").first()).toBeVisible();
});

test("a return is signed, and its PIN is shown to nobody", async ({ page }) => {
  const id = await openCopy(page, "Ravensworth");
  await page.goto(`/h/${id}/points`);
  await expect(page.getByText("were signatures and filing settled?").first()).toBeVisible();
  await page.keyboard.press("n");
  await page.keyboard.type("signature");
  await page.keyboard.press("Enter");
  await expect(page.getByText("Signatures and filing").first()).toBeVisible();
  await expect(page.getByText("When did Wendeline Ravensworth sign?")).toBeVisible();
  await choose(page.getByLabel("Filed", { exact: true }), "Electronically, the preparer enters the PINs");
  await expect(page.getByText("The PIN of Wendeline Ravensworth is missing or not valid.")).toBeVisible();
  await page.getByLabel("PIN", { exact: true }).first().fill("40718");
  await page.getByLabel("PIN", { exact: true }).first().press("Enter");
  await page.getByLabel("Signed on", { exact: true }).fill("3 Feb 2025");
  await page.getByLabel("Signed on", { exact: true }).press("Enter");
  await expect(page.getByText("When did Wendeline Ravensworth sign?")).toBeHidden();
  await expect(page.getByText("The PIN of Wendeline Ravensworth is missing or not valid.")).toBeHidden();
  await page.reload();
  await expect(page.getByLabel("PIN", { exact: true }).first()).toHaveValue("•••••");
});
