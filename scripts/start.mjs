// ./start: install if the lock file changed, build what changed, then serve. Says on stdout one address alone, and on stderr
// what takes long.

import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
/** For `./test`: no more than to install, or to install and build. */
const INSTALL = '--install-only';
const BUILD = '--build-only';
const only = process.argv.includes(INSTALL) || process.argv.includes(BUILD);
const args = process.argv.slice(2).filter((arg) => arg !== INSTALL && arg !== BUILD);

const tell = (line) => process.stderr.write(`Hovlix: ${line}\n`);

function stop(line) {
  tell(line);
  process.exit(1);
}

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19))
  stop(`Node.js 20.19 or later is needed; this is ${process.versions.node}.`);

const serves = !only && !args.includes('--help');
if (serves) await portMustBeFree();
const { waited, over } = await alone();
// Whoever was waited for may serve by now.
if (serves && waited) await portMustBeFree();
install();
if (process.argv.includes(INSTALL)) {
  over();
  process.exit(0);
}
const built = spawnSync(process.execPath, ['scripts/build.mjs'], { cwd: root, stdio: 'inherit' });
over();
if (built.status !== 0) process.exit(built.status ?? 1);
if (!only) serve();

/** One start at a time installs and builds in a folder: two would write the same files. */
async function alone() {
  const file = join(root, '.cache', 'building');
  const by = () => {
    try {
      return Number(readFileSync(file, 'utf8'));
    } catch {
      return 0;
    }
  };
  const over = () => by() === process.pid && rmSync(file, { force: true });
  mkdirSync(join(root, '.cache'), { recursive: true });
  for (let looks = 0; ; looks++) {
    try {
      writeFileSync(file, String(process.pid), { flag: 'wx' });
      return { waited: looks > 0, over };
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
    }
    // A start that finds nothing to do is over in a moment.
    if (looks === 4) tell('another start installs or builds in this folder. This one goes on when that is done.');
    await wait(500);
    // What a start left behind that was ended counts for nothing.
    const other = by();
    if (other > 0 && !isAlive(other)) rmSync(file, { force: true });
  }
}

function isAlive(pid) {
  try {
    return process.kill(pid, 0);
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/** Found out before minutes of building, not after. */
function portMustBeFree() {
  const at = args.findIndex((arg) => arg === '--port');
  const port = at >= 0 ? Number(args[at + 1]) : Number(args.find((arg) => arg.startsWith('--port='))?.slice(7) ?? 4747);
  // The command itself says what is wrong with a port that is none.
  if (!Number.isInteger(port) || port < 1 || port > 65535) return undefined;
  return new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', (error) =>
      stop(
        error.code === 'EADDRINUSE'
          ? `Port ${port} is taken. Is Hovlix running already? Else: ./start --port N`
          : error.message,
      ),
    );
    probe.listen(port, '127.0.0.1', () => probe.close(resolve));
  });
}

function install() {
  const stamp = join(root, 'node_modules', '.hovlix-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  tell(existsSync(stamp) ? 'fetching what is new.' : 'fetching its parts. The first start takes some minutes.');
  const npm = spawnSync('npm', ['ci', '--ignore-scripts', '--no-fund', '--no-audit', '--loglevel=error'], {
    cwd: root,
    encoding: 'utf8',
    shell: process.platform === 'win32',
  });
  if (npm.status !== 0) {
    const said = `${npm.stdout ?? ''}${npm.stderr ?? ''}${npm.error ?? ''}`;
    mkdirSync(join(root, '.cache'), { recursive: true });
    writeFileSync(join(root, '.cache', 'install.log'), said);
    const offline = /ENOTFOUND|EAI_AGAIN|ECONNREFUSED|ETIMEDOUT|ENETUNREACH|network/i.test(said);
    stop(
      offline
        ? 'the first start needs the internet to fetch its parts, and it cannot be reached.'
        : 'installing failed; .cache/install.log says why.',
    );
  }
  writeFileSync(stamp, wanted);
}

function serve() {
  const child = spawn(process.execPath, ['server/bin/hovlix.mjs', 'serve', '--demo', ...args], {
    cwd: root,
    stdio: 'inherit',
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 0));
}
