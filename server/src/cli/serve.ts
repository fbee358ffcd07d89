import { closeSync, openSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { isIPv4, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pino, { type Logger } from 'pino';
import { session, type Following, type Running } from '@hovlix/core/conduct';
import { NO_PLAYER, type SerialPlace, type Status } from '@hovlix/core/connect';
import { AT_REST, keptLog, logText, reduced } from '@hovlix/core/live';
import { rigInUse, type Show } from '@hovlix/core/show';
import { ARTNET_PORT, SACN_PORT } from '@hovlix/core/wire';
import { now } from '../clock';
import { KEEPS_LINES, ownDoor, phonesDoor } from '../http/doors';
import { isFrom, isLocal } from '../http/origin';
import { pairing } from '../http/pairing';
import { phones } from '../http/phones';
import { site, type Desk } from '../http/site';
import { cidOfThisMachine } from '../connect/cid';
import { homeFolder } from '../connect/home';
import { networksOfThisComputer } from '../connect/networks';
import { serialPorts } from '../connect/serial-ports';
import { connectionsStore } from '../connect/store';
import { followGear } from '../gear/gear';
import type { StandInPort } from '../gear/ports';
import { followOsc } from '../osc/osc';
import { followPlayer } from '../player/player';
import { followTimetable, wallNow } from '../timetable/timetable';
import type { InputPorts } from '../input/input';
import { parseTarget, TARGETS, type Target } from '../output/target';
import { startThreads } from '../output/thread';
import { standInPorts, startStandIns, type StandIns } from '../stand-ins/child';
import { startHub } from '../ws/hub';
import { GUARDED, SERVING, underGuard } from '../guard';
import { eveningLog } from '../keep/evening-log';
import { holds } from '../keep/hold';
import { night } from '../keep/night';
import { runningCopy } from '../keep/running';
import { troubles } from '../keep/troubles';
import { soundStore } from '../sounds';
import { bundleFrom } from './files';
import { numberOf, options, UsageError } from './usage';

export const SERVE_HELP = `Usage: hovlix serve [--port N] [--demo] [--to TARGET]... [--lan] [--log FILE] [--home FOLDER]

Serves Hovlix on this computer, conducts, and sends DMX. Prints one address. Goes on with the show it conducted last.
  --port N       where to listen on 127.0.0.1 (4747)
  --demo         opens “Friday at the Boathouse” at first, and starts the stand-ins: a DMX node, two USB cables,
                 a foot controller and a DJ player
  --to TARGET    where universes without an output go at first: ${TARGETS}
                 (sacn:multicast; with --demo the stand-in, sacn:127.0.0.1). Connect in the app changes it.
  --lan          opens to phones at once; without, a switch in Connect does
  --lan-at ADDR  opens to phones under this address only
  --input-port N where sACN of others is heard, and Art-Net on the port after it (5568, 6454): for a second Hovlix
                 on one computer, as the system gives a packet to one of them only
  --log FILE     writes down all that is pressed, for hovlix render --log
  --home FOLDER  where the show, outputs and joined phones are kept (~/.hovlix, or HOVLIX_HOME)`;

const VERSION = '0.1.0';

/** Networks and cables come and go: so often they are looked for. Asking for cables starts a program of the system. */
const LOOK_EVERY_MS = 1000;
const CABLES_EVERY_MS = 3000;

const WORDS = {
  sameFolder: (home: string) =>
    `Another Hovlix on this computer keeps its show in ${home}, too: what one keeps, the other writes over. Start one of them with --home and a folder of its own.`,
  samePorts: ({ sacn, artnet }: InputPorts) =>
    `Another Hovlix on this computer hears others at the same ports, ${sacn} and ${artnet}: each packet reaches one of the two. Start one of them with --input-port.`,
};

/** Where the built command lies: server/dist. */
const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export async function serveCommand(args: string[]): Promise<void> {
  const { values } = options({
    args,
    options: {
      port: { type: 'string' },
      demo: { type: 'boolean', default: false },
      to: { type: 'string', multiple: true },
      lan: { type: 'boolean', default: false },
      'lan-at': { type: 'string' },
      'input-port': { type: 'string' },
      log: { type: 'string' },
      home: { type: 'string' },
    },
  });
  const port = numberOf(values.port, 'port', 0, 65535) ?? 4747;
  const targets = (values.to ?? [values.demo ? 'sacn:127.0.0.1' : 'sacn:multicast']).map(targetOf);
  const at = values['lan-at'];
  if (at !== undefined && !isIPv4(at)) throw new UsageError(`--lan-at takes an address like 192.168.1.5, got: ${at}`);
  const inputPort = numberOf(values['input-port'], 'input-port', 1024, 65534);
  if (values.log !== undefined) mustBeWritable(values.log);
  const home = homeFolder(values.home);
  const log = pino({ level: process.env['HOVLIX_LOG'] ?? 'warn' });
  await serve({
    port,
    demo: values.demo,
    targets,
    lan: values.lan,
    ...(at ? { lanAt: at } : {}),
    ...(inputPort === undefined ? {} : { inputPorts: { sacn: inputPort, artnet: inputPort + 1 } }),
    home,
    log,
    ...(values.log === undefined ? {} : { logFile: values.log }),
  });
}

type Serving = {
  readonly port: number;
  readonly demo: boolean;
  readonly targets: readonly Target[];
  readonly lan: boolean;
  readonly lanAt?: string;
  readonly inputPorts?: InputPorts;
  readonly home: string;
  readonly log: Logger;
  /** Where all that is pressed is written down. */
  readonly logFile?: string;
};

async function serve({ port, demo, targets, lan, lanAt, inputPorts, home, log, logFile }: Serving): Promise<void> {
  const again = process.env[GUARDED] === 'again';
  const wrong = troubles((why) => log.warn(why));
  const about = (what: string) => (why: string | null) => wrong.say(what, why);
  const kept = (name: string) => join(home, demo ? `${name}-demo.json` : `${name}.json`);
  const connections = connectionsStore(kept('connect'), about('connections'), wrong.tell);
  let networks = networksOfThisComputer();
  let cables: readonly SerialPlace[] = [];
  const threads = startThreads({
    program: (name) => new URL(`./${name}.mjs`, import.meta.url),
    cid: cidOfThisMachine(home),
    connections: connections.connections(),
    networks,
    inputPorts,
    resume: () => {
      const show = shared.shown();
      return { show, sounds: show ? sounds.of(show) : [], state: shared.conductor.state() };
    },
    levels: (universe, levels, merged) => hub.showLevels(universe, levels, merged),
    failed: (thread, error) => log.error({ err: error }, `the ${thread} stopped`),
  });
  connections.onChange((next) => threads.follow(next));
  const sounds = soundStore(join(home, 'sounds'), (fresh) => {
    fresh.forEach(({ hash }) => told.add(hash));
    threads.tellOutput({ type: 'sounds', sounds: fresh });
  });
  /** What the output was told, or what is not here: then a screen brings it, and that is told. */
  const told = new Set<string>();
  const tellSounds = async (show: Show): Promise<void> => {
    const wanted = new Set(show.songs.flatMap(({ music }) => (music && !told.has(music.hash) ? [music.hash] : [])));
    wanted.forEach((hash) => told.add(hash));
    const found: { readonly hash: string; readonly bytes: Uint8Array }[] = [];
    // One file after the other, and screens are heard in between: three hundred songs have 70 MB.
    for (const hash of wanted) {
      const bytes = await sounds.read(hash);
      if (bytes) found.push({ hash, bytes });
    }
    if (found.length > 0) threads.tellOutput({ type: 'sounds', sounds: found });
  };
  const copy = runningCopy(kept('show'), about('show'), wrong.tell);
  const tonight = night(kept('night'), now, about('night'), wrong.tell);
  const pressed = keptLog(AT_REST);
  const evening = logFile === undefined ? undefined : eveningLog(logFile, about('log'));
  const following: Following = {
    show(show) {
      void tellSounds(show);
      threads.tellOutput({ type: 'show', show });
      connections.reach(universesOf(show), targets);
    },
    changed(ops, show) {
      if (ops.some(({ path }) => path[0] === 'songs')) void tellSounds(show);
      threads.tellOutput({ type: 'edit', ops });
      if (ops.some(({ path }) => path[0] === 'rigs' || path[0] === 'rig'))
        connections.reach(universesOf(show), targets);
    },
    entry(entry) {
      threads.tellOutput({ type: 'entry', entry });
      evening?.write(entry, shared.conductor.state());
      pressed.add(entry);
      keepNight();
    },
    keep: copy.keep,
  };
  let last = copy.read();
  let demoShow: Running | undefined;
  // A night that goes on has the demo's sounds already, and no time to lose.
  if (demo && !(last && again)) {
    const bundle = bundleFrom(here('../../demo/boathouse.hovlix'));
    for (const [hash, { envelopes }] of bundle.music)
      if (envelopes && !sounds.bytes(hash)) sounds.put(hash, Uint8Array.from(envelopes));
    demoShow = { show: bundle.show, chain: bundle.chain };
    // Nobody has changed it: the demo that this Hovlix comes with is the newer one.
    if (last?.show.id === bundle.show.id && last.chain.length === 1) last = undefined;
  }
  const running = last ?? demoShow;
  if (running && !last) copy.keep(running);
  const before = running && tonight.read();
  const lastState = before?.state ?? AT_REST;
  // What was pressed in the last moment may be in the log and nowhere else.
  const live = (before?.goesOn ? (evening?.after(lastState) ?? []) : []).reduce(reduced, lastState);
  evening?.open(live, before?.goesOn === true);
  pressed.begin(live);
  threads.tellOutput({ type: 'state', state: live });
  const shared = session(now, following, running, live);
  const asKept = () => ({ state: shared.conductor.state(), phones: door.isOpen() });
  const keepNight = () => tonight.keep(asKept);

  let standIns: StandIns | undefined;
  let stepped: (bytes: readonly number[]) => void = () => undefined;
  const footController: StandInPort = {
    name: 'Foot controller stand-in',
    hear: (take) => void (stepped = take),
    send: (bytes) => standIns?.sendToFoot(bytes),
  };
  const known = pairing(join(home, 'devices.json'), Date.now, about('devices'), wrong.tell);
  const hub = startHub(
    shared,
    connections,
    (universes) => threads.tellOutput({ type: 'watch', universes }),
    (screen) => gear.learn(screen),
    (own) => status(own),
  );
  const gear = followGear({
    connections,
    session: shared,
    hub,
    say: about('midi'),
    standIns: demo ? [footController] : [],
  });
  const player = followPlayer({ connections, session: shared, hub, say: about('player') });
  const osc = followOsc({ connections, ...gear.osc });
  const timetable = followTimetable({
    connections,
    session: shared,
    host: gear.byTheClock,
    wall: wallNow,
    file: kept('timetable'),
    say: about('timetable'),
  });
  connections.onChange((next) => standIns?.playerPort((next.player ?? NO_PLAYER).port));
  const status = (host: boolean): Status => ({
    version: VERSION,
    host,
    screens: hub.screens(),
    troubles: [...wrong.list()],
    connections: connections.connections(),
    output: threads.output(),
    input: threads.input(),
    node: standIns?.report() ?? null,
    player: player.report(),
    midi: gear.report(),
    osc: osc.report(),
    timetable: timetable.report(),
    networks,
    serialPorts: [...cables, ...(standIns?.cables() ?? [])],
    phones: {
      open: door.isOpen(),
      addresses: [...door.addresses()],
      code: host && door.isOpen() ? known.code().code : null,
      codeUntil: host && door.isOpen() ? known.code().until : null,
      grant: known.grant(),
      knocks: host ? [...known.knocks()] : [],
      devices: known.devices().map((device) => ({ ...device, screens: hub.screens(device.id) })),
      problem: door.problem(),
    },
  });
  const desk: Desk = {
    status,
    sounds,
    log: () => logText(pressed.log()),
    frames: async (universe, protocol, since) => standIns?.frames(universe, protocol, since) ?? [],
    decks: async (deck, command) => standIns?.decks(deck, command) ?? [],
    foot: async (bytes) => standIns?.foot(bytes) ?? [],
    openToPhones: async (open) => {
      if (open) known.renew();
      await door.open(open);
      keepNight();
    },
    renewCode: () => known.renew(),
    grantTo: (may) => known.grantTo(may),
    setRight(device, may) {
      const there = known.setRight(device, may);
      if (there) hub.tellRight(device, may);
      return there;
    },
    answer: (knock, letIn) => known.answer(knock, letIn),
    sendAway(device) {
      const gone = known.revoke(device);
      hub.sendAway(device);
      return gone;
    },
  };
  const folder = here('../../app/dist');
  const server = createServer(KEEPS_LINES, site(folder, desk, ownDoor));
  hub.attach(server, ({ headers }) => (isLocal(headers.host, headers.origin) ? { device: null } : undefined));
  const door = phones({
    port: () => (server.address() as AddressInfo | null)?.port ?? port,
    serve: site(
      folder,
      desk,
      phonesDoor(known, () => door.hosts(), here('../join')),
    ),
    attach: (one) =>
      hub.attach(one, ({ headers }) => {
        const device = isFrom(door.hosts(), headers.host, headers.origin) && known.deviceOf(headers.cookie);
        return device ? { device } : undefined;
      }),
    ...(lanAt ? { only: [lanAt] } : {}),
  });
  const look = async () => {
    const seen = networksOfThisComputer();
    if (JSON.stringify(seen) !== JSON.stringify(networks)) {
      networks = seen;
      threads.see(networks);
    }
    await door.see(networks);
  };
  const lookForCables = async () => {
    cables = await serialPorts();
  };
  const inputs = inputPorts ?? { sacn: SACN_PORT, artnet: ARTNET_PORT };
  /** A second Hovlix on this computer: what it takes from this one, and what keeps them apart. */
  const lookForOthers = () => {
    about('home')(holds(join(home, demo ? 'show-demo.lock' : 'show.lock')) ? null : WORDS.sameFolder(home));
    // Only who listens for others misses what the other Hovlix is given.
    const listens = connections.connections().inputs.length > 0;
    const lock = join(tmpdir(), `hovlix-input-${inputs.sacn}.lock`);
    about('inputs')(holds(lock) || !listens ? null : WORDS.samePorts(inputs));
  };

  try {
    await listening(server, port);
  } catch (error) {
    await threads.stop();
    throw error;
  }
  if (demo)
    standIns = startStandIns(
      here('./stand-ins.mjs'),
      home,
      standInPorts(connections.connections()),
      (why) => log.warn(why),
      (bytes) => stepped(bytes),
    );
  await Promise.all([look(), lookForCables()]);
  lookForOthers();
  const looking = [
    setInterval(() => void look(), LOOK_EVERY_MS),
    setInterval(() => void lookForCables(), CABLES_EVERY_MS),
    setInterval(lookForOthers, CABLES_EVERY_MS),
  ];
  if (lan || (again && before?.phones)) await desk.openToPhones(true);
  process.send?.(SERVING);
  const ending = process.send ? underGuard() : () => undefined;
  if (!again) process.stdout.write(`Hovlix: http://localhost:${(server.address() as AddressInfo).port}\n`);

  // Asked twice, as by Ctrl-C and by the guard, it still says goodbye on all wires.
  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => resolve());
  });
  ending();
  looking.forEach(clearInterval);
  player.close();
  osc.close();
  timetable.close();
  gear.close();
  door.close();
  hub.close();
  server.close();
  server.closeAllConnections();
  copy.close();
  tonight.close(asKept());
  await threads.stop();
  standIns?.stop();
}

function listening(server: Server, port: number): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const taken = error.code === 'EADDRINUSE';
      reject(new Error(taken ? `Port ${port} is taken. Is Hovlix running already? Else: --port N` : error.message));
    });
    server.listen(port, '127.0.0.1', resolve);
  });
}

function universesOf(show: Show): number[] {
  return [...new Set(rigInUse(show).fixtures.map(({ universe }) => universe as number))].sort((a, b) => a - b);
}

function targetOf(text: string): Target {
  const target = parseTarget(text);
  if (!target) throw new UsageError(`--to takes ${TARGETS}, got: ${text}`);
  return target;
}

/** A disk that is full is no reason not to serve: it is said, and tried again. */
function mustBeWritable(file: string): void {
  try {
    closeSync(openSync(file, 'a', 0o600));
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== 'ENOSPC') throw new UsageError(`--log: ${file} cannot be written (${code})`);
  }
}
