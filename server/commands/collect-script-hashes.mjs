// After the build: leaves the Stall its own scripts, then writes the SHA-256 of every inline script of every static page to .next/script-hashes.json,
// from which the content security policy of static shells is made.
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { leaveOnlyItsOwn } from './stall-bundle.mjs';

leaveOnlyItsOwn('.next');
const root = path.join(process.cwd(), '.next', 'server', 'app');
const hashes = {};
for (const file of readdirSync(root, { recursive: true })) {
  if (!file.endsWith('.html')) continue;
  const html = readFileSync(path.join(root, file), 'utf8');
  const route = `/${file.replace(/\.html$/, '').replace(/(^|\/)index$/, '')}`;
  hashes[route] = [...html.matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(
    ([, code]) => `'sha256-${createHash('sha256').update(code, 'utf8').digest('base64')}'`,
  );
}
writeFileSync(path.join(process.cwd(), '.next', 'script-hashes.json'), JSON.stringify(hashes));
console.log(`inline scripts hashed for ${Object.keys(hashes).sort().join(' ')}`);
