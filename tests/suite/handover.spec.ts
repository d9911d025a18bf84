// States of work: from one person's hands to another's, back with remarks, cleared, changed and cleared again.
import { expect, test } from "@playwright/test";
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
  await expect(other.locator("tbody tr")).toHaveCount(1);
  await expect(other.getByRole("cell", { name: "→ M. Tarrow" })).toBeVisible();
  await other.getByRole("link", { name: /^Fennimore \(copy\)/ }).click();
  await other.keyboard.press("g");
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

  // A change takes it back into work and says why; undone, it is cleared again.
  await page.goto(`/h/${id}/spread?household=true`);
  await page.getByLabel("Own number").fill("Q-2041");
  await page.getByLabel("Own number").press("Tab");
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
