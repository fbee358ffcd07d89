// Followers of the chosen lamps: what they move, what they listen for, and how quickly they answer.

import {
  Follower,
  HEARING_BANDS,
  hertzOf,
  HERTZ,
  LONGEST_SLEW,
  MEASURES,
  type HearingBand,
  type Hears,
  type Measure,
} from '@hovlix/core/light';
import { DRUMS, type Drum } from '@hovlix/core/music';
import { useLive, useShow } from '../../../host/hovlix';
import { Chip } from '../../../ui/Chip';
import { decimal, Pair, Typed } from '../../../ui/form';
import { MicrophoneSwitch } from '../../microphone/MicrophoneSwitch';
import { useOpenRow } from '../../../ui/open-row';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Slider } from '../../../ui/Slider';
import { Switch } from '../../../ui/Switch';
import { BandsPicture } from './BandsPicture';
import { Bounds } from './Bounds';
import { Picker } from './ColourPanel';
import { RunForm } from './DriveForm';
import { movables, nameOfMoved } from './moved';
import type { PanelProps } from './panel-props';
import { WORDS } from './words';

const BAND_NAMES: Readonly<Record<HearingBand, string>> = {
  all: 'All',
  sub: 'Sub',
  low: 'Low',
  mid: 'Mid',
  high: 'High',
};
const MEASURE_NAMES: Readonly<Record<Measure, string>> = { loudness: 'Loudness', brightness: 'Brightness' };
const MEASURE_WORDS: Readonly<Record<Measure, string>> = {
  loudness: WORDS.asLoudAs,
  brightness: WORDS.nothingBassAlone,
};
const DRUM_NAMES: Readonly<Record<Drum, string>> = { kick: 'Kick', snare: 'Snare', hat: 'Hat' };

/** What a follower is called: “Level follows the kick”. */
export function followerWords(follower: Follower): string {
  const on = follower.type === 'colours' ? 'colour' : nameOfMoved(follower.on);
  const { hears } = follower;
  const what =
    'drum' in hears
      ? WORDS.the(hears.drum)
      : 'measure' in hears
        ? hears.measure === 'loudness'
          ? 'how loud it sounds'
          : 'how bright it sounds'
        : 'band' in hears
          ? hears.band === 'all'
            ? 'how loud it is'
            : WORDS.theBand(hears.band)
          : WORDS.toHz(hertzOf(hears).low, hertzOf(hears).high);
  return WORDS.follows(on.charAt(0).toUpperCase(), on.slice(1), what);
}

export function SoundPanel({ lamps, heard, onSay }: PanelProps) {
  const followers = heard.followers ?? [];
  const row = useOpenRow(followers.length === 1 ? 0 : null);
  const put = (next: readonly Follower[], gesture?: string) =>
    onSay({ followers: next.length > 0 ? [...next] : undefined }, gesture);
  const add = (follower: unknown) => {
    put([...followers, Follower.parse(follower)]);
    row.show(followers.length);
  };
  const deaf = lamps.filter(({ fixture }) => fixture.deaf).length;
  return (
    <Column gap={16}>
      {followers.map((follower, i) => (
        <Column key={i} gap={14} padding={14} borderRadius={14} backgroundColor="$raised">
          <Row justifyContent="space-between" gap={8}>
            <Words fontWeight="600" flexShrink={1}>
              {followerWords(follower)}
            </Words>
            <Row gap={4}>
              <Button kind="quiet" onPress={() => row.toggle(i)}>
                {row.isOpen(i) ? WORDS.done : WORDS.change}
              </Button>
              <Button
                kind="quiet"
                label={WORDS.removeNamed(followerWords(follower))}
                onPress={() => {
                  row.removed(i);
                  put(followers.filter((_, k) => k !== i));
                }}
              >
                {WORDS.remove}
              </Button>
            </Row>
          </Row>
          {row.isOpen(i) && (
            <FollowerForm
              follower={follower}
              lamps={lamps.length}
              onChange={(next) =>
                put(
                  followers.map((one, k) => (k === i ? next : one)),
                  WORDS.follower(i),
                )
              }
            />
          )}
        </Column>
      ))}
      {followers.length < 16 && (
        <Column gap={8}>
          <Quiet fontWeight="600">{WORDS.letSoundMove}</Quiet>
          <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.letSoundMove}>
            {offersFor(lamps).map(([name, offer]) => (
              <Chip key={name} small name={name} on={false} onPress={() => add(offer)} />
            ))}
          </Row>
        </Column>
      )}
      {deaf > 0 && (
        <Quiet>{WORDS.notFollowSound(deaf === 1 ? 'One of these lamps does' : `${deaf} of these lamps do`)}</Quiet>
      )}
      <Listening />
    </Column>
  );
}

const QUICK = { hears: { drum: 'kick' }, attack: 0, release: 0.25 };
const SMOOTH = { hears: { band: 'low' }, attack: 0.03, release: 0.3 };

/** What can be moved by sound: level begins with the kick, all else with the low end. */
function offersFor(lamps: PanelProps['lamps']): readonly (readonly [string, unknown])[] {
  const numbers = movables(lamps).map(({ name, on, low, high }) => {
    const way = on === 'level' ? QUICK : SMOOTH;
    return [name, { type: 'follow', on, low, high: on === 'hue' ? 120 : high, ...way }] as const;
  });
  const colours = { type: 'colours', from: { x: 0.15, y: 0.06 }, to: { x: 0.64, y: 0.33 }, ...SMOOTH };
  return [...numbers.slice(0, 2), [WORDS.twoColours, colours], ...numbers.slice(2)];
}

/** What can be heard at this moment, and the way to hear something. */
function Listening() {
  const song = useLive((live) => live.song?.id);
  const music = useShow((show) => show.songs.find((one) => one.id === song)?.music ?? null);
  const listens = useLive((live) => live.hearing !== null);
  return (
    <Column gap={8} paddingTop={8} borderTopWidth={1} borderColor="$line">
      <MicrophoneSwitch />
      {!music && !listens && <Quiet>{WORDS.nothingHeardNow}</Quiet>}
    </Column>
  );
}

type FormProps = {
  readonly follower: Follower;
  readonly lamps: number;
  readonly onChange: (follower: Follower) => void;
};

function FollowerForm({ follower, lamps, onChange }: FormProps) {
  return (
    <Column gap={18}>
      <HearsForm follower={follower} onChange={(hears) => onChange({ ...follower, hears })} />
      <Segments
        label={WORDS.itListensTo}
        titled
        value={follower.source}
        choices={[
          { value: 'song', name: WORDS.song },
          { value: 'microphone', name: WORDS.microphone },
        ]}
        onChoose={(source) => onChange({ ...follower, source })}
      />
      {follower.source === 'song' && <Quiet>{WORDS.whereNoSong}</Quiet>}
      <Slew label={WORDS.risesIn} value={follower.attack} onChange={(attack) => onChange({ ...follower, attack })} />
      <Slew label={WORDS.fallsIn} value={follower.release} onChange={(release) => onChange({ ...follower, release })} />
      {follower.type === 'follow' ? (
        <>
          <Bounds
            moving={follower}
            onChange={onChange}
            names={[WORDS.whenQuiet, WORDS.whenLoud, WORDS.louderLessGoes]}
          />
          <Button onPress={() => onChange({ ...follower, low: follower.high, high: follower.low })}>
            {WORDS.invert}
          </Button>
        </>
      ) : (
        <>
          <Picker title={WORDS.whenQuiet} value={follower.from} onChange={(from) => onChange({ ...follower, from })} />
          <Picker title={WORDS.whenLoud} value={follower.to} onChange={(to) => onChange({ ...follower, to })} />
        </>
      )}
      <Sensitivity follower={follower} onChange={onChange} />
      {lamps > 1 && (
        <>
          <Switch
            label={WORDS.fillsLampsOne}
            on={follower.meter === true}
            onChange={(meter) => onChange({ ...follower, meter: meter || undefined })}
          />
          {follower.meter && <RunForm run={follower} onChange={(run) => onChange({ ...follower, ...run })} />}
        </>
      )}
    </Column>
  );
}

function HearsForm({ follower, onChange }: { readonly follower: Follower; readonly onChange: (hears: Hears) => void }) {
  const { hears } = follower;
  const drawn = 'from' in hears;
  const hertz = 'drum' in hears ? undefined : 'measure' in hears ? HEARING_BANDS.all : hertzOf(hears);
  return (
    <Column gap={10}>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.whatListens}>
        {(Object.keys(HEARING_BANDS) as HearingBand[]).map((band) => (
          <Chip
            key={band}
            small
            name={BAND_NAMES[band]}
            on={'band' in hears && hears.band === band}
            onPress={() => onChange({ band })}
          />
        ))}
        <Chip
          small
          name={WORDS.drawn}
          on={drawn}
          onPress={() => !drawn && onChange({ from: hertz?.low ?? 60, to: hertz?.high ?? 250 })}
        />
        {MEASURES.map((measure) => (
          <Chip
            key={measure}
            small
            name={MEASURE_NAMES[measure]}
            on={'measure' in hears && hears.measure === measure}
            onPress={() => onChange({ measure })}
          />
        ))}
        {DRUMS.map((drum) => (
          <Chip
            key={drum}
            small
            name={DRUM_NAMES[drum]}
            on={'drum' in hears && hears.drum === drum}
            onPress={() => onChange({ drum })}
          />
        ))}
      </Row>
      {hertz && (
        <BandsPicture
          source={follower.source}
          {...hertz}
          {...(drawn ? { onDraw: (from: number, to: number) => onChange({ from, to }) } : {})}
        />
      )}
      {drawn && (
        <Pair>
          <Typed
            label={WORDS.fromHz}
            value={hears.from}
            read={decimal(HERTZ.least, HERTZ.most)}
            onChange={(from) => onChange({ ...hears, from })}
          />
          <Typed
            label={WORDS.toHzAlone}
            value={hears.to}
            read={decimal(HERTZ.least, HERTZ.most)}
            onChange={(to) => onChange({ ...hears, to })}
          />
        </Pair>
      )}
      {'measure' in hears && <Quiet>{MEASURE_WORDS[hears.measure]}</Quiet>}
      {'drum' in hears && <Quiet>{WORDS.anythingSoundsLike}</Quiet>}
    </Column>
  );
}

/** Longest time the slider reaches; longer ones are typed. */
const REACH_MS = 2000;

function Slew({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly onChange: (seconds: number) => void;
}) {
  return (
    <Slider
      label={label}
      value={value * 1000}
      low={0}
      high={REACH_MS}
      most={LONGEST_SLEW * 1000}
      step={10}
      unit="ms"
      onChange={(ms) => onChange(Math.round(ms) / 1000)}
    />
  );
}

function Sensitivity({ follower, onChange }: Pick<FormProps, 'follower' | 'onChange'>) {
  // A stroke, and how bright it is, are not more of it when it is louder.
  const levelless =
    'drum' in follower.hears || ('measure' in follower.hears && follower.hears.measure === 'brightness');
  const gate = follower.floor >= follower.ceiling;
  return (
    <>
      {!levelless && (
        <Switch
          label={WORDS.adaptsHowLoud}
          on={follower.gain === undefined}
          onChange={(adapts) => onChange({ ...follower, gain: adapts ? undefined : 10 })}
        />
      )}
      {!levelless && follower.gain !== undefined && (
        <Slider
          label={WORDS.sensitivity}
          value={follower.gain}
          low={-20}
          high={60}
          step={1}
          unit="dB"
          onChange={(gain) => onChange({ ...follower, gain })}
        />
      )}
      <Slider
        label={WORDS.ignoreBelow}
        value={follower.floor * 100}
        low={0}
        high={100}
        step={1}
        unit="%"
        onChange={(floor) => onChange({ ...follower, floor: floor / 100 })}
      />
      <Slider
        label={WORDS.fullAbove}
        value={follower.ceiling * 100}
        low={0}
        high={100}
        step={1}
        unit="%"
        onChange={(ceiling) => onChange({ ...follower, ceiling: ceiling / 100 })}
      />
      {gate && <Quiet>{WORDS.gateIgnoredBelow(Math.round(follower.floor * 100))}</Quiet>}
    </>
  );
}
