// Slips as files: dropped or chosen, looked at with the place of each box, confirmed or corrected by Enter, kept beside the
// boxes, in the pack; what is no slip is refused.
import { expect, type Page, test } from "@playwright/test";
import { cell, noFindings, openCopy, saved } from "./desk";

const AUTHORITY = process.env.AUTHORITY_URL ?? "";

/** A slip that the stand-in issues, as a file. */
async function issued(page: Page, name: string) {
  const answer = await page.request.get(`${AUTHORITY}/slips/${name}`);
  expect(answer.ok()).toBe(true);
  const mimeType = name.endsWith(".pdf") ? "application/pdf" : "image/png";
  return { name: name.split("/").at(-1) ?? name, mimeType, buffer: await answer.body() };
}

const dialog = (page: Page) => page.getByRole("dialog");

test("a slip as a PDF is confirmed box by box, kept beside the boxes and goes into the pack", async ({
  page,
}) => {
  await openCopy(page, "Fennimore");
  await page.keyboard.press("p");
  await page
    .getByRole("navigation", { name: "Papers" })
    .getByLabel("A slip as a file")
    .setInputFiles(await issued(page, "us/W2-2025-delphine-1.pdf"));
  await expect(dialog(page).getByLabel("What it is")).toHaveValue("W-2");
  await expect(dialog(page).getByLabel("Paper", { exact: true })).toHaveValue(/.+/);
  await expect(dialog(page).getByText("keyed: 240.00")).toBeVisible();
  await noFindings(page, "A slip as a file");
  // The first box has the focus; Enter confirms it and goes on, typing corrects.
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await page.keyboard.type("205");
  await page.keyboard.press("Enter");
  await expect(dialog(page).getByLabel("2 Federal tax withheld is confirmed")).toBeChecked();
  await expect(dialog(page).getByLabel("3 Social security wages is confirmed")).not.toBeChecked();
  await dialog(page)
    .getByRole("button", { name: "Keep it with W-2 Clover Ridge Apiaries with 3 boxes" })
    .click();
  await expect(dialog(page)).toHaveCount(0);
  await saved(page);
  await expect(page.getByLabel("2 Federal tax withheld")).toHaveValue("205.00");
  await expect(page.getByLabel("It is at hand")).toBeChecked();

  await page.getByRole("link", { name: "Show beside the boxes" }).click();
  await expect(page.getByAltText("Page 2 of W2-2025-delphine-1.pdf")).toBeVisible();
  await noFindings(page, "The slip beside its boxes");
  await page.getByLabel("2 Federal tax withheld").fill("204");
  await page.keyboard.press("Enter");
  await saved(page);
  await expect(page.getByAltText("Page 1 of W2-2025-delphine-1.pdf")).toBeVisible();
  await page.getByRole("link", { name: "Close the slip" }).click();

  await page.keyboard.press("Escape");
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Look at Slips as files" }).click();
  await expect(
    page.getByAltText("W-2 Clover Ridge Apiaries: W2-2025-delphine-1.pdf, page 1 of 2"),
  ).toBeVisible();

  // Taken away and back in one step each.
  await page.keyboard.press("p");
  await page.getByRole("button", { name: "Take W2-2025-delphine-1.pdf away" }).click();
  await saved(page);
  await expect(page.getByRole("link", { name: "Show beside the boxes" })).toHaveCount(0);
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByRole("link", { name: "Show beside the boxes" })).toBeVisible();
});

test("a picture dropped on the desk goes through the scanner and makes a new paper", async ({ page }) => {
  await openCopy(page, "Marchbank-Oyelaran");
  const { name, mimeType, buffer } = await issued(page, "ca/T4AP-2025-ottilie-1.png");
  const papers = await page.getByRole("link", { name: /^Papers/ }).innerText();
  const transfer = await page.evaluateHandle(
    ({ bytes, name, type }) => {
      const carried = new DataTransfer();
      carried.items.add(new File([Uint8Array.from(bytes)], name, { type }));
      return carried;
    },
    { bytes: [...buffer], name, type: mimeType },
  );
  await page.dispatchEvent("main", "dragover", { dataTransfer: transfer });
  await expect(page.getByText("Drop a slip here")).toBeVisible();
  await page.dispatchEvent("main", "drop", { dataTransfer: transfer });
  await expect(dialog(page).getByLabel("What it is")).toHaveValue("T4A(P)");
  await dialog(page).getByLabel("Paper", { exact: true }).selectOption("");
  await expect(dialog(page).getByLabel("Whose")).toHaveValue("ottilie");
  await dialog(page).getByRole("checkbox").first().check();
  await dialog(page).getByRole("button", { name: "Add the T4A(P) with 1 box" }).click();
  await expect(dialog(page)).toHaveCount(0);
  await saved(page);
  await expect(page.getByRole("link", { name: /^Papers/ })).not.toHaveText(papers);
  await expect(page.getByText(name, { exact: true })).toBeVisible();
});

test("a certificate by codes makes a list: each code that is confirmed is a line", async ({ page }) => {
  const id = await openCopy(page, "Nortjie-Dube");
  await page.keyboard.press("p");
  await page
    .getByRole("navigation", { name: "Papers" })
    .getByLabel("A slip as a file")
    .setInputFiles(await issued(page, "za/IRP5-2026-thandeka-1.pdf"));
  await expect(dialog(page).getByLabel("What it is")).toHaveValue("IRP5");
  await dialog(page).getByLabel("Paper", { exact: true }).selectOption("");
  await expect(dialog(page).getByLabel("Whose")).toHaveValue("thandeka");
  for (const code of ["3601 Salary", "4102 PAYE tax"]) {
    await dialog(page).getByLabel(`${code} is confirmed`).check();
  }
  await dialog(page).getByRole("button", { name: "Add the IRP5 with 2 boxes" }).click();
  await expect(dialog(page)).toHaveCount(0);
  await saved(page);
  await page.goto(`/h/${id}/spread`);
  await expect(cell(page, "Pay and benefits", 0)).toContainText("1,084,000");
  await expect(cell(page, "PAYE", 0)).toContainText("165,000");
});

test("the lines of an account are read below its columns: new ones are added, those that are there are told", async ({
  page,
}) => {
  await openCopy(page, "Kettering-Adebayo");
  await page.keyboard.press("p");
  await page
    .getByRole("navigation", { name: "Papers" })
    .getByLabel("A slip as a file")
    .setInputFiles(await issued(page, "ca/RRSP-2025-ysolde-1.pdf"));
  await expect(dialog(page).getByLabel("What it is")).toHaveValue("RRSP");
  await expect(dialog(page).getByText("The paper has such a line already.")).toHaveCount(2);
  await noFindings(page, "A list as a file");
  // The third is new: Enter confirms it, its amount is corrected first.
  await dialog(page).getByRole("button", { name: "Correct line 3" }).click();
  await dialog(page).getByLabel("Line 3, Amount").fill("650");
  await dialog(page).getByLabel("Line 3 is confirmed").press("Enter");
  await dialog(page)
    .getByRole("button", { name: "Keep it with RRSP Bow Valley Credit Union with 1 line" })
    .click();
  await expect(dialog(page)).toHaveCount(0);
  await saved(page);
  await expect(page.getByRole("textbox", { name: "Amount, line 3", exact: true })).toHaveValue("650.00");
  // A new paper takes all of them at once.
  await page
    .getByRole("navigation", { name: "Papers" })
    .getByLabel("A slip as a file")
    .setInputFiles(await issued(page, "ca/RRSP-2025-ysolde-1.pdf"));
  await dialog(page).getByLabel("Paper", { exact: true }).selectOption("");
  await dialog(page).getByRole("button", { name: "Confirm all 3 lines" }).click();
  await dialog(page).getByRole("button", { name: "Add the RRSP with 3 lines" }).click();
  await expect(dialog(page)).toHaveCount(0);
  await saved(page);
  await expect(page.getByRole("textbox", { name: "Amount, line 3", exact: true })).toHaveValue("600.00");
});

test("what is no slip is refused with the reason, and a scan without text is typed beside it", async ({
  page,
}) => {
  await openCopy(page, "Fennimore");
  await page.keyboard.press("p");
  const choose = page.getByRole("navigation", { name: "Papers" }).getByLabel("A slip as a file");
  const refused = async (name: string, buffer: Buffer, says: string) => {
    await choose.setInputFiles({ name, mimeType: "application/pdf", buffer });
    await expect(dialog(page).getByRole("alert")).toContainText(says);
    await page.keyboard.press("Escape");
    await expect(dialog(page)).toHaveCount(0);
  };
  await refused("macro.docm", Buffer.from("PK\u0003\u0004word/vbaProject.bin"), "may hold macros");
  await refused("none.pdf", Buffer.from("%PDF-1.7 nothing in it"), "damaged");
  await refused("huge.pdf", Buffer.alloc(11 * 1024 * 1024, 32), "at most 10 MB");
  const scan = await issued(page, "us/W2-2025-delphine-1.png");
  // Without its text beside it nobody can read the picture.
  const mark = scan.buffer.lastIndexOf("\nslip:");
  await choose.setInputFiles({ ...scan, buffer: scan.buffer.subarray(0, mark) });
  await expect(dialog(page).getByText("Type its boxes beside it.")).toBeVisible();
  await dialog(page).getByLabel("What it is").selectOption("1099-INT");
  await expect(dialog(page).getByText("Say whose it is first.")).toBeVisible();
  await dialog(page).getByLabel("Whose").selectOption("delphine");
  await dialog(page).getByRole("button", { name: "Add the 1099-INT" }).click();
  await expect(dialog(page)).toHaveCount(0);
  await saved(page);
  await expect(page.getByRole("heading", { name: "1099-INT" })).toBeVisible();
});
