// After the build: has the browser fetch the Room view, which nearly everyone opens, together with
// the first scripts instead of after them.
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const page = 'build/index.html';
const dictionary = readFileSync('.svelte-kit/generated/client-optimized/app.js', 'utf8');
const node = /"\/": \[~?(\d+)/.exec(dictionary)?.[1];
const manifest = JSON.parse(readFileSync('.svelte-kit/output/client/.vite/manifest.json', 'utf8'));
const entry = `.svelte-kit/generated/client-optimized/nodes/${node}.js`;
if (!manifest[entry]) throw new Error(`the build has no ${entry}`);

const scripts = new Set();
const styles = new Set();
const take = (name) => {
  const chunk = manifest[name];
  if (scripts.has(chunk.file)) return;
  scripts.add(chunk.file);
  for (const style of chunk.css ?? []) styles.add(style);
  for (const next of chunk.imports ?? []) take(next);
};
take(entry);

let html = readFileSync(page, 'utf8');
const links = [
  ...[...scripts].map((file) => `<link href="/${file}" rel="modulepreload">`),
  ...[...styles].map((file) => `<link href="/${file}" rel="stylesheet">`),
].filter((link) => !html.includes(link));
html = html.replace('</head>', `  ${links.join('\n    ')}\n  </head>`);
writeFileSync(page, html);
writeFileSync(`${page}.gz`, gzipSync(html, { level: 9 }));

// The server answers gzip; a second packed copy of everything would only make the binary larger.
for (const file of readdirSync('build', { recursive: true })) {
  if (file.endsWith('.br')) rmSync(`build/${file}`);
}
