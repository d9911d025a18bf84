// A household of two divided in two: what goes where is told first, the two are linked, and neither is divided again.
import { expect, test } from "@playwright/test";
import { more, noFindings, openCopy } from "./desk";

test("a joint return is divided in two, and done again the two are replaced", async ({ page }) => {
  await openCopy(page, "Vreeland-Mbeki");
  const name = (await page.getByRole("heading", { level: 1 }).innerText()).replace(/ household$/, "");
  await page.getByRole("link", { name: "Hembo, all households" }).click();
  await more(page, name, "Divide in two…");
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByRole("row", { name: /^1098 .* Tamsin and Osric/ })).toContainText("to be decided");
  await expect(dialog.getByText("half each").first()).toBeVisible();
  await noFindings(page, "Divide in two");
  await dialog.getByRole("button", { name: /^Make .*\(Tamsin\) and .*\(Osric\)$/ }).click();
  await expect(dialog.getByRole("status").getByRole("link")).toHaveCount(2);
  await dialog.getByRole("button", { name: "Put two new ones in their place" }).click();
  await expect(dialog.getByRole("button", { name: "Put two new ones in their place" })).toBeEnabled();
  await expect(dialog.getByRole("status").getByRole("link")).toHaveCount(2);
  await dialog
    .getByRole("status")
    .getByRole("link", { name: /\(Osric\)$/ })
    .click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("(Osric)");
  await page.keyboard.press("h");
  await expect(page.getByText("Divided from a household of two")).toBeVisible();
  await page.keyboard.press("Escape");
  // The other spouse is elsewhere now: what that one does is asked.
  await page.keyboard.press("o");
  await expect(page.getByText("Does the spouse itemize?", { exact: false }).first()).toBeVisible();
  await page.getByRole("link", { name: "Hembo, all households" }).click();
  await page
    .getByRole("button", { name: /^More about .*\(Osric\) 2025$/ })
    .first()
    .click();
  await page.getByRole("menuitem", { name: "Divide in two…" }).click();
  await expect(page.getByRole("alert")).toContainText("not divided again");
});
