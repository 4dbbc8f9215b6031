// Copies what the browser needs from node_modules into wwwroot/lib. Run by the build.
import { cpSync, mkdirSync, rmSync, utimesSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const lib = join(root, 'src/MellowRivet.Web/wwwroot/lib');
const files = {
  'htmx.org/dist/htmx.min.js': 'htmx.min.js',
  '@fontsource/b612/files/b612-latin-400-normal.woff2': 'fonts/b612-400.woff2',
  '@fontsource/b612/files/b612-latin-700-normal.woff2': 'fonts/b612-700.woff2',
  '@fontsource/b612-mono/files/b612-mono-latin-400-normal.woff2': 'fonts/b612-mono-400.woff2',
  '@fontsource/b612-mono/files/b612-mono-latin-700-normal.woff2': 'fonts/b612-mono-700.woff2',
  '@fontsource/b612/LICENSE': 'fonts/LICENSE.txt',
};

rmSync(lib, { recursive: true, force: true });
for (const [from, to] of Object.entries(files)) {
  mkdirSync(dirname(join(lib, to)), { recursive: true });
  cpSync(join(root, 'node_modules', from), join(lib, to));
}
// The build takes this file's time for when the copying was done.
utimesSync(join(lib, 'htmx.min.js'), new Date(), new Date());
