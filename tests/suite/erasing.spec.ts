// A household erased for good by an administrator: put away, its name typed again, certified.
import { expect, test } from "@playwright/test";
import { more, noFindings, openCopy, signInAsAdministrator } from "./desk";

test("what is put away is erased for good, with a certificate", async ({ page, browser }) => {
  await openCopy(page, "Pellerin");
  const office = await (await browser.newContext()).newPage();
  await signInAsAdministrator(office);
  const search = office.getByPlaceholder(/^Name, own number/);
  await search.fill("Pellerin (copy)");
  await more(office, "Pellerin (copy)", "Put away");
  await office.goto("/?away=true");
  await search.fill("Pellerin (copy)");
  await more(office, "Pellerin (copy)", "Erase for good…");
  const sheet = office.getByRole("dialog");
  const erase = sheet.getByRole("button", { name: "Erase for good" });
  await expect(sheet).toContainText("1 revision");
  await expect(erase).toBeDisabled();
  await sheet.getByLabel("Type Pellerin (copy) to erase it").fill("Pellerin (copy)");
  await noFindings(office, "erase");
  await erase.click();
  await expect(office.getByRole("heading", { name: "It is erased" })).toBeVisible();
  const download = office.waitForEvent("download");
  await office.getByRole("link", { name: "Save the certificate" }).click();
  expect((await download).suggestedFilename()).toMatch(/^erased-.*\.json$/);
  await office.keyboard.press("Escape");
  await expect(office.getByRole("row", { name: /Pellerin \(copy\)/ })).toHaveCount(0);
  // A preparer is not offered it.
  await page.goto("/");
  await page.getByPlaceholder(/^Name, own number/).fill("Fennimore");
  await page
    .getByRole("button", { name: /^More about Fennimore 2025/ })
    .first()
    .click();
  await expect(page.getByRole("menuitem", { name: "Put away" })).toBeVisible();
  await expect(page.getByRole("menuitem", { name: "Erase for good…" })).toHaveCount(0);
});
