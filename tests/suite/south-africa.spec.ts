// Households of South Africa: a certificate typed by its codes, the authority's own assessment that is incomplete, a joint estate.
import { expect, test } from "@playwright/test";
import { cell, handOver, noFindings, openCopy, saved } from "./desk";

test("a certificate is keyed as a table of codes; one that no certificate has is refused with its line", async ({
  page,
}) => {
  const id = await openCopy(page, "Nortjie-Dube");
  await page.goto(`/h/${id}/papers?paper=irp5`);
  await page.getByRole("button", { name: "Lines from a table…" }).click();
  const table = page.getByLabel("The table");
  await table.fill("Code,Amount\n3607 Overtime,2000.00\n9999,5.00\n");
  await expect(page.getByText(/9999/).last()).toBeVisible();
  await expect(page.getByRole("button", { name: "Take 2 lines" })).toBeHidden();
  await table.fill("Code,Amount\n3607 Overtime,2000.00\n");
  await page.getByRole("button", { name: "Take 1 line" }).click();
  await saved(page);
  // The codes no longer add up to the total of the certificate.
  await page.goto(`/h/${id}/points`);
  await expect(page.getByText("The codes make 606,000, 3699 says 604,000.").first()).toBeVisible();
  await noFindings(page, "open points of a household of South Africa");
});

test("the authority's own assessment is incomplete: a certificate of interest is taken, bills and a gift stay ours", async ({
  page,
}) => {
  const id = await openCopy(page, "Nortjie-Dube");
  await page.goto(`/h/${id}/held`);
  await page.getByRole("button", { name: "Ask for it" }).click();
  await expect(page.getByText(/Authorised by Thandeka/)).toBeVisible();
  await page.getByRole("button", { name: "Fetch what is held" }).click();
  // The certificate by its codes: every line of it is beside what the employer sent in.
  await page.getByRole("link", { name: /Agulhas Lights/ }).click();
  const own = page.getByRole("region", { name: "The slip" });
  await expect(own.getByRole("row", { name: /3601 Salary/ })).toContainText("agrees");
  await expect(own.getByRole("row", { name: /3605 Annual payment/ })).toContainText("40,000");
  await page.getByRole("link", { name: /^Its own assessment/ }).click();
  await expect(own.getByRole("row", { name: /Pay and benefits/ })).toBeHidden();
  await expect(own.getByText("IT3(b) False Bay Money Market", { exact: true })).toBeVisible();
  await expect(own.getByText("Medical bills", { exact: true })).toBeVisible();
  await expect(own.getByRole("row", { name: /Gifts/ }).first()).toContainText("8,000");
  await page.getByRole("link", { name: /False Bay/ }).click();
  await page.getByRole("button", { name: /^Add the paper/ }).click();
  await saved(page);
  await page.goto(`/h/${id}/spread`);
  await expect(cell(page, "Local interest", 0)).toContainText("30,650");
});

test("the return replaces what was assessed, documents are asked for by business days and sent, the refund waits for them", async ({
  page,
  browser,
}) => {
  test.slow();
  const id = await openCopy(page, "Nortjie-Dube");
  await page.goto(`/h/${id}/held`);
  await page.getByRole("button", { name: "Ask for it" }).click();
  await expect(page.getByText(/Authorised by Thandeka/)).toBeVisible();
  await page.getByRole("button", { name: "Fetch what is held" }).click();
  await page.getByRole("link", { name: /False Bay/ }).click();
  await page.getByRole("button", { name: /^Add the paper/ }).click();
  await saved(page);
  await page.getByRole("link", { name: /^Its own assessment/ }).click();
  const own = page.getByRole("region", { name: "The slip" });
  await expect(own.getByText("Not decided yet.")).toBeVisible();
  await expect(own.getByRole("row", { name: /Corrected on request/ })).toContainText("40 business days");
  await own.getByRole("button", { name: "Accept it" }).click();
  await expect(own.getByText("Accepted: nothing is filed")).toBeVisible();
  await page.goto(`/h/${id}/points`);
  const points = page.getByRole("region", { name: "Open points" });
  await expect(points.getByText(/accepted an assessment without/)).toBeVisible();
  await page.goto(`/h/${id}/held?own=true`);
  await own.getByRole("button", { name: "Change it by a return" }).click();
  await expect(own.getByText("A return stands in its place.")).toBeVisible();
  await noFindings(page, "the authority's own assessment");

  await handOver(page, browser, id);
  await page.getByRole("link", { name: "Filing" }).click();
  await page.getByRole("button", { name: "File the return" }).click();
  const receipt = page.getByRole("article");
  await receipt.getByRole("button", { name: "Ask what became of it" }).click();
  await expect(receipt.getByText(/^21 business days from/).first()).toBeVisible();
  await expect(receipt.getByText("The refund is held until")).toBeVisible();
  for (const what of ["The s18A receipt of Penguin Rescue", "Receipts of the medical bills"]) {
    await receipt.getByLabel(`What is sent: ${what}`).fill("A scan, by the portal");
    await receipt.getByLabel(`What is sent: ${what}`).press("Enter");
    await expect(receipt.getByLabel(`What is sent: ${what}`)).toBeHidden();
  }
  await expect(receipt.getByText("The refund is held until")).toBeHidden();
  await receipt.getByRole("button", { name: "Ask what became of it" }).click();
  await expect(receipt.getByRole("heading", { name: /^Assessed on/ })).toBeVisible();
});

test("what could still be done is told with its price, and is no way", async ({ page }) => {
  const id = await openCopy(page, "Nortjie-Dube");
  await page.goto(`/h/${id}/ways`);
  const levers = page.getByRole("region", { name: "What could still be done" });
  const annuity = levers.getByRole("region", { name: /^More into a retirement annuity/ });
  await expect(annuity.getByRole("row").last()).toContainText("to the most that is deducted");
  await expect(levers.getByRole("region", { name: /^A withdrawal of savings/ })).toContainText(
    "2,000 the least",
  );
  await noFindings(page, "Ways with advice");
});

test("in community of property a joint estate stands by halves on both returns", async ({ page }) => {
  await openCopy(page, "Mokoena-Vlok");
  for (const row of ["Local interest", "Net rent", "Taxable capital gain"]) {
    const first = await cell(page, row, 0).innerText();
    await expect(cell(page, row, 1)).toContainText(first.trim());
  }
  await expect(page.getByRole("region", { name: "Ways to file" })).toContainText("glass of both");
  await noFindings(page, "the Spread of a joint estate");
});
