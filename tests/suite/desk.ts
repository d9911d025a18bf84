// What several specs do: sign in, make a household, walk by keyboard.
import AxeBuilder from "@axe-core/playwright";
import { type Browser, expect, type Locator, type Page } from "@playwright/test";

type Cookies = Awaited<ReturnType<ReturnType<Page["context"]>["cookies"]>>;

/** The sessions so far: one address may sign in only so often, and the suite has many specs. */
const sessions = new Map<string, Cookies>();

export function signIn(page: Page) {
  return signInAs(page, "demo");
}

/** Signs in as the administrator, in a window that nobody uses. */
export function signInAsAdministrator(page: Page) {
  return signInAs(page, "office");
}

/** Signs in, in a window that nobody else uses. */
export async function signInAs(page: Page, login: string) {
  await page.context().addCookies(sessions.get(login) ?? []);
  await page.goto("/");
  await page.getByRole("heading", { name: /Sign in|Households/ }).waitFor();
  if (await page.getByRole("heading", { name: "Households" }).isVisible()) return;
  await signInAnew(page, login);
  sessions.set(login, await page.context().cookies());
}

/** The same in a session of its own. */
export async function signInAnew(page: Page, login: string) {
  await page.goto("/");
  await page.getByLabel("Name").fill(login);
  await page.getByLabel("Password").fill("quay-street-12");
  await page.getByRole("button", { name: "Sign in" }).click();
  await expect(page.getByRole("heading", { name: "Households" })).toBeVisible();
}

/** Opens a household of the demo data through a copy, so that specs do not meet in one. */
export async function openCopy(page: Page, name: string) {
  await signIn(page);
  // The list shows a hundred at first, and the specs make many.
  await page.getByPlaceholder(/^Name, own number/).fill(name);
  const others = page.getByRole("table").getByRole("row").filter({ hasNotText: name });
  await expect(others, "only the heading").toHaveCount(1);
  const copied = page.waitForResponse((r) => r.url().endsWith("/copy"));
  await more(page, name, "Copy");
  const { id } = await (await copied).json();
  await page.goto(`/h/${id}/spread`);
  await expect(page.getByRole("heading", { name: `${name} (copy) household` })).toBeVisible();
  return id as string;
}

/** Does something from the menu of a household in the list. */
export async function more(page: Page, name: string, what: string) {
  const menu = page.getByRole("button", { name: new RegExp(`^More about ${escaped(name)} \\d{4}$`) });
  const item = page.getByRole("menuitem", { name: what, exact: true });
  // A list that is still coming in takes an open menu away.
  await expect(async () => {
    if (!(await item.isVisible())) await menu.first().click();
    await item.click({ timeout: 2_000 });
  }).toPass();
}

function escaped(text: string) {
  return text.replaceAll(/[()]/g, "\\$&");
}

/** What has the focus: the words of its label. */
function focused(page: Page) {
  return page.evaluate(() => {
    const element = document.activeElement as HTMLInputElement | null;
    const group = element?.closest("[role=group],[role=radiogroup]");
    const label =
      (element?.getAttribute("role") === "radio" ? group : element)?.getAttribute("aria-label") ??
      element?.closest("label")?.firstChild?.textContent;
    return (label ?? element?.textContent ?? "").trim();
  });
}

/** Presses Tab until the focus is on something with these words. */
export async function tabTo(page: Page, words: string, key = "Tab") {
  for (let i = 0; i < 80; i++) {
    if ((await focused(page)) === words) return;
    await page.keyboard.press(key);
  }
  throw new Error(`the focus never came to “${words}”`);
}

export async function type(page: Page, ...keys: string[]) {
  for (const key of keys) {
    if (key.startsWith("<")) await page.keyboard.press(key.slice(1, -1));
    else await page.keyboard.type(key);
  }
}

/** Chooses in a box of a list, or of yes and no; nothing empties it. */
export async function choose(box: Locator, option: string) {
  if ((await box.getAttribute("role")) === "combobox") {
    await box.fill(option);
    await box.press("Tab");
  } else if (option) await box.getByRole("radio", { name: option, exact: true }).click();
  else await box.getByRole("radio").first().press("Delete");
}

/** What a box of yes and no says. */
export function answer(box: Locator) {
  return box.getByRole("radio", { checked: true });
}

/** Waits until everything typed is stored. */
export async function saved(page: Page) {
  await expect(page.getByText(/^Saved \d\d:\d\d/)).toBeVisible();
}

/** A cell of the Spread by the row's words and the column's place (after the people comes the household together). */
export function cell(page: Page, row: string, column: number) {
  return page.getByRole("row", { name: row }).first().locator("td:not([data-shared])").nth(column);
}

export async function noFindings(page: Page, view: string) {
  const tags = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];
  const { violations } = await new AxeBuilder({ page }).withTags(tags).analyze();
  const told = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(" ")}`);
  expect(told, view).toEqual([]);
}

/** Through the reviewer's hands to the family. */
export async function handOver(page: Page, browser: Browser, id: string) {
  await page.goto(`/h/${id}/hand-over`);
  await page.getByRole("button", { name: "Ready for review" }).click();
  const context = await browser.newContext();
  const other = await context.newPage();
  await signInAs(other, "review");
  await other.goto(`/h/${id}/hand-over`);
  await other.getByRole("button", { name: "Begin the review" }).click();
  await other.getByRole("button", { name: "Clear it" }).click();
  await expect(other.getByRole("banner").getByText("Cleared")).toBeVisible();
  await context.close();
  await page.reload();
  await page.getByRole("button", { name: "Handed over to the family" }).click();
  await expect(page.getByRole("banner").getByText("Handed over")).toBeVisible();
}
