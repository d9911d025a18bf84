// Rule figures: read, found, compared between years; papers offered by subject, and opened by a question.
import { expect, test } from "@playwright/test";
import { choose, noFindings, openCopy, saved, signIn, signInAsAdministrator } from "./desk";

test("rule figures stand side by side, and are found by word, source and difference", async ({ page }) => {
  await signIn(page);
  await page.getByRole("link", { name: "Rule figures" }).click();
  const row = page.getByRole("row", { name: /^Basic, single/i });
  await expect(row).toContainText("15,750");
  await expect(row).toContainText("14,600");
  await page.keyboard.press("/");
  await page.keyboard.type("§213");
  await expect(page.getByText("Used for Medical above the floor").first()).toBeVisible();
  await expect(row).toBeHidden();
  await noFindings(page, "figures");
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

test("an administrator weighs a figure of the practice's own, keeps it, and takes it back", async ({
  page,
}) => {
  await signInAsAdministrator(page);
  await page.goto("/figures");
  // What others reckon with meanwhile is weighed only.
  await page
    .getByRole("row", { name: /^Basic, single/i })
    .getByRole("button", { name: "15,750" })
    .click();
  await page.getByLabel("The practice's figure").fill("lots");
  await page.getByRole("textbox", { name: "Source" }).fill("Notice 2026-14");
  await page.getByLabel("Why").fill("Corrected in March");
  await page.getByRole("button", { name: "Weigh the change" }).click();
  await expect(page.getByRole("alert")).toContainText("'lots' is not a figure such as 15750.");
  await page.getByLabel("The practice's figure").fill("16,250");
  await page.getByRole("button", { name: "Weigh the change" }).click();
  await expect(page.getByRole("button", { name: "Count 16,250 from now on" })).toBeVisible();
  await expect(page.getByRole("region", { name: "Households that would move" })).toContainText("−");
  await noFindings(page, "weighing a figure");
  await page.keyboard.press("Escape");

  // The mile of a move of 2024 moves nobody.
  const mile = page.locator("#moving").getByRole("row", { name: /^Mile/i });
  await mile.getByRole("button").last().click();
  await page.getByLabel("The practice's figure").fill("0.22");
  await page.getByRole("textbox", { name: "Source" }).fill("Notice 2024-99");
  await page.getByLabel("Why").fill("Raised in the year");
  await page.getByRole("button", { name: "Weigh the change" }).click();
  await page.getByRole("button", { name: "Count 0.22 from now on" }).click();
  await expect(mile).toContainText("0.22the practice's own");
  await mile.getByRole("button").last().click();
  await expect(page.getByText("0.21 → 0.22 by K. Ravndal. Raised in the year")).toBeVisible();
  await page.getByRole("button", { name: "Back to the figure of the rules" }).click();
  await page.getByRole("button", { name: "Count 0.21 of the rules again" }).click();
  await expect(mile).not.toContainText("the practice's own");
  await mile.getByRole("button").last().click();
  await expect(page.getByText("by K. Ravndal", { exact: false }).last()).toContainText("Ended");
});

test("results that moved when a figure was replaced are listed until somebody has looked", async ({
  page,
}) => {
  await signInAsAdministrator(page);
  await page.goto("/figures");
  const basic = page.getByRole("row", { name: /^Basic, single/i });
  await basic.getByRole("button", { name: "15,750" }).click();
  await page.getByLabel("The practice's figure").fill("16,000");
  await page.getByRole("textbox", { name: "Source" }).fill("Notice 2026-15");
  await page.getByLabel("Why").fill("Raised in June");
  await page.getByRole("button", { name: "Weigh the change" }).click();
  await page.getByRole("button", { name: "Count 16,000 from now on" }).click();
  await expect(basic).toContainText("16,000the practice's own");
  const moved = async () => {
    await page.getByRole("link", { name: "Households" }).click();
    await page.reload();
    const look = page.getByRole("button", { name: /^Look at (it|them)$/ });
    await expect(look).toBeVisible({ timeout: 120_000 });
    // Only what is shown counts as seen: what is reckoned after that would be told again.
    await expect(page.getByText(/still to reckon again/)).toHaveCount(0, { timeout: 120_000 });
    await look.click();
    await expect(page.getByRole("dialog").getByRole("row", { name: /^Tregarth-Osei 2025/ })).toContainText(
      "30",
    );
  };
  const seen = async () => {
    await page.getByRole("button", { name: "All of it is seen" }).click();
    await expect(page.getByText("The rules changed", { exact: false })).toHaveCount(0);
  };
  await moved();
  await noFindings(page, "What moved");
  await seen();
  await page.goto("/figures");
  await basic.getByRole("button", { name: /16,000/ }).click();
  await page.getByRole("button", { name: "Back to the figure of the rules" }).click();
  await page.getByRole("button", { name: "Count 15,750 of the rules again" }).click();
  await expect(basic).not.toContainText("the practice's own");
  await moved();
  await seen();
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

test("a year for planning says so wherever it stands", async ({ page }) => {
  await signIn(page);
  const row = page.getByRole("row", { name: /^Choose Thornquist-Abara 2026/ });
  await expect(row.first()).toContainText("2026 · planning");
  await page.getByRole("button", { name: "New household" }).click();
  // A new household is of the latest year that is over.
  await expect(page.getByLabel("Return year")).toHaveValue("2025");
  await page.keyboard.press("Escape");
  const id = await openCopy(page, "Thornquist-Abara");
  await expect(page.getByText("2026 is for planning.")).toBeVisible();
  await expect(page.getByRole("row", { name: "Total tax" })).toContainText("4,357");
  await page.goto(`/h/${id}/schedules`);
  await expect(page.getByText("For planning: the forms of the year are not out")).toBeVisible();
  await noFindings(page, "a year for planning");
});

test("a share in a corporation is asked for, keyed, and goes to its lines", async ({ page }) => {
  const id = await openCopy(page, "Fennimore");
  await page.goto(`/h/${id}/spread?household=true&field=shares`);
  const shares = page.getByRole("radiogroup", {
    name: "Had a share in a partnership, S corporation, estate or trust",
  });
  await shares.getByRole("radio", { name: "Yes" }).click();
  await page.getByRole("button", { name: /^Add K-1 1120-S/ }).click();
  await expect(page.getByRole("heading", { name: /^K-1 1120-S/ })).toBeVisible();
  const income = page.getByRole("textbox", { name: "1 Ordinary business income" });
  await income.fill("4000");
  await income.blur();
  await expect(page.getByText("Did the owner work in it regularly?", { exact: true })).toBeVisible();
  await expect(page.getByText("The figures are not a result.")).toBeVisible();
  const answer = (question: string, said: string) =>
    page.getByRole("radiogroup", { name: question }).getByRole("radio", { name: said }).click();
  await answer("Worked in it regularly", "Yes");
  await expect(page.getByText("Did the owner work in it regularly?", { exact: true })).toBeHidden();
  await answer("Another box or code counts", "No");
  await expect(page.getByText("The figures are not a result.")).toBeHidden();
  const side = page.getByRole("complementary", { name: "Where these boxes go" });
  await expect(side).toContainText("Partnerships and S corporations, Schedule E, line 32");
  await page.goto(`/h/${id}/spread`);
  await expect(page.getByRole("row", { name: "Partnerships, S corporations" })).toContainText("4,000");
});

test("every household of a year is reckoned by the law of the next, and the largest differences come first", async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole("link", { name: "Planning" }).click();
  await expect(page.getByLabel("By the law of")).toHaveValue("2026");
  await page.getByRole("button", { name: "Reckon them" }).click();
  await expect(page.getByRole("status")).toHaveText(/^(\d+) of \1 households reckoned$/);
  await expect(page.getByText(/More tax by 2026 for \d+ households?, less for \d+\./)).toBeVisible();
  const more = page.getByRole("cell").and(page.locator("td:nth-child(4)"));
  await page.getByLabel("The largest differences first").check();
  const sizes = (await more.allTextContents()).map((text) => Math.abs(Number(text.replace(/[^0-9]/g, ""))));
  expect(sizes.length).toBeGreaterThan(2);
  expect(sizes).toEqual(sizes.toSorted((one, other) => other - one));
  await expect(page.getByRole("link", { name: "As CSV" })).toHaveAttribute(
    "download",
    "planning-2025-2026.csv",
  );
  await noFindings(page, "planning");
  // A year in which nobody is here, then a law with another year before it.
  await page.getByLabel("By the law of").selectOption("2025");
  await expect(page.getByRole("status")).toHaveText("Choose two years.");
  await page.getByLabel("Law", { exact: true }).selectOption("nz");
  await page.getByRole("button", { name: "Reckon them" }).click();
  await page.getByRole("link", { name: "Households" }).click();
  await expect(page.getByRole("heading", { name: "Households" })).toBeVisible();
});
