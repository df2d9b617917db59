import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { isRoot, root, run } from './run.mjs';

const postgresBins = () =>
  (existsSync('/usr/lib/postgresql')
    ? readdirSync('/usr/lib/postgresql').map((v) => `/usr/lib/postgresql/${v}/bin`)
    : []
  ).filter((bin) => existsSync(`${bin}/initdb`));

/** Folder of PostgreSQL's programs; installs Debian's package where that is allowed. */
export function postgresBin() {
  if (postgresBins().length === 0) installDebian(['postgresql']);
  return postgresBins().sort().at(-1);
}

/** Debian's Chromium, for the tests. */
export function chromium() {
  if (!existsSync('/usr/bin/chromium')) installDebian(['chromium']);
  return '/usr/bin/chromium';
}

function installDebian(packages) {
  if (!isRoot)
    throw new Error(
      `These Debian packages are missing: ${packages.join(', ')}.\nInstall them and start again:\n  sudo apt-get install ${packages.join(' ')}`,
    );
  console.log(`Installing Debian packages: ${packages.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update'], { env });
  run('apt-get', ['install', '-y', '--no-install-recommends', ...packages], { env });
}

/** npm packages as the lock file says, when they are not there yet or the lock file has changed. */
export function nodePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const mark = join(root, 'node_modules', '.tactron-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  if (!(existsSync(join(root, 'node_modules')) && lockMatches())) {
    console.log('Installing npm packages …');
    run('npm', ['ci', '--no-audit', '--no-fund'], {
      env: { ...process.env, PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1' },
    });
  }
  writeFileSync(mark, lock);
}

function lockMatches() {
  const hidden = join(root, 'node_modules', '.package-lock.json');
  if (!existsSync(hidden)) return false;
  const wanted = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8')).packages;
  const there = JSON.parse(readFileSync(hidden, 'utf8')).packages;
  return Object.entries(wanted).every(
    ([name, entry]) =>
      name === '' ||
      entry.optional ||
      entry.link ||
      !name.startsWith('node_modules') ||
      there[name]?.version === entry.version,
  );
}

/** Newest change below the folders a build is made from, and their file count. */
function stampOf(folders) {
  let newest = 0;
  let files = 0;
  const walk = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      if (['node_modules', 'dist', '.angular'].includes(entry.name)) continue;
      const path = join(folder, entry.name);
      if (entry.isDirectory()) walk(path);
      else {
        files++;
        newest = Math.max(newest, statSync(path).mtimeMs);
      }
    }
  };
  for (const folder of folders) walk(join(root, folder));
  return `${newest} ${files}`;
}

/** Builds core, server, command line and web when their sources changed since the last build. */
export function buildAll({ force = false } = {}) {
  mkdirSync(join(root, '.data'), { recursive: true, mode: 0o711 });
  const parts = [
    {
      name: 'core, server and command line',
      folders: ['core', 'server/src', 'cli/src'],
      out: 'server/dist/main.js',
      build: () =>
        run(process.execPath, ['node_modules/typescript/bin/tsc', '-b', 'core', 'server', 'cli']),
    },
    {
      name: 'web application',
      folders: ['core', 'web'],
      out: 'web/dist/browser/index.html',
      build: () =>
        run(process.execPath, ['node_modules/@angular/cli/bin/ng.js', 'build', 'web'], {
          env: { ...process.env, NG_CLI_ANALYTICS: 'false', CI: '1' },
        }),
    },
  ];
  for (const part of parts) {
    const mark = join(root, '.data', `built-${part.out.split('/')[0]}`);
    const stamp = stampOf(part.folders);
    if (
      !force &&
      existsSync(join(root, part.out)) &&
      existsSync(mark) &&
      readFileSync(mark, 'utf8') === stamp
    )
      continue;
    console.log(`Building ${part.name} …`);
    part.build();
    writeFileSync(mark, stamp);
  }
}
