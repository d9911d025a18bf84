// A list from a table: its columns matched, its faults told, taken in one step and undone in one.
import { expect, test } from "@playwright/test";
import { noFindings, openCopy, saved } from "./desk";

test("receipts come in from a table after a look, and go back in one step", async ({ page }) => {
  await openCopy(page, "Pell-Achterberg");
  await page.keyboard.press("p");
  await page.getByRole("link", { name: /^Medical/ }).click();
  await page.getByRole("button", { name: "Lines from a table…" }).click();
  const table =
    "When,Patient,What,Amount\n2025-06-01,Marit,Splint,310.00\nsoon,Linus,Drops,12\n2025-06-09,Linus,Bandage,18.40\n";
  await page.getByLabel("The table").fill(table);
  // A heading that nobody knows is matched by hand.
  await page.getByLabel("What When is").selectOption("date");
  await expect(page.getByText("Line 3, When: 'soon' is not a day")).toBeVisible();
  await expect(page.getByText("together 328.40")).toBeVisible();
  await noFindings(page, "Lines from a table");
  await page.getByRole("button", { name: "Take 2 lines" }).click();
  await saved(page);
  await expect(page.getByText(/^8 lines/)).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "The list as CSV" }).click();
  expect((await download).suggestedFilename()).toBe("list.csv");
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByText(/^6 lines/)).toBeVisible();

  // What is no table is refused with the reason.
  await page.getByRole("button", { name: "Lines from a table…" }).click();
  await page.getByLabel("A CSV file").setInputFiles({
    name: "book.xlsm",
    mimeType: "application/zip",
    buffer: Buffer.from("PK\u0003\u0004\u0000macro"),
  });
  await expect(page.getByRole("alert")).toContainText("This is no CSV");
  await page
    .getByLabel("A CSV file")
    .setInputFiles({ name: "huge.csv", mimeType: "text/csv", buffer: Buffer.alloc(5 * 1024 * 1024, "a") });
  await expect(page.getByRole("alert")).toContainText("a table of at most 3 MB is read");
});
