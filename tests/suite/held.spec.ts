// What the authority holds: the family's consent, fetching, and each slip beside the paper that was keyed.
import { expect, test } from "@playwright/test";
import { noFindings, openCopy } from "./desk";

test("a preparer fetches what is held, takes, keeps and refuses slips by keyboard, and takes it back", async ({
  page,
}) => {
  await openCopy(page, "Okonjo-Farrell");
  await page.keyboard.press("a");
  await expect(page.getByText("Nothing is held here yet")).toBeVisible();
  await page.getByRole("button", { name: "Ask for it" }).click();
  await expect(page.getByText(/Authorised by Isolde and Bram/)).toBeVisible();
  await page.getByRole("button", { name: "Fetch what is held" }).click();

  // The slip that differs comes first: two digits changed places.
  await expect(page.getByRole("heading", { name: "W-2 · Quarter Moon Theatre" })).toBeVisible();
  const box = page.getByRole("row", { name: /Federal tax withheld/ });
  await expect(box).toContainText("10,210.00");
  await expect(box).toContainText("differs by 90.00");
  await expect(page.getByText("Box 2: Two digits changed places.")).toBeVisible();
  const side = page.getByRole("complementary", { name: "What taking it does" });
  await expect(side).toContainText("4,044 back");
  await noFindings(page, "Held by the authority");
  await page.keyboard.press("Enter");
  await expect(page.locator("footer")).toContainText("4,044 back");

  // On to the new one; refused with a reason; then those that agree at once.
  await expect(page.getByRole("heading", { name: "1099-INT · Cottonwood Savings" })).toBeVisible();
  await page.getByRole("button", { name: "Refuse the slip…" }).click();
  await page.getByLabel("Reason").fill("Her mother's account");
  await page.getByRole("button", { name: "Refuse the slip", exact: true }).click();
  await side.getByRole("button", { name: /Mark all \d that agree/ }).click();
  const list = page.getByRole("navigation", { name: "Slips that are held" });
  await expect(list.getByRole("link", { name: /Cottonwood/ })).toContainText("refused");
  await expect(list.getByRole("link", { name: /Kiln Lane/ })).toContainText("agrees ✓");

  // Held and checked are two marks; undo takes the marks back, then the refusal.
  await page.keyboard.press("p");
  await expect(
    page.getByRole("img", { name: /held by Kiln Lane|checked against the original/ }).first(),
  ).toBeVisible();
  await page.keyboard.press("a");
  await page.keyboard.press("z");
  await page.keyboard.press("z");
  await expect(list.getByRole("link", { name: /Cottonwood/ })).toContainText("new");

  // Fetched again: what changed, came and went is told.
  await page.getByRole("button", { name: "Fetch again" }).click();
  await expect(page.getByRole("heading", { name: "Since the last fetch" })).toBeVisible();
  await expect(page.getByText("Changed: 1099-INT Cottonwood Savings.")).toBeVisible();
});

test("an outage is told, nothing is lost, and trying again works", async ({ page, request }) => {
  const household = await openCopy(page, "Fennimore");
  await page.keyboard.press("a");
  await page.getByRole("button", { name: "Ask for it" }).click();
  await expect(page.getByText(/Authorised by Delphine/)).toBeVisible();
  const faults = `${process.env.AUTHORITY_URL}/faults`;
  await request.put(faults, { data: { household, fault: "down" } });
  await page.getByRole("button", { name: "Fetch what is held" }).click();
  await expect(page.getByRole("alert")).toContainText("has an outage. Nothing was changed");
  await request.put(faults, { data: { household, fault: null } });
  await page.getByRole("button", { name: "Fetch what is held" }).click();
  await expect(page.getByRole("row", { name: /Federal tax withheld/ })).toContainText("differs by 36.00");
  await expect(page.getByRole("alert")).toHaveCount(0);

  // What only the family has is asked for, with the day.
  await page.getByRole("button", { name: /All \d+ kinds/ }).click();
  await page.getByRole("button", { name: "Asked: Gifts" }).click();
  await expect(page.getByRole("button", { name: "Not asked: Gifts" })).toBeVisible();
  await page.getByRole("link", { name: "A letter that asks for these" }).click();
  await expect(page.getByLabel("Template").locator("option:checked")).toHaveText("Papers to bring");
  await page.getByRole("button", { name: "Write the letter" }).click();
  await expect(page.getByRole("textbox", { name: "Letter" })).toContainText("we still need these papers");
  await expect(page.getByRole("textbox", { name: "Letter" })).toContainText("(Gifts)");
});
