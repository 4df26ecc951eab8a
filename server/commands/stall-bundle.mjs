import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';

const root = process.cwd();
const [FIRST, THEN] = ['app/stall/stall-screen.tsx', 'app/stall/later-parts.ts'].map((file) => path.join(root, file));

/**
 * What is fetched later is told that the first load is there, and after it the part that is fetched right then: what it
 * shares with them stays in their files. Otherwise each group of parts that share something would make a file of it, and a
 * slow network would spend on requests what it saves on bytes.
 */
const inOrder = {
  name: 'in-order',
  setup(bundle) {
    const later = new Set();
    bundle.onResolve({ filter: /./ }, async ({ kind, path: asked, pluginData, ...from }) => {
      if (kind !== 'dynamic-import' || pluginData === inOrder) return;
      const found = await bundle.resolve(asked, { kind, importer: from.importer, resolveDir: from.resolveDir, pluginData: inOrder });
      later.add(found.path);
      return found;
    });
    bundle.onLoad({ filter: /\.tsx?$/ }, ({ path: file }) => {
      if (!later.has(file)) return;
      const before = [FIRST, ...(file === THEN ? [] : [THEN])].map((f) => `import ${JSON.stringify(f)};\n`);
      return { contents: before.join('') + readFileSync(file, 'utf8'), loader: file.endsWith('x') ? 'tsx' : 'ts' };
    });
  },
};

/**
 * Bundles the Stall by itself, without what the application's other pages need to go from one to the next: two fifths of what
 * a phone would otherwise fetch before the first tap. Its files go where the other pages' go, and are precached with them.
 * @param dist the folder of the build; `stall-bundle.json` there says which script begins it and which come with it
 */
export async function bundleStall(dist) {
  const { metafile } = await build({
    entryPoints: ['app/stall/start.tsx'],
    outdir: path.join(dist, 'static', 'stall'),
    entryNames: '[name]-[hash]',
    chunkNames: '[hash]',
    bundle: true,
    splitting: true,
    format: 'esm',
    minify: true,
    legalComments: 'none',
    jsx: 'automatic',
    // The browsers that the other pages are built for.
    target: ['chrome111', 'edge111', 'firefox111', 'safari16.4'],
    define: { 'process.env.NODE_ENV': '"production"' },
    metafile: true,
    plugins: [inOrder],
  });
  const address = (file) => `/_next/${path.relative(dist, file)}`;
  const [begins] = Object.entries(metafile.outputs).find(([, o]) => o.entryPoint === 'app/stall/start.tsx');
  const first = new Set([begins]);
  for (const file of first) for (const i of metafile.outputs[file].imports) if (i.kind === 'import-statement') first.add(i.path);
  first.delete(begins);
  writeFileSync(path.join(dist, 'stall-bundle.json'), JSON.stringify({ script: address(begins), withIt: [...first].map(address) }));
}

const SCRIPT = /<script\b[^>]*>[\s\S]*?<\/script>|<link\b[^>]*\bas="script"[^>]*>/g;
const ITS_OWN = /\b(?:src|href)="\/(?:sheet\.js|stall\.js|_next\/static\/stall\/[^"]+)"/;
/**
 * Takes the other pages' scripts off the Stall's page as the build wrote it: the Stall begins itself.
 * @throws where the page is not as it is taken to be: a build with it would stand still at “Opening”
 */
export function leaveOnlyItsOwn(dist) {
  const file = path.join(dist, 'server', 'app', 'stall.html');
  const page = readFileSync(file, 'utf8').replace(SCRIPT, (script) => (ITS_OWN.test(script) ? script : ''));
  if (!/<script type="module" src="\/_next\/static\/stall\/start-/.test(page) || page.includes('__next_f'))
    throw new Error(`${file} is not as the Stall needs it`);
  writeFileSync(file, page);
}
