// Writes the licences of everything that the application is made of, with the texts that lie in the packages.
import { execFileSync } from "node:child_process";
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";

const HERE = execFileSync("rustc", ["-vV"]).toString().match(/^host: (.*)$/m)[1];
const TEXT = /^(licen[cs]e|copying|notice|unlicen[cs]e)/i;

/** The packages that the server is built of, without this project's own and what only builds or tests it. */
function crates() {
  const metadata = JSON.parse(
    execFileSync("cargo", ["metadata", "--format-version", "1", "--locked", "--filter-platform", HERE], {
      maxBuffer: 1 << 28,
    }),
  );
  const nodes = new Map(metadata.resolve.nodes.map((node) => [node.id, node]));
  const byId = new Map(metadata.packages.map((one) => [one.id, one]));
  const open = metadata.packages.filter((one) => one.name === "hembo" && one.source === null).map((one) => one.id);
  const found = new Set(open);
  while (open.length > 0) {
    for (const { pkg, dep_kinds } of nodes.get(open.pop()).deps) {
      if (found.has(pkg) || !dep_kinds.some(({ kind }) => kind === null)) continue;
      found.add(pkg);
      open.push(pkg);
    }
  }
  return [...found]
    .map((id) => byId.get(id))
    .filter((one) => one.source !== null)
    .map((one) => ({ name: one.name, version: one.version, licence: one.license, folder: dirname(one.manifest_path) }));
}

/** The packages of the front end that reach the browser. */
function modules() {
  const { packages } = JSON.parse(readFileSync("web/package-lock.json", "utf8"));
  return Object.entries(packages)
    .filter(([path, one]) => path !== "" && !one.dev)
    .map(([path, one]) => ({ name: path.replace(/^.*node_modules\//, ""), version: one.version, licence: one.license, folder: join("web", path) }));
}

/** The texts of the licences that lie in a package's folder. */
function texts(folder) {
  if (!existsSync(folder)) return [];
  const files = readdirSync(folder, { withFileTypes: true }).filter((one) => one.isFile() && TEXT.test(one.name));
  return files.map((one) => readFileSync(join(folder, one.name), "utf8").trim());
}

const all = [...crates(), ...modules()].sort((a, b) => a.name.localeCompare(b.name));
const without = all.filter((one) => !one.licence && texts(one.folder).length === 0);
if (without.length > 0) {
  console.error(`No licence is told of ${without.map((one) => one.name).join(", ")}.`);
  process.exit(1);
}
const told = all.map((one) =>
  [`${one.name} ${one.version}: ${one.licence ?? "see the text"}`, ...texts(one.folder)].join("\n\n"),
);
writeFileSync(process.argv[2], `${told.join(`\n\n${"-".repeat(80)}\n\n`)}\n`);
console.log(`${all.length} packages`);
