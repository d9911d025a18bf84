// A household of New Zealand: a question opens its statement, a managed fund at the wrong rate, the authority's own assessment.
import { expect, test } from "@playwright/test";
import { cell, choose, noFindings, openCopy, saved } from "./desk";

test("the question about income abroad opens its statement, and its credit goes by country and kind", async ({
  page,
}) => {
  const id = await openCopy(page, "Harkness-Leota");
  await page.goto(`/h/${id}/spread?household=true&field=overseas`);
  const abroad = page.getByRole("radiogroup", { name: "Money, a bank, a pension, property or work abroad" });
  await abroad.getByRole("radio", { name: "Yes" }).click();
  await page.getByRole("button", { name: /^Add Overseas income/ }).click();
  await expect(page.getByRole("heading", { name: /^Overseas income/ })).toBeVisible();
  await page.getByRole("button", { name: "Lines from a table…" }).click();
  const table =
    "Country,Kind,Gross in dollars,Foreign tax by the treaty\nAustralia,Interest,1200.00,120.00\nFiji,Rent,900.00,400.00\n";
  await page.getByLabel("The table").fill(table);
  await page.getByRole("button", { name: "Take 2 lines" }).click();
  await saved(page);
  await page.goto(`/h/${id}/spread`);
  await expect(cell(page, "Overseas income", 0)).toContainText("1,050");
  // A half is each one's: 60 of Australia, of Fiji's 200 only 20,945.51 × 450 / 93,100 = 101.24.
  await expect(cell(page, "Foreign tax credit", 0)).toContainText("161");
  await noFindings(page, "the Spread of a household of New Zealand");
});

test("a managed fund at the wrong rate is found, told and settled with the year's end", async ({ page }) => {
  const id = await openCopy(page, "Penwarden");
  await page.goto(`/h/${id}/points`);
  await expect(page.getByText("The earlier years ask for 28 %: 252 is still to pay.").first()).toBeVisible();
  await page.goto(`/h/${id}/papers?paper=kiwisaver`);
  await choose(page.getByLabel("Rate used"), "28 %");
  const tax = page.getByLabel("Tax paid by the fund");
  await tax.fill("672.00");
  await tax.press("Tab");
  await saved(page);
  await page.goto(`/h/${id}/points`);
  await expect(page.getByText(/The earlier years ask for/)).toHaveCount(0);
  await page.goto(`/h/${id}/spread`);
  await expect(cell(page, "Paid by managed funds", 0)).toContainText("672");
});

test("what the authority assesses by itself stands beside ours, with the papers that make the difference", async ({
  page,
}) => {
  const id = await openCopy(page, "Penwarden");
  await page.goto(`/h/${id}/held`);
  await page.getByRole("button", { name: "Ask for it" }).click();
  await expect(page.getByText(/Authorised by Hester/)).toBeVisible();
  await page.getByRole("button", { name: "Fetch what is held" }).click();
  await expect(page.getByRole("link", { name: /^Interest/ })).toContainText("new");
  await page.getByRole("link", { name: /^Its own assessment/ }).click();
  const own = page.getByRole("region", { name: "The slip" });
  await expect(own.getByText("Own trade Glass floats")).toBeVisible();
  const interest = own.getByRole("row", { name: /Interest/ }).first();
  await expect(interest).toContainText("+640");
  await noFindings(page, "the authority's own assessment");
  // Taken, the slip is on both sides and differs no more.
  await page.getByRole("link", { name: /^Interest/ }).click();
  await page.getByRole("button", { name: /^Add the paper/ }).click();
  await saved(page);
  await page.getByRole("link", { name: /^Its own assessment/ }).click();
  await expect(own.getByText("Every slip that it holds was keyed as it says.")).toBeVisible();
});
