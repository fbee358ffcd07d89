import { createSocket } from 'node:dgram';
import { isIPv4 } from 'node:net';
import { NO_OSC } from '@hovlix/core/connect';
import { OscAddress } from '@hovlix/core/gig';
import { encodeOsc, type OscValue } from '@hovlix/core/wire';
import { numberOf, options, UsageError } from './usage';

export const OSC_HELP = `Usage: hovlix osc ADDRESS [VALUE]... [--to HOST] [--port N]

Sends one OSC message, as a tablet or a program for cues would: hovlix osc /hovlix/look "Harbour blue"
Numbers are sent as such (1 as a whole one, 0.5 and 1.0 as a float), true and false too, anything else as text.
  --to HOST  the computer that conducts (127.0.0.1)
  --port N   where Hovlix listens to OSC there (${NO_OSC.port})`;

export async function oscCommand(args: string[]): Promise<void> {
  const { values, positionals } = options({
    args,
    allowPositionals: true,
    options: { to: { type: 'string' }, port: { type: 'string' } },
  });
  const [address, ...texts] = positionals;
  if (address === undefined) throw new UsageError('An address is missing. Try: hovlix osc /hovlix/go');
  const read = OscAddress.safeParse(address);
  if (!read.success) throw new UsageError(`${read.error.issues[0]!.message}, got: ${address}`);
  const host = values.to ?? '127.0.0.1';
  if (!isIPv4(host)) throw new UsageError(`--to takes an address like 10.0.0.20, got: ${host}`);
  const port = numberOf(values.port, 'port', 1, 65535) ?? NO_OSC.port;
  const typed = texts.map(argumentOf);
  const types = typed.map(([type]) => type).join('');
  const bytes = encodeOsc(
    read.data,
    types,
    typed.map(([, value]) => value),
  );
  const socket = createSocket('udp4');
  await new Promise<void>((resolve, reject) =>
    socket.send(bytes, port, host, (error) => (error ? reject(error) : resolve())),
  );
  socket.close();
}

function argumentOf(text: string): readonly [type: string, value: OscValue] {
  if (/^-?\d{1,9}$/.test(text)) return ['i', Number(text)];
  if (/^-?\d+\.\d+$/.test(text)) return ['f', Number(text)];
  if (text === 'true') return ['T', true];
  if (text === 'false') return ['F', false];
  return ['s', text];
}
