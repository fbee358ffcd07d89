// One hit: which notes, who answers, with what, and how it comes and goes.

import {
  HIT_CURVES,
  noteName,
  QUICK_PICKS,
  SPREADS,
  type Drive,
  type Hit,
  type HitTime,
  type Saying,
  type Setting,
} from '@hovlix/core/light';
import type { Role } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { Chip } from '../../../ui/Chip';
import { Choose, named, Pair, Typed, wholeNumber } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Sheet } from '../../../ui/Sheet';
import { Slider } from '../../../ui/Slider';
import { Switch } from '../../../ui/Switch';
import { Picker } from '../edit/ColourPanel';
import { chosenLamps, ownAttributes } from '../edit/model';
import { Owns } from '../edit/Owns';

import { WORDS, CURVE_NAMES, SPREAD_NAMES } from './words';

type Props = {
  readonly show: Show;
  /** The role it is tried on: its lamps say what can be asked for. */
  readonly role: Role['id'];
  readonly hit: Hit;
  readonly onPut: (hit: Hit) => void;
  readonly onCopy: () => void;
  readonly onRemove: () => void;
  readonly onClose: () => void;
};

export function HitSheet({ hit, onPut, onCopy, onRemove, onClose, ...where }: Props) {
  const put = (change: { [K in keyof Hit]?: Hit[K] | undefined }) =>
    onPut(Object.fromEntries(Object.entries({ ...hit, ...change }).filter((entry) => entry[1] !== undefined)) as Hit);
  return (
    <Sheet title={hit.name} onClose={onClose}>
      <Typed label={WORDS.name} value={hit.name} read={named} onChange={(name) => put({ name })} />
      <Pair>
        <Typed
          label={WORDS.fromNote}
          numeric
          value={hit.low}
          hint={noteName(hit.low)}
          read={wholeNumber(0, 127)}
          onChange={(low) => put({ low, ...(hit.low === hit.high ? { high: low } : {}) })}
        />
        <Typed
          label={WORDS.toNote}
          numeric
          value={hit.high}
          hint={noteName(hit.high)}
          read={wholeNumber(0, 127)}
          onChange={(high) => put({ high })}
        />
      </Pair>
      <Quiet fontWeight="600">{WORDS.whoAnswers}</Quiet>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.whoAnswers}>
        <Chip small name={WORDS.all} on={!hit.pick} onPress={() => put({ pick: undefined })} />
        {QUICK_PICKS.map(({ name, pick }) => (
          <Chip
            key={name}
            small
            name={name}
            on={JSON.stringify(pick) === JSON.stringify(hit.pick)}
            onPress={() => put({ pick })}
          />
        ))}
      </Row>
      <Segments
        label={WORDS.howManyThem}
        titled
        value={hit.spread}
        choices={SPREADS.map((value) => ({ value, name: SPREAD_NAMES[value] }))}
        onChoose={(spread) => put({ spread })}
      />
      <Asked hit={hit} put={put} {...where} />
      <Time label={WORDS.risesIn} time={hit.attack} onChange={(attack) => put({ attack })} />
      <Time label={WORDS.stays} time={hit.hold} onChange={(hold) => put({ hold })} />
      <Time label={WORDS.fallsIn} time={hit.release} onChange={(release) => put({ release })} />
      <Quiet>{WORDS.lastsTwoFrames}</Quiet>
      <Segments
        label={WORDS.howRisesFalls}
        titled
        value={hit.curve}
        choices={HIT_CURVES.map((value) => ({ value, name: CURVE_NAMES[value] }))}
        onChoose={(curve) => put({ curve })}
      />
      <Segments
        label={WORDS.howLongStays}
        titled
        value={hit.held ? 'held' : 'burst'}
        choices={[
          { value: 'burst', name: WORDS.fixedLength },
          { value: 'held', name: WORDS.whileHeld },
        ]}
        onChoose={(way) => put({ held: way === 'held' ? true : undefined })}
      />
      <Slider
        label={WORDS.velocitySensitivity}
        value={hit.velocity * 100}
        low={0}
        high={100}
        step={5}
        unit="%"
        onChange={(velocity) => put({ velocity: velocity / 100 })}
      />
      <Pair>
        <Choose
          label={WORDS.chokeGroup}
          value={String(hit.choke ?? 0)}
          choices={[
            { value: '0', name: WORDS.none },
            ...Array.from({ length: 8 }, (_, i) => ({ value: String(i + 1), name: WORDS.group(i + 1) })),
          ]}
          hint={WORDS.newHitGroup}
          onChoose={(value) => put({ choke: Number(value) || undefined })}
        />
        <Choose
          label={WORDS.itsLevel}
          value={hit.blend}
          choices={[
            { value: 'highest', name: WORDS.adds },
            { value: 'replace', name: WORDS.replaces },
          ]}
          onChoose={(blend) => put({ blend: blend as Hit['blend'] })}
        />
      </Pair>
      <Row gap={8} flexWrap="wrap">
        <Button onPress={onCopy}>{WORDS.duplicate}</Button>
        <Button kind="quiet" onPress={onRemove}>
          {WORDS.delete}
        </Button>
      </Row>
    </Sheet>
  );
}

const WHITE = { x: 0.3127, y: 0.329 };

type AskedProps = {
  readonly show: Show;
  readonly role: Role['id'];
  readonly hit: Hit;
  readonly put: (change: { [K in keyof Hit]?: Hit[K] | undefined }) => void;
};

/** Level, colour, and what else the lamps of the role can do. */
function Asked({ show, role, hit, put }: AskedProps) {
  const cast = rigInUse(show).casting.find((one) => one.role === role)?.fixtures ?? [];
  const lamps = chosenLamps(show, cast);
  const own = (['beam', 'rate', 'other'] as const).flatMap((family) => ownAttributes(lamps, family));
  const more = Object.fromEntries(
    Object.entries(hit.more ?? {}).map(([name, value]): [string, Drive<Setting>] => [name, { type: 'hold', value }]),
  );
  const say = (saying: Saying) => {
    const next = { ...hit.more };
    for (const [name, drive] of Object.entries(saying.more ?? {}))
      if (drive?.type === 'hold') next[name] = drive.value;
      else delete next[name];
    put({ more: Object.keys(next).length > 0 ? next : undefined });
  };
  return (
    <Column gap={14}>
      <Switch label={WORDS.level} on={hit.level !== undefined} onChange={(on) => put({ level: on ? 1 : undefined })} />
      {hit.level !== undefined && (
        <Slider
          label={WORDS.levelItsHeight}
          value={hit.level * 100}
          low={0}
          high={100}
          step={1}
          unit="%"
          onChange={(level) => put({ level: level / 100 })}
        />
      )}
      <Switch
        label={WORDS.colour}
        on={hit.colour !== undefined}
        onChange={(on) => put({ colour: on ? WHITE : undefined })}
      />
      {hit.colour && <Picker title={WORDS.colour} value={hit.colour} onChange={(colour) => put({ colour })} />}
      <Owns own={own} lamps={lamps} heard={{ more }} onSay={say} />
    </Column>
  );
}

/** The sliders reach so far; longer times are typed. */
const REACH = { ms: 2000, beats: 8 };
const MOST = { ms: 60000, beats: 64 };

type TimeProps = { readonly label: string; readonly time: HitTime; readonly onChange: (time: HitTime) => void };

function Time({ label, time, onChange }: TimeProps) {
  const unit = 'beats' in time ? 'beats' : 'ms';
  const value = 'beats' in time ? time.beats : time.seconds * 1000;
  const put = (next: number) => onChange(unit === 'beats' ? { beats: next } : { seconds: Math.round(next) / 1000 });
  return (
    <Column gap={6} role="group" aria-label={label}>
      <Slider
        label={label}
        value={value}
        low={0}
        high={REACH[unit]}
        most={MOST[unit]}
        step={unit === 'beats' ? 0.25 : 10}
        digits={unit === 'beats' ? 2 : 0}
        unit={unit}
        onChange={put}
      />
      <Segments
        label={WORDS.beatsOrMilliseconds(label)}
        value={unit}
        choices={[
          { value: 'beats', name: WORDS.beats },
          { value: 'ms', name: WORDS.milliseconds },
        ]}
        onChoose={(wanted) => wanted !== unit && onChange(wanted === 'beats' ? { beats: 0.5 } : { seconds: 0.2 })}
      />
    </Column>
  );
}
