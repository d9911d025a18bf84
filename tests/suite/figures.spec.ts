// Rule figures: read, found, compared between years; papers offered by subject, and opened by a question.
import { expect, test } from "@playwright/test";
import { choose, noFindings, openCopy, saved, signIn } from "./desk";

test("rule figures stand side by side, and are found by word, source and difference", async ({ page }) => {
  await signIn(page);
  await page.getByRole("link", { name: "Rule figures" }).click();
  const row = page.getByRole("row", { name: /^Basic, single/i });
  await expect(row).toContainText("15,750");
  await expect(row).toContainText("14,600");
  await noFindings(page, "figures");
  await page.keyboard.press("/");
  await page.keyboard.type("§213");
  await expect(page.getByText("Used for Medical above the floor").first()).toBeVisible();
  await expect(row).toBeHidden();
  await page.getByLabel("Only what differs between the years").check();
  await expect(page.getByRole("row", { name: /^Floor/i })).toBeHidden();
  await expect(page.getByRole("row", { name: /^Long term care, 1, most/i })).toContainText("480");
  await page.getByLabel("Find a figure, a rule or a source").fill("no such thing");
  await page.getByRole("button", { name: "Show all figures" }).click();
  await expect(row).toBeVisible();
  await page.getByRole("button", { name: "Canada" }).click();
  await expect(page.getByText("figures in", { exact: false })).toBeVisible();
  await expect(row).toBeHidden();
});

test("papers are offered by subject, and those added last come first", async ({ page }) => {
  await openCopy(page, "Fennimore");
  await page.keyboard.press("n");
  await expect(page.getByRole("group", { name: "Own work and property" })).toContainText("Schedule E");
  await expect(page.getByRole("group", { name: "Added last" })).toBeHidden();
  await page.keyboard.type("solar");
  await expect(page.getByRole("option")).toHaveCount(1);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: /^5695/ })).toBeVisible();
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("n");
  await expect(page.getByRole("group", { name: "Added last" })).toContainText("Home energy");
  await noFindings(page, "figures");
});

test("a yes opens its paper, and a box waits for the answer that calls for it", async ({ page }) => {
  const id = await openCopy(page, "Vreeland-Mbeki");
  await page.goto(`/h/${id}/spread?household=true&field=rent`);
  const rent = page.getByRole("radiogroup", { name: "Let a house or flat, or had royalties" });
  await rent.getByRole("radio", { name: "Yes" }).click();
  await page.getByRole("button", { name: /^Add Schedule E/ }).click();
  await expect(page.getByRole("heading", { name: /^Schedule E/ })).toBeVisible();
  await expect(page.getByText("Separate property of the owner")).toBeHidden();
  await page.goto(`/h/${id}/spread?household=true&field=state`);
  await choose(page.getByLabel("State of residence"), "Texas");
  await saved(page);
  await expect(page.getByText("Married and at home in this state all year")).toBeVisible();
  await page.goto(`/h/${id}/papers`);
  await page.getByRole("link", { name: /^Schedule E/ }).click();
  await expect(page.getByText("Separate property of the owner")).toBeVisible();
});
