// From what is held to the receipt: fetched, reviewed by a second person, filed, refused at a box, mended, assessed.
import { expect, test } from "@playwright/test";
import { handOver, noFindings, openCopy, saved } from "./desk";

test("a return is filed, refused at its box, mended, filed again and assessed", async ({ page, browser }) => {
  const id = await openCopy(page, "Fennimore");
  await page.keyboard.press("g");
  await page.getByRole("link", { name: "Filing" }).click();
  await expect(page.getByText("Nothing was filed yet")).toBeVisible();
  const needs = page.getByRole("region", { name: "Filing" });
  await expect(needs.getByRole("listitem").filter({ hasText: "Signatures" })).toContainText("settled");
  await expect(page.getByRole("button", { name: "File the return" })).toBeDisabled();
  await expect(page.getByText("it is filed once it is handed over to the family")).toBeVisible();
  await noFindings(page, "Filing");

  // The consent is one step away.
  await needs.getByRole("link", { name: "Ask for it" }).click();
  await page.getByRole("button", { name: "Ask for it" }).click();
  await expect(page.getByText(/Authorised by Delphine/)).toBeVisible();
  await handOver(page, browser, id);
  await page.getByRole("link", { name: "Filing" }).click();
  await page.getByRole("button", { name: "File the return" }).click();
  await expect(page.getByRole("heading", { name: /Received · receipt R-/ })).toBeVisible();
  await expect(page.getByRole("banner").getByText("Sent")).toBeVisible();

  // Refused: more withheld than the employer sent in. The reason stands at the box.
  await page.getByRole("button", { name: "Ask what became of it" }).click();
  await expect(page.getByRole("heading", { name: /Refused · receipt/ })).toBeVisible();
  await noFindings(page, "Filing refused");
  const side = page.getByRole("complementary", { name: "What became of it" });
  await side.getByRole("link", { name: "Go to the box" }).click();
  await expect(page.getByText("Refused by the authority.")).toBeVisible();
  const box = page.getByLabel("2 Federal tax withheld");
  await expect(box).toBeFocused();
  await box.fill("204");
  await box.press("Tab");
  await saved(page);
  await expect(page.getByRole("banner").getByText("Sent")).toBeHidden();

  await handOver(page, browser, id);
  await page.getByRole("link", { name: "Filing" }).click();
  await page.getByRole("button", { name: "File the return" }).click();
  await expect(page.getByRole("heading", { name: /Received · receipt/ })).toBeVisible();
  await page.getByRole("button", { name: "Ask what became of it" }).click();
  await expect(page.getByRole("heading", { name: /Accepted · receipt/ })).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Receipt as PDF" }).click();
  expect((await download).suggestedFilename()).toBe("receipt.pdf");
  await page.getByRole("button", { name: "Ask what became of it" }).click();
  await expect(page.getByText(/As it was filed: .* tax, 9,894 back/)).toBeVisible();
  await expect(page.getByRole("banner").getByText("Assessed")).toBeVisible();
});

test("a Canadian couple: each return alone, a document sent, an assessment that differs, an amended return", async ({
  page,
  browser,
}) => {
  const id = await openCopy(page, "Pell-Achterberg");
  await page.keyboard.press("a");
  await page.getByRole("button", { name: "Ask for it" }).click();
  await page.getByRole("button", { name: "Look whether it is given" }).click();
  await page.getByRole("button", { name: "Fetch what is held" }).click();
  await expect(page.getByText("Box 22: Two digits changed places.")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "T5 · Grand River Savings" })).toBeVisible();
  await page.getByRole("button", { name: "Refuse the slip…" }).click();
  await page.getByLabel("Reason").fill("She says that it is her sister's");
  await page.getByRole("button", { name: "Refuse the slip", exact: true }).click();
  await expect(page.getByText("refused", { exact: true })).toBeVisible();

  await handOver(page, browser, id);
  await page.getByRole("link", { name: "Filing" }).click();
  await page.getByRole("button", { name: "File 2 returns" }).click();
  const filed = page.getByRole("region", { name: "Filing" });
  await expect(filed.getByText("as filed")).toHaveCount(2);
  const side = page.getByRole("complementary", { name: "What became of it" });
  for (const name of ["Marit Achterberg", "Linus Pell"]) {
    await filed.getByRole("button", { name: new RegExp(`R-.*${name}`) }).click();
    await side.getByRole("button", { name: "Ask what became of it" }).click();
    await expect(side.getByRole("heading", { name: /Accepted/ })).toBeVisible();
  }
  // What is asked for goes out as a file that is kept with its paper; that amends nothing.
  await page.goto(`/h/${id}/papers?paper=medical`);
  const photo = { name: "receipts.png", mimeType: "image/png", buffer: await page.screenshot() };
  await page.getByRole("navigation", { name: "Papers" }).getByLabel("A slip as a file").setInputFiles(photo);
  await page.getByRole("dialog").getByLabel("What it is").selectOption("Medical");
  await page.getByRole("dialog").getByLabel("Paper", { exact: true }).selectOption({ index: 1 });
  await page
    .getByRole("dialog")
    .getByRole("button", { name: /^Keep it with Medical/ })
    .click();
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await saved(page);
  await page.keyboard.press("g");
  await page.getByRole("link", { name: "Filing" }).click();
  await expect(filed.getByText("as filed")).toHaveCount(2);
  await filed.getByRole("button", { name: /R-.*Marit/ }).click();
  await side.getByLabel(/receipts\.png/).check();
  await side.getByLabel(/What is sent: Receipts/).fill("Five receipts");
  await side.getByRole("button", { name: "Send 1 file" }).click();
  await expect(side.getByText("Sent: Five receipts · receipts.png")).toBeVisible();
  await side.getByRole("button", { name: "Ask what became of it" }).click();
  await expect(side.getByText("T5 Grand River Savings was not filed.")).toBeVisible();
  await expect(side.getByRole("row", { name: /12100/ })).toContainText("66");
  await noFindings(page, "Assessment");
  await filed.getByRole("button", { name: /R-.*Linus/ }).click();
  await side.getByRole("button", { name: "Ask what became of it" }).click();
  await expect(page.getByRole("banner").getByText("Assessed")).toBeVisible();

  // The schedules beside the assessment: only what differs.
  await page.keyboard.press("f");
  await page.getByLabel("Beside it").selectOption("Beside the authority's assessment");
  await page.getByLabel("Lines shown").selectOption("Only what differs");
  await expect(
    page.getByRole("button", { name: /Interest and other investment income/ }).first(),
  ).toBeVisible();

  // Taken after all: what goes out now amends her return alone.
  await page.keyboard.press("a");
  await page
    .getByRole("link", { name: /T5 Grand River Savings/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Take it up again" }).click();
  await page.getByRole("button", { name: "Add the paper" }).click();
  await saved(page);
  await page.keyboard.press("g");
  await expect(page.getByText("what goes out now is an amended return")).toBeVisible();
  await page.getByRole("link", { name: "Filing" }).click();
  await expect(filed.getByText("amended, goes out")).toBeVisible();
});
