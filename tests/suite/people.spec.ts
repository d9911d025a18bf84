// The people of a practice: invited by a link, signed in, barred.
import { expect, type Page, test } from "@playwright/test";
import { noFindings, openCopy, signInAnew, signInAs, signInAsAdministrator } from "./desk";

test("someone is invited, sets a password once, works, and is barred at once", async ({ page, browser }) => {
  await signInAsAdministrator(page);
  await page.getByRole("button", { name: "Practice" }).click();
  await page.getByRole("button", { name: "People…" }).click();
  const people = page.getByRole("dialog", { name: "People of the practice" });
  await people.getByLabel("Name", { exact: true }).fill("Wren Marsh");
  await people.getByLabel("Signs in as").fill("wren");
  await people.getByRole("button", { name: "Make a link" }).click();
  const link = await people.getByRole("status").locator("code").textContent();
  await expect(people.getByRole("row", { name: /^Wren Marsh/ })).toContainText("has no password yet");
  await noFindings(page, "people");

  const other = await (await browser.newContext()).newPage();
  await other.goto(link ?? "");
  await expect(other.getByRole("heading", { name: "Welcome, Wren Marsh" })).toBeVisible();
  await noFindings(other, "welcome");
  const set = async (password: string) => {
    await other.getByLabel("Password", { exact: true }).fill(password);
    await other.getByLabel("The same again").fill(password);
    await other.keyboard.press("Enter");
  };
  await set("password1234");
  await expect(other.getByRole("alert")).toContainText("among the first that are tried");
  await set("quiet harbour");
  await other.getByRole("link", { name: "To the sign-in" }).click();
  await other.getByLabel("Name").fill("wren");
  await other.getByLabel("Password").fill("quiet harbour");
  await other.getByRole("button", { name: "Sign in" }).click();
  await expect(other.getByRole("heading", { name: "Households" })).toBeVisible();
  await other.goto(link ?? "");
  await other.reload();
  await expect(other.getByRole("heading", { name: "This link cannot be used" })).toBeVisible();
  await other.goto("/");
  await expect(other.getByRole("heading", { name: "Households" })).toBeVisible();

  await people.getByRole("button", { name: "Disable Wren Marsh" }).click();
  await expect(people.getByRole("row", { name: /^Wren Marsh/ })).toContainText("may not sign in");
  await other.reload();
  await expect(other.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("households are seen in the own hands alone where the practice wants it, and one signs out elsewhere", async ({
  page,
  browser,
}) => {
  await signInAsAdministrator(page);
  const ask = async (own: boolean) => {
    await page.goto("/");
    await page.getByRole("button", { name: "Practice" }).click();
    const practice = page.getByRole("dialog", { name: "The practice" });
    await practice.getByLabel("People see only the households in their own hands").setChecked(own);
    await practice.getByRole("button", { name: "Keep" }).click();
    await expect(practice).toHaveCount(0);
  };
  const other = await (await browser.newContext()).newPage();
  await signInAs(other, "review");
  const row = other.getByRole("link", { name: /^Thornquist-Abara/ });
  const path = await row.first().getAttribute("href");
  await ask(true);
  try {
    await other.goto("/");
    await expect(other.getByRole("heading", { name: "Households" })).toBeVisible();
    await expect(row).toHaveCount(0);
    await other.goto(path ?? "");
    await expect(other.getByText("There is no such household", { exact: false })).toBeVisible();
  } finally {
    await ask(false);
  }
  await other.goto("/");
  await expect(row.first()).toBeVisible();

  const second = await (await browser.newContext()).newPage();
  await signInAnew(second, "review");
  await other.getByRole("button", { name: "Practice" }).click();
  await other.getByRole("button", { name: "Your account…" }).click();
  const account = other.getByRole("region", { name: "Where you are signed in" });
  await expect(account.getByRole("listitem").filter({ hasText: "This browser" })).toHaveCount(1);
  await noFindings(other, "account");
  await account.getByRole("button", { name: /^Sign out in the/ }).click();
  await expect(account.getByRole("listitem")).toHaveCount(1);
  await second.reload();
  await expect(second.getByRole("heading", { name: "Sign in" })).toBeVisible();
});

test("an empty list tells what is done first, and why it is empty", async ({ page, browser }) => {
  const empty = async (of: Page, changes: (practice: { people: unknown[] }) => object) => {
    const rows = { rows: [], count: 0, blocked: 0, years: [] };
    await of.route("**/api/households?*", (route) => route.fulfill({ json: rows }));
    await of.route("**/api/practice", async (route) => {
      const practice = await (await route.fetch()).json();
      await route.fulfill({ json: { ...practice, ...changes(practice) } });
    });
    await of.goto("/");
  };
  await signInAsAdministrator(page);
  await empty(page, ({ people }) => ({ people: people.slice(0, 1) }));
  await expect(page.getByRole("heading", { name: "No household yet" })).toBeVisible();
  await noFindings(page, "an empty list");
  await page.getByRole("button", { name: "invite who works here" }).click();
  await expect(page.getByRole("dialog", { name: "The practice" })).toBeVisible();
  const other = await (await browser.newContext()).newPage();
  await signInAs(other, "demo");
  await empty(other, () => ({ own_sight: true }));
  await expect(other.getByRole("heading", { name: "No household in your hands" })).toBeVisible();
  await expect(other.getByText("An administrator puts those of the practice into hands")).toBeVisible();
});

test("many households are put into somebody's hands at once", async ({ page }) => {
  await signInAsAdministrator(page);
  await page.getByPlaceholder(/^Name, own number/).fill("South Africa");
  await expect(page.getByRole("link", { name: /^Abrahamse/ })).toBeVisible();
  for (const name of ["Abrahamse", "Mokoena-Vlok"]) {
    await page.getByRole("row", { name }).first().getByRole("checkbox").check();
  }
  await page.getByRole("button", { name: "Put into hands…" }).click();
  const hands = page.getByRole("dialog", { name: "Put into hands" });
  await expect(hands.getByRole("button", { name: "Put 2 households there" })).toBeDisabled();
  await hands.getByLabel("Works on them").selectOption("K. Ravndal");
  await noFindings(page, "put into hands");
  await hands.getByRole("button", { name: "Put 2 households there" }).click();
  await expect(hands.getByRole("status")).toHaveText("2 households of 2 put into these hands.");
  await hands.getByRole("button", { name: "Close" }).click();
  await expect(page.getByRole("row", { name: "Abrahamse" }).first()).toContainText("K. Ravndal");
  await expect(page.getByRole("row", { name: "Mokoena-Vlok" }).first()).toContainText("K. Ravndal");
});

test("the audit tells who did what, and is narrowed", async ({ page: own, browser }) => {
  await openCopy(own, "Okonjo-Farrell");
  const page = await (await browser.newContext()).newPage();
  await signInAsAdministrator(page);
  await page.getByRole("button", { name: "Practice" }).click();
  await page.getByRole("button", { name: "Audit…" }).click();
  const audit = page.getByRole("dialog", { name: "Audit" });
  const rows = audit.getByRole("row");
  await audit.getByRole("combobox", { name: /^What/ }).selectOption("Sign-ins, and who was refused");
  await expect(rows.filter({ hasText: "K. Ravndal" }).first()).toContainText("signed in");
  await audit.getByRole("combobox", { name: /^Who/ }).selectOption("N. Ostrava");
  await audit.getByRole("combobox", { name: /^What/ }).selectOption("Opened, shown in full, taken out");
  await audit.getByRole("textbox", { name: "Household" }).fill("okonjo");
  await expect(rows.first()).toContainText("Okonjo-Farrell (copy) 2025");
  await expect(rows.first()).toContainText("opened");
  await noFindings(page, "audit");
  const file = page.waitForEvent("download");
  await audit.getByRole("link", { name: "As CSV" }).click();
  expect((await file).suggestedFilename()).toBe("audit.csv");
  await audit.getByRole("textbox", { name: "Household" }).fill("nobody like that");
  await expect(audit.getByText("Nothing like that was done.")).toBeVisible();
});
