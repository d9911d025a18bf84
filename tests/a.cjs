require("./shot.cjs").run(async (page) => {
  await page.getByRole("link", { name: /Fennimore/ }).first().click();
  await page.getByText("Mark a figure").first().waitFor();
  await page.keyboard.press("p");
  await page.waitForTimeout(800);
  const chooser = page.waitForEvent("filechooser");
  await page.getByRole("button", { name: "A slip as a file" }).click();
  await (await chooser).setFiles("/tmp/W2-2025-delphine-1.pdf");
  await page.waitForTimeout(4000);
  await page.screenshot({ path: "/tmp/s1.png" });
  for (let i = 0; i < 3; i++) await page.keyboard.press("Enter");
  await page.screenshot({ path: "/tmp/s2.png" });
});
