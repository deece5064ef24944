import { afterAll, afterEach, beforeAll, expect, test } from "@jest/globals";
import { type Browser, type Page, chromium } from "playwright-core";

let browser: Browser;
let page: Page;
const errors: string[] = [];

beforeAll(async () => {
  browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
  });
});
afterAll(async () => browser.close());
afterEach(async () => page.context().close());

async function open(url: string | undefined, javaScriptEnabled = true): Promise<void> {
  const context = await browser.newContext({ javaScriptEnabled, viewport: { width: 1280, height: 800 } });
  page = await context.newPage();
  page.on("pageerror", (error) => errors.push(error.message));
  page.on("console", (said) => said.type() === "error" && errors.push(said.text()));
  await page.goto(url!);
}

const question = (trait: string) => page.locator(`article#${trait}`);
const given = async (trait: string, dialect: string) => question(trait).locator(`output[data-dialect="${dialect}"]`).innerText();

test("the concordance is read without its script: questions, answers by dialect, examples with values, evidence", async () => {
  await open(process.env.CONCORDANCE_URL, false);
  expect(await page.locator("article").count()).toBeGreaterThan(100);
  const row = question("absent").locator("tr", { hasText: "whole The whole text." });
  expect((await row.locator("td").allInnerTexts()).map((text) => text.trim())).toEqual([
    "split_part", "substring_index", "", "split_part", "", "", "",
  ]); // prettier-ignore
  expect(await given("mapping", "openformula")).toBe('"STRASSE"');
  expect(await question("absent").locator("details").textContent()).toContain("PostgreSQL, whole: split_part: ");
  expect(await page.locator("#tool-move").isVisible()).toBe(false);
});

test("its examples follow the text; questions are found by words, by a link, and for an expression that moves", async () => {
  await open(`${process.env.CONCORDANCE_URL}#mapping`);
  await question("mapping").getByLabel("label").fill("ﬁne ß");
  expect([await given("mapping", "openformula"), await given("mapping", "postgresql")]).toEqual(['"FINE SS"', '"ﬁNE ß"']);
  await page.getByLabel("Find").fill("searched for split_part");
  expect(await page.locator("#tool-found").innerText()).toMatch(/^[1-9]\d? questions?$/);
  expect(await question("absent").isVisible()).toBe(true);
  expect(await question("startBelow").isVisible()).toBe(false);
  await page.getByLabel("Find").fill("");
  await page.getByLabel("Expression").fill('PROPER(label)&FIND("x";label)');
  const moves = page.locator("#tool-moves");
  await expect(moves.innerText()).resolves.toContain("PROPER: initcap in PostgreSQL");
  expect(await moves.innerText()).toContain('With label = "ß" it gives "SS" here and would give "ß".');
  await page.locator("#tool-to").selectOption("sql");
  expect(await moves.innerText()).toContain("PROPER: no function of Standard SQL does its job");
  await page.getByLabel("Expression").fill("PROPER(");
  expect(await moves.innerText()).toMatch(/not closed|Expected/);
  expect(errors).toEqual([]);
});

test("the library in a page: values, the rows that differ, why, and mistakes as they are typed", async () => {
  await open(process.env.EMBED_URL);
  const rows = page.locator("#table tr");
  expect(await rows.nth(3).locator("td").allInnerTexts()).toEqual(["Salix", "an error", '"Salix"']);
  expect(await page.locator("tr.differs").count()).toBe(1);
  expect(await page.locator("#why").innerText()).toContain("What comes back when what is searched for is not there?");
  await page.getByLabel("PostgreSQL").fill("left(taxon");
  expect(await page.locator("#problems").innerText()).toContain("is not closed");
  expect(errors).toEqual([]);
});
