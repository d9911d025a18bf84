// Hand-over: states of work from one person's hands to another's; notes; lines ticked off; the pack and the letter.
import { execFile } from "node:child_process";
import { randomUUID } from "node:crypto";
import { rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { expect, type Page, test } from "@playwright/test";
import { noFindings, openCopy, saved, signInAs } from "./desk";

test("a return is reviewed by a second person, sent back with remarks, and cleared", async ({
  page,
  browser,
}) => {
  const id = await openCopy(page, "Fennimore");
  await page.keyboard.press("g");
  await expect(page.getByRole("heading", { name: "Where it stands" })).toBeVisible();
  await page.getByLabel("Asked to review").selectOption("M. Tarrow");
  await page.getByRole("button", { name: "Ready for review" }).click();
  await expect(page.getByText("Only a reviewer or an administrator does this.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Begin the review" })).toBeDisabled();
  await expect(page.getByRole("banner").getByText("Ready for review")).toBeVisible();
  await noFindings(page, "Hand-over");

  // The reviewer finds it on the own list.
  const context = await browser.newContext();
  const other = await context.newPage();
  await signInAs(other, "review");
  await other.getByLabel("Show in whose hands").selectOption("In my hands");
  await expect(other.getByRole("cell", { name: "→ M. Tarrow" }).first()).toBeVisible();
  await expect(other.getByRole("link", { name: /^Fennimore \(copy\)/ }).first()).toBeVisible();
  await other.goto(`/h/${id}/hand-over`);
  await other.getByRole("button", { name: "Begin the review" }).click();
  await other.getByRole("button", { name: "Back with remarks…" }).click();
  await other.getByLabel("What to say with it").fill("The clinic's bill of June is missing.");
  await other.getByRole("button", { name: "Say it" }).click();
  await expect(other.getByRole("listitem").filter({ hasText: "bill of June is missing" })).toBeVisible();

  await page.reload();
  await expect(page.getByText("The clinic's bill of June is missing.")).toBeVisible();
  await expect(page.getByRole("banner").getByText("Back with remarks")).toBeVisible();
  await page.getByRole("button", { name: "Ready for review" }).click();
  await other.reload();
  await other.getByRole("button", { name: "Begin the review" }).click();
  await other.getByRole("button", { name: "Clear it" }).click();
  await expect(other.getByRole("banner").getByText("Cleared")).toBeVisible();
  await context.close();

  // The practice's own number is no part of the return.
  await page.goto(`/h/${id}/spread?household=true`);
  await page.getByLabel("Own number").fill("Q-2041");
  await page.getByLabel("Own number").press("Tab");
  await saved(page);
  await expect(page.getByRole("banner").getByText("Cleared")).toBeVisible();

  // A change takes it back into work and says why; undone, it is cleared again.
  await page.goto(`/h/${id}/papers?paper=w2`);
  await page.getByRole("textbox", { name: "2 Federal tax withheld" }).fill("205");
  await page.getByRole("textbox", { name: "2 Federal tax withheld" }).press("Tab");
  await saved(page);
  await expect(page.getByRole("banner").getByText("Cleared")).toBeHidden();
  await page.keyboard.press("Escape");
  await page.keyboard.press("g");
  await expect(page.getByText("Changed after it was cleared")).toBeVisible();
  await page.getByRole("button", { name: /^Undo/ }).click();
  await expect(page.getByRole("banner").getByText("Cleared")).toBeVisible();

  // Filing can be held.
  await page.getByRole("button", { name: "Handed over to the family" }).click();
  await page.getByLabel("Filing held until").fill("1/2/2999");
  await page.getByLabel("Filing held until").press("Tab");
  await expect(page.getByText("Its filing is held until a day that has not come.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Sent to the authority" })).toBeDisabled();
  await page.getByRole("button", { name: "Take the last step back" }).click();
  await expect(page.getByRole("button", { name: "Handed over to the family" })).toBeVisible();
  await page.getByRole("button", { name: /^History/ }).click();
  await expect(page.getByText("handed over → cleared")).toBeVisible();
});

test("a household is put away, and found by its own number", async ({ page }) => {
  await openCopy(page, "Kettering-Adebayo");
  await page.goto("/");
  await page.getByRole("button", { name: "More about Kettering-Adebayo (copy) 2025" }).first().click();
  await page.getByRole("menuitem", { name: "Put away" }).click();
  await expect(page.getByText("Kettering-Adebayo (copy) was put away.")).toBeVisible();
  await page.getByLabel("Show what was put away").selectOption("Put away");
  await expect(page.getByRole("link", { name: /^Kettering-Adebayo \(copy\)/ })).toBeVisible();
  await page.getByRole("button", { name: "More about Kettering-Adebayo (copy) 2025" }).click();
  await page.getByRole("menuitem", { name: "Take out again" }).click();
  await expect(page.getByText("is in use again")).toBeVisible();
  await noFindings(page, "the list of what was put away");
});

test("notes stand where they belong, are answered and settled", async ({ page, browser }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.keyboard.press("p");
  await page.getByRole("navigation", { name: "Papers" }).getByRole("link", { name: /W-2/ }).first().click();
  await expect(page.getByRole("heading", { name: "Notes" })).toBeVisible();
  await page.getByRole("heading", { level: 2 }).first().click();
  await page.keyboard.press("m");
  await page.keyboard.type("Is the bonus of June in box 1?");
  // What was typed waits where it was typed, also when one goes elsewhere first.
  await page.goto(`/h/${id}/ways`);
  await page.goto(`/h/${id}/papers`);
  await expect(page.getByLabel("Note for the practice")).toHaveValue("Is the bonus of June in box 1?");
  await page.getByLabel("Note for the practice").press("Enter");
  await expect(page.getByText("Is the bonus of June in box 1?")).toBeVisible();
  await expect(page.getByRole("button", { name: "Notes 1" })).toBeVisible();

  const context = await browser.newContext();
  const other = await context.newPage();
  await signInAs(other, "review");
  await other.goto(`/h/${id}/spread`);
  await other.getByRole("button", { name: "Notes 1" }).click();
  await other.getByRole("button", { name: "Answer" }).click();
  await other.keyboard.type("Yes, on the second page.");
  await other.keyboard.press("Enter");
  await expect(other.getByText("Yes, on the second page.")).toBeVisible();
  await noFindings(other, "All notes");
  await other.getByRole("button", { name: "Settle" }).click();
  await expect(other.getByText("No note is open.")).toBeVisible();
  await context.close();

  // It appears here by itself.
  await expect(page.getByText("Yes, on the second page.")).toBeVisible();
  await expect(page.getByText("Settled by M. Tarrow")).toBeVisible();
  await noFindings(page, "Papers with notes");
});

test("lines are ticked off, and a tick ends where the line changes", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.keyboard.press("f");
  const wages = page.getByRole("checkbox", { name: /^Wages found right/ });
  await page.getByRole("button", { name: /^Wages:/ }).focus();
  await page.keyboard.press(" ");
  await expect(wages).toBeChecked();
  await page.getByRole("button", { name: /^Tick off all/ }).click();
  await expect(page.getByRole("button", { name: /^Form 1040/ })).toContainText("✓ all");
  await page.getByLabel("Lines shown").selectOption("Only lines not ticked");
  await expect(page.getByText("No line of it is shown.")).toBeVisible();
  await page.getByLabel("Lines shown").selectOption("Every line");
  await noFindings(page, "Schedules with ticks");

  // Beside another way, only what differs.
  await page.getByLabel("Beside it").selectOption({ label: "Beside: but standard" });
  await page.getByLabel("Lines shown").selectOption("Only what differs");
  await expect(page.getByRole("row", { name: /^12e/ })).toBeVisible();
  await expect(page.getByRole("row", { name: /^1a Wages/ })).toBeHidden();
  await page.getByLabel("Lines shown").selectOption("Every line");

  // The wages change: their line is to be read again.
  await page.goto(`/h/${id}/papers`);
  await page.getByRole("navigation", { name: "Papers" }).getByRole("link", { name: /W-2/ }).first().click();
  await page.locator('[data-box="1"]').fill("97000");
  await page.locator('[data-box="1"]').press("Tab");
  await saved(page);
  await page.goto(`/h/${id}/schedules`);
  await expect(wages).not.toBeChecked();
  await expect(page.getByText("was 148,710").first()).toBeVisible();
});

test("the pack is made, its text read back, and the letter edited and taken away", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Look at Letter" }).click();
  await page.getByRole("button", { name: "Write the letter" }).click();
  const letter = page.getByRole("textbox", { name: "Letter" });
  await expect(letter).toContainText("Dear Tamsin and Osric");
  await noFindings(page, "The letter");
  await letter.press("Control+End");
  await letter.pressSequentially(", with thanks");
  // A line is ended within a paragraph, and two rests in a row are kept one after the other.
  await letter.press("Shift+Enter");
  await letter.pressSequentially("N. Ostrava");
  await expect(page.getByText(/^Kept .* version [2-9]\d*$/)).toBeVisible();
  await page.reload();
  await page.getByRole("button", { name: "Look at Letter" }).click();
  await expect(letter.locator("br:not(.ProseMirror-trailingBreak)")).toHaveCount(1);

  // Parts are chosen and ordered.
  await page.getByRole("checkbox", { name: "Carried to next year" }).uncheck();
  await page.getByRole("checkbox", { name: "Papers" }).check();
  await page.getByRole("button", { name: "Move Papers up" }).click();
  await page.getByRole("button", { name: "Keep as…" }).click();
  await page.getByLabel("Name of this choice").fill("With papers");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Choice of parts")).toContainText("With papers");
  await page.getByRole("heading", { name: "Where it stands" }).click();
  await page.keyboard.press("d");
  const made = page.getByRole("link", { name: /pages$/ });
  await expect(made).toBeVisible();
  const pack = await textOf(page, await made.getAttribute("href"));
  for (const words of [
    "2025 return",
    "Contents",
    ", with thanks",
    "All 23 lawful ways",
    "Form 1040",
    "page 1 of",
  ]) {
    expect(pack).toContain(words);
  }
  expect(pack).not.toContain("Carried to next year");
  expect(pack.indexOf("papers were checked")).toBeLessThan(pack.indexOf("Best total"));

  // A figure moves: the letter says so and takes it over; the pack made before stays as it was.
  await page.goto(`/h/${id}/ways`);
  await page.getByRole("button", { name: "Hold Standard deduction" }).click();
  await saved(page);
  await page.goto(`/h/${id}/hand-over`);
  await expect(page.getByText("of revision 1")).toBeVisible();
  await page.getByRole("button", { name: "Look at Letter" }).click();
  await expect(page.getByText("$ 11,141 is $ 11,355 now")).toBeVisible();
  await page.getByRole("button", { name: "Take the figures of today" }).click();
  await expect(letter).toContainText("$ 11,355");
  await expect(page.getByText(/^Kept .* version [2-9]\d*$/)).toBeVisible();
  const pdf = await textOf(page, await page.getByRole("link", { name: "PDF" }).getAttribute("href"));
  expect(pdf).toContain("$ 11,355");
  expect(pdf).toContain(", with thanks");
  const docx = await page.request.get(`/api/households/${id}/letter.docx`);
  expect((await docx.body()).subarray(0, 2).toString()).toBe("PK");
  await noFindings(page, "Hand-over with a letter");
});

test("a template that is wrong is refused with its line", async ({ page }) => {
  await openCopy(page, "Fennimore");
  await page.keyboard.press("g");
  await page.getByRole("button", { name: "Look at Letter" }).click();
  await page.getByRole("button", { name: "Templates…" }).click();
  await page.getByRole("button", { name: "Another one" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Short");
  await page.getByLabel("Text", { exact: true }).fill("Dear {{ first_names }},\n\n{{ taxx }}");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await expect(page.getByText("line 3: There is no field 'taxx'.")).toBeVisible();
  await noFindings(page, "Templates");
  await page.getByLabel("Text", { exact: true }).fill("Dear {{ first_names }},\n\n{{ tax }}");
  await page.getByLabel("Language of amounts and days").selectOption("Français");
  await page.getByRole("button", { name: "Keep", exact: true }).click();
  await page.getByLabel("Template", { exact: true }).selectOption("Short");
  await page.getByRole("button", { name: "Write the letter" }).click();
  await expect(page.getByRole("textbox", { name: "Letter" })).toContainText("Dear Delphine");
  // As French has it: the mark of the currency behind, and no comma between thousands.
  await expect(page.getByRole("textbox", { name: "Letter" })).toContainText(/\d\s\d{3}\s\$/);
});

/** The text of a PDF as a reader of it sees it, with plain spaces. */
async function textOf(page: Page, href: string | null) {
  const file = join(tmpdir(), `hembo-${randomUUID()}.pdf`);
  await writeFile(file, await (await page.request.get(href ?? "")).body());
  const { stdout } = await promisify(execFile)("pdftotext", ["-layout", file, "-"]);
  await rm(file);
  return stdout.replaceAll("\u00a0", " ");
}
