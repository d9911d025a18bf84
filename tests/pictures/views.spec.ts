// One picture of each main view, from fresh demo data: PICTURES=1 with a server that was just started.
import { test } from "@playwright/test";
import { cell, signIn } from "../suite/desk";

const FOLDER = "../docs/screenshots";

test("pictures of the views", async ({ page }) => {
  const picture = async (name: string) => {
    await page.waitForTimeout(400);
    await page.screenshot({ path: `${FOLDER}/${name}.png` });
  };
  await page.goto("/");
  await page.getByLabel("Name").waitFor();
  await picture("sign-in");
  await signIn(page);
  await picture("households");
  await page.getByRole("link", { name: /^Vreeland-Mbeki/ }).click();
  await cell(page, "Home-loan interest", 4).getByRole("button").click();
  await page.getByText("What this changes").waitFor();
  await picture("spread");
  await cell(page, "Medical above", 4).getByRole("button").click();
  await page.keyboard.press("t");
  await picture("trail");
  await page.keyboard.press("p");
  await page.getByText("What it does to the tax").waitFor();
  await picture("papers");
  await page.getByRole("link", { name: /^Gifts ?Family/ }).click();
  await page.getByText("6 lines.").waitFor();
  await picture("receipts");
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("w");
  await page.getByText("now 96,400").waitFor();
  await picture("ways");
  await page.keyboard.press("s");
  await page.getByRole("button", { name: /^Wren/ }).click();
  await picture("person");
  await page.keyboard.press("/");
  await page.keyboard.type("interest");
  await picture("finder");
  await page.keyboard.press("Escape");
  await page.getByRole("link", { name: "Hembo, all households" }).click();
  await page.keyboard.press("n");
  await page.getByLabel("Household", { exact: true }).fill("Plover");
  await page.getByLabel("First filer").fill("Nell Plover");
  await page.getByRole("button", { name: "Make it" }).click();
  await page.getByRole("link", { name: /Open points/ }).click();
  await page.getByText("Digital assets: yes or no?").waitFor();
  await picture("points");
});
