import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { brotliCompressSync, gzipSync } from "node:zlib";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

/** Packs what packs well once, beside the files: the server sends it as it lies there. */
function packed() {
  const pack = (folder: string) => {
    for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true })) {
      if (!entry.isFile() || !/\.(js|css|html|svg)$/.test(entry.name)) continue;
      const file = join(entry.parentPath, entry.name);
      const bytes = readFileSync(file);
      writeFileSync(`${file}.br`, brotliCompressSync(bytes));
      writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
    }
  };
  return {
    name: "packed",
    apply: "build" as const,
    closeBundle: () => pack(fileURLToPath(new URL("dist", import.meta.url))),
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), packed()],
  // Small files stay files: the content-security policy allows no fonts from data URLs.
  build: { assetsInlineLimit: 0 },
  server: { proxy: { "/api": "http://127.0.0.1:4310" } },
});
