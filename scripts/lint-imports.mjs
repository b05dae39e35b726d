// Holds the directions that imports may take: web, cli → core → kernels; quillon stands alone; science touches no store.
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/** What the files under a folder may not import, by pattern of the import as written or resolved. */
export const RULES = [
  { under: 'packages/kernels/src', never: [/^@lithagon\//, /^node:/], why: 'kernels stand below everything' },
  {
    under: 'packages/quillon/src',
    never: [/^@lithagon\//, /packages\/core/, /packages\/kernels/],
    why: 'the demo earth judges the core and shares no code with it',
  },
  {
    under: 'packages/core/src',
    never: [/^@lithagon\/(web|cli|quillon)/, /^react/, /^astro/, /^idb$/, /^three/],
    why: 'the core runs without a screen',
  },
  {
    under: 'packages/core/src/numerics',
    never: [/src\/(formats|storage|steps|trail|project|files|wells|faults|attributes|horizons|velocity|volumes)\//],
    why: 'numerics knows nothing of geoscience',
  },
  {
    under: 'packages/core/src/earth',
    never: [/src\/(formats|storage|steps|trail|project|files|wells|faults|attributes|numerics)\//],
    why: 'earth is a leaf that all may use',
  },
  ...[
    'attributes',
    'conditioning',
    'correlation',
    'crossplot',
    'facies',
    'faults',
    'horizons',
    'rocks',
    'tie',
    'velocity',
    'volumes',
    'wells',
  ].map((room) => ({
    under: `packages/core/src/${room}`,
    never: [/src\/(storage|trail|project|files|steps|engine|kinds)\//],
    why: 'science never touches a store, and knows of no step',
  })),
  {
    under: 'packages/core/src/formats',
    never: [/src\/(storage|trail|project|files|steps|engine|kinds)\//],
    why: 'a format is bytes and what they say, wherever that is kept',
  },
  {
    under: 'packages/core/src/storage',
    never: [/src\/(trail|project|files|steps|engine|kinds)\//],
    why: 'a store keeps what it is given',
  },
  {
    under: 'packages/core/src/engine',
    never: [/src\/(trail|project|files|steps|kinds)\//],
    why: 'the engine works out whatever a step declares',
    but: /engine\/thread\.ts$/,
  },
  {
    under: 'packages/core/src/project',
    never: [/src\/(trail|steps)\//],
    why: 'what a project holds does not depend on how it came to be',
  },
  {
    under: 'packages/core/src/kinds',
    never: [/src\/(trail|steps)\//],
    why: 'a kind is known by itself',
  },
  {
    under: 'apps/web/src/state',
    never: [/src\/(views|workbench|kinds|actions|params|picture)\//],
    why: 'state is drawn, and draws nothing',
  },
  { under: 'apps/web/src/views', never: [/src\/workbench\//], why: 'a view knows nothing of the desk' },
  { under: 'apps/cli/src', never: [/^@lithagon\/web/, /^react/], why: 'the command line has no screen' },
  {
    under: 'apps/web/src',
    never: [/^@lithagon\/(quillon|cli)/, /^@lithagon\/core\/node/, /^node:/],
    why: 'the web application runs in a browser',
  },
];

function* sources(dir) {
  for (const entry of readdirSync(dir, { withFileTypes: true })) {
    const path = join(dir, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/\.(ts|tsx|mts)$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name)) yield path;
  }
}

/** Imports that go the wrong way, as sentences. */
export function wrongImports(files) {
  const out = [];
  for (const { path, text } of files)
    for (const [, target] of text.matchAll(/(?:from\s+|import\s*\(?\s*)['"]([^'"]+)['"]/g)) {
      const resolved = target.startsWith('.') ? join(path, '..', target).split(sep).join('/') : target;
      for (const rule of RULES)
        if (
          path.startsWith(`${rule.under}/`) &&
          !rule.but?.test(path) &&
          rule.never.some((p) => p.test(target.startsWith('.') ? resolved : target))
        )
          out.push(`${path} imports ${target}: ${rule.why}`);
    }
  return out;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const files = [];
  for (const place of ['packages', 'apps'])
    for (const path of sources(join(root, place)))
      if (!/[\\/](node_modules|dist|generated)[\\/]/.test(path))
        files.push({ path: relative(root, path).split(sep).join('/'), text: readFileSync(path, 'utf8') });
  const wrong = wrongImports(files);
  for (const sentence of wrong) console.error(sentence);
  if (wrong.length > 0) process.exit(1);
  console.log(`${files.length} files import in the right directions`);
}
