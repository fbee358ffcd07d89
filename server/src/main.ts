// The `hovlix` command.

import { ANALYSE_HELP, analyseCommand } from './cli/analyse';
import { MIDI_HELP, midiCommand } from './cli/midi';
import { NODE_HELP, nodeCommand, SERIAL_HELP, serialCommand } from './cli/node';
import { OSC_HELP, oscCommand } from './cli/osc';
import { PLAY_HELP, playCommand } from './cli/play';
import { RENDER_HELP, renderCommand } from './cli/render';
import { SERVE_HELP, serveCommand } from './cli/serve';
import { UsageError } from './cli/usage';
import { guarded, inReserve, roleOfThis } from './guard';

const COMMANDS: Readonly<Record<string, { readonly help: string; readonly run: (args: string[]) => Promise<void> }>> = {
  serve: { help: SERVE_HELP, run: serveCommand },
  analyse: { help: ANALYSE_HELP, run: analyseCommand },
  render: { help: RENDER_HELP, run: renderCommand },
  midi: { help: MIDI_HELP, run: midiCommand },
  play: { help: PLAY_HELP, run: playCommand },
  osc: { help: OSC_HELP, run: oscCommand },
  node: { help: NODE_HELP, run: nodeCommand },
  serial: { help: SERIAL_HELP, run: serialCommand },
};

const HELP = `Usage: hovlix COMMAND

  serve     the app and the conductor, on this computer
  analyse   tempo, beats, bars and sections of music files, as JSON and MIDI files
  render    a song's light to a PCAP or CSV file
  midi      a song to a MIDI file, or what one holds into a song
  play      a song's light to the network, in real time
  osc       one OSC message, to try what it does
  node      the DMX node stand-in: says what arrives
  serial    the serial stand-in: a USB cable that says what arrives

hovlix COMMAND --help says more.`;

async function main([name, ...args]: string[]): Promise<void> {
  if (name === undefined || name === '--help' || name === '-h') return void console.log(HELP);
  const command = COMMANDS[name];
  if (!command) throw new UsageError(`There is no command “${name}”. Try: hovlix --help`);
  if (args.includes('--help') || args.includes('-h')) return void console.log(command.help);
  // What is served is watched over; everything else ends when it is done.
  const as = roleOfThis();
  if (name === 'serve' && (as === undefined || as === 'guard'))
    process.exitCode = await guarded(process.argv[1]!, process.argv.slice(2), as === 'guard');
  else {
    if (as === 'spare') await inReserve();
    await command.run(args);
  }
}

main(process.argv.slice(2)).then(
  () => process.exit(process.exitCode ?? 0),
  (error: Error) => {
    process.stderr.write(`hovlix: ${error.message}\n`);
    process.exit(error instanceof UsageError ? 2 : 1);
  },
);
