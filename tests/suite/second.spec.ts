// A second factor: set up with an authenticator, asked for at the sign-in, and a code for a lost phone.
import { createHmac } from "node:crypto";
import { expect, test } from "@playwright/test";
import { noFindings, signInAsAdministrator } from "./desk";

/** The code of an authenticator now (RFC 6238). */
function codeOf(secret: string) {
  const letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
  const bits = [...secret].map((letter) => letters.indexOf(letter).toString(2).padStart(5, "0")).join("");
  const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => Number.parseInt(byte, 2)));
  const step = Buffer.alloc(8);
  step.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30_000)));
  const hash = createHmac("sha1", key).update(step).digest();
  const at = (hash.at(-1) ?? 0) & 15;
  return String((hash.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, "0");
}

test("a second factor is set up, asked for, and a code for a lost phone signs in", async ({
  page,
  browser,
}) => {
  await signInAsAdministrator(page);
  await page.getByRole("button", { name: "Practice" }).click();
  await page.getByRole("button", { name: "People…" }).click();
  const people = page.getByRole("dialog", { name: "People of the practice" });
  await people.getByLabel("Name", { exact: true }).fill("Sable Quist");
  await people.getByLabel("Signs in as").fill("sable");
  await people.getByRole("button", { name: "Make a link" }).click();
  const link = await people.getByRole("status").locator("code").textContent();
  const other = await (await browser.newContext()).newPage();
  await other.goto(link ?? "");
  await other.getByLabel("Password", { exact: true }).fill("quiet harbour");
  await other.getByLabel("The same again").fill("quiet harbour");
  await other.keyboard.press("Enter");
  await other.getByRole("link", { name: "To the sign-in" }).click();
  const signIn = async () => {
    await other.getByLabel("Name").fill("sable");
    await other.getByLabel("Password").fill("quiet harbour");
    await other.getByRole("button", { name: "Sign in" }).click();
  };
  await signIn();
  await expect(other.getByRole("heading", { name: "Households" })).toBeVisible();
  await other.getByRole("button", { name: "Practice" }).click();
  await other.getByRole("button", { name: "Your account…" }).click();
  await other.getByRole("button", { name: "Set it up…" }).click();
  const sheet = other.getByRole("dialog", { name: "Your account" });
  const secret = (await sheet.locator("code").first().textContent()) ?? "";
  await noFindings(other, "second factor");
  await sheet.getByLabel("Then the code that it shows").fill("000000");
  await other.keyboard.press("Enter");
  await expect(sheet.getByRole("alert")).toContainText("not the code of now");
  await sheet.getByLabel("Then the code that it shows").fill(codeOf(secret.replaceAll(" ", "")));
  await other.keyboard.press("Enter");
  const codes = sheet.getByRole("status").locator("code");
  await expect(codes).toHaveCount(10);
  await expect(sheet).toContainText("10 codes for a lost phone are left");
  const lost = (await codes.nth(2).textContent()) ?? "";
  await other.keyboard.press("Escape");
  await other.getByRole("button", { name: "Sign out" }).click();
  await signIn();
  await expect(other.getByRole("alert")).toHaveCount(0);
  await other.getByLabel(/^Code of your authenticator/).fill(lost);
  await noFindings(other, "sign-in with a code");
  await other.keyboard.press("Enter");
  await expect(other.getByRole("heading", { name: "Households" })).toBeVisible();
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Practice" }).click();
  await page.getByRole("button", { name: "People…" }).click();
  await expect(people.getByRole("row", { name: /^Sable Quist/ })).toContainText("with a second factor");
});
