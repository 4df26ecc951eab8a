import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

/** Files of the application's folder with this name, each with the address it answers at, `[name]` where any text may stand. */
function answering(name: string): { file: string; address: string }[] {
  return readdirSync('app', { recursive: true, encoding: 'utf8' })
    .filter((f) => path.basename(f) === name)
    .map((f) => ({ file: path.join('app', f), address: `/${path.dirname(f).replaceAll(/\([^)]*\)\/?/g, '')}`.replace(/\/(\.)?$/, '') || '/' }));
}

/** Every page, by its address. */
export const pagePaths = (): string[] => answering('page.tsx').map((p) => p.address);

/** Every route of the API with the methods it answers to, as its file exports them. */
export const apiRoutes = (): { path: string; methods: string[] }[] =>
  answering('route.ts')
    .filter((r) => r.address.startsWith('/api/'))
    .map((r) => ({
      path: r.address,
      methods: [...readFileSync(r.file, 'utf8').matchAll(/export (?:const|async function) (GET|POST|PUT|DELETE|PATCH)\b/g)].map((m) => m[1] as string),
    }));
