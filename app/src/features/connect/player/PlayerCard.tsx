// What is heard of a DJ player, which songs its tracks are, and whether songs go by it.

import { NO_OSC, NO_PLAYER, type PlayerReport, type Status } from '@hovlix/core/connect';
import { likelySongs } from '@hovlix/core/likely';
import { id } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useConnections, useHovlix, usePlays, useShow } from '../../../host/hovlix';
import { Card, State, type Tone } from '../../../ui/card';
import { Choose, Typed } from '../../../ui/form';
import { ButtonLink } from '../../../ui/links';
import { Button, Column, Quiet } from '../../../ui/pieces';
import { Switch } from '../../../ui/Switch';
import { clash, portBeside } from '../port';
import { artistAndTitle, deckName, deckWords, PLAYER, WORDS } from './words';

type Deck = PlayerReport['decks'][number];

export function PlayerCard({ status }: { readonly status: Status }) {
  const app = useHovlix();
  const player = useConnections((state) => state.connections?.player) ?? NO_PLAYER;
  const osc = useConnections((state) => state.connections?.osc) ?? NO_OSC;
  const set = (change: Partial<typeof player>) =>
    app.connections.make({ type: 'set-player', player: { ...player, ...change } });
  return (
    <Card
      title={PLAYER.title}
      action={
        <Button label={PLAYER.listen} pressed={player.on} onPress={() => set({ on: !player.on })}>
          {player.on ? WORDS.listening : WORDS.listen}
        </Button>
      }
    >
      {!player.on && <Quiet>{PLAYER.off}</Quiet>}
      {player.on && status.player && (
        <>
          <Heard report={status.player} port={player.port} clashes={clash(osc, player.port)} />
          <Switch label={PLAYER.follows} on={player.follows} onChange={(follows) => set({ follows })} />
          <UnknownTracks />
          <Typed
            label={PLAYER.port}
            patient
            hint={PLAYER.portHint}
            numeric
            value={player.port}
            read={portBeside(osc, PLAYER.portOfOsc)}
            onChange={(port) => set({ port })}
          />
        </>
      )}
      {status.node && <StandInLink />}
    </Card>
  );
}

type HeardProps = {
  readonly report: PlayerReport;
  readonly port: number;
  /** OSC for presses is listened to at the same port. */
  readonly clashes: boolean;
};

function Heard({ report, port, clashes }: HeardProps) {
  return (
    <Column gap={12}>
      {report.deaf !== null && <State colour="$fault" word={clashes ? PLAYER.portOfOsc : report.deaf} />}
      {report.deaf === null && report.decks.length === 0 && <Quiet>{PLAYER.silent(port)}</Quiet>}
      {report.decks.map((deck) => (
        <DeckLine key={`${deck.from} ${deck.deck}`} deck={deck} name={deckName(deck, report.decks)} />
      ))}
      {report.bad > 0 && <Quiet>{PLAYER.bad(report.bad, report.lastBad)}</Quiet>}
    </Column>
  );
}

function DeckLine({ deck, name }: { readonly deck: Deck; readonly name: string }) {
  const { track } = deck;
  const tone: Tone = deck.state === 'lost' ? '$fault' : deck.leads ? '$live' : '$faint';
  return (
    <Column gap={8}>
      <State colour={tone} word={WORDS.deck(name, track ? artistAndTitle(track) : 'empty')}>
        {track && <Quiet>{deckWords(deck)}</Quiet>}
      </State>
      {track && <SongOf deck={deck} name={name} track={track} />}
    </Column>
  );
}

const NONE = 'none';
const NOT_YET = 'not-yet';

/** Which song a track is: what is chosen here is remembered in the show. */
type SongOfProps = { readonly deck: Deck; readonly name: string; readonly track: NonNullable<Deck['track']> };

function SongOf({ deck, name, track }: SongOfProps) {
  const { document } = useHovlix();
  const songs = useShow((show) => show.songs) ?? [];
  const value = deck.song ?? (deck.by === 'kept' ? NONE : NOT_YET);
  const choices = [
    ...(value === NOT_YET ? [{ value: NOT_YET, name: PLAYER.notYet }] : []),
    ...likelySongs(track, songs).map((song) => ({ value: song.id as string, name: song.title })),
    { value: NONE, name: PLAYER.none },
  ];
  const know = (chosen: string) => {
    if (chosen === NOT_YET) return;
    const song = chosen === NONE ? null : id<'Song'>(chosen);
    document.make({ type: 'know-track', known: { id: id<'KnownTrack'>(freshId()), track, song } });
  };
  return (
    <Choose
      label={PLAYER.songOf(name)}
      value={value}
      choices={choices}
      hint={deck.song !== null && deck.by ? PLAYER.found[deck.by] : undefined}
      onChoose={know}
    />
  );
}

const NOTHING = 'nothing';

function UnknownTracks() {
  const { document } = useHovlix();
  const plays = usePlays();
  const look = useShow((show) => show.player?.unknown);
  const choices = plays.map((one) => ({ value: one.id as string, name: one.name }));
  return (
    <Choose
      label={PLAYER.unknown}
      hint={PLAYER.unknownHint}
      value={(look as string | undefined) ?? NOTHING}
      choices={[{ value: NOTHING, name: PLAYER.nothing }, ...choices]}
      onChoose={(chosen) =>
        document.make({ type: 'choose-unknown', look: chosen === NOTHING ? null : id<'Look'>(chosen) })
      }
    />
  );
}

function StandInLink() {
  return (
    <ButtonLink href="/connect/decks" kind="quiet">
      {PLAYER.tryIt}
    </ButtonLink>
  );
}
