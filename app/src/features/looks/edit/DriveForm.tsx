// One value for all chosen lamps, a fan from one to another, or one for each lamp.

import { useState, type ReactNode } from 'react';
import { WAYS, type Drive, type Way } from '@hovlix/core/light';
import { Chip } from '../../../ui/Chip';
import { Choose } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { WORDS } from './words';

const WAY_NAMES: Readonly<Record<Way, string>> = {
  across: 'Across',
  back: 'Back',
  mirror: WORDS.fromBothEnds,
  centre: WORDS.fromTheMiddle,
  random: 'Random',
};

type Props<T> = {
  readonly label: string;
  readonly drive: Drive<T> | undefined;
  /** What it begins with where nothing is said yet. */
  readonly rest: T;
  /** Names of the chosen lamps. */
  readonly lamps: readonly string[];
  readonly onSay: (drive: Drive<T> | undefined) => void;
  /** The control of one value; `title` says which. */
  readonly children: (value: T, title: string, onChange: (value: T) => void) => ReactNode;
};

export function DriveForm<T>({ label, drive, rest, lamps, onSay, children }: Props<T>) {
  const type = drive?.type ?? 'hold';
  const first =
    drive === undefined
      ? rest
      : drive.type === 'hold'
        ? drive.value
        : drive.type === 'spread'
          ? drive.values[0]!
          : drive.from;
  const last = drive?.type === 'fan' ? drive.to : drive?.type === 'spread' ? drive.values.at(-1)! : first;
  const become = (wanted: typeof type) => {
    if (wanted === 'hold') onSay({ type: 'hold', value: first });
    else if (wanted === 'fan') onSay({ type: 'fan', from: first, to: last, way: 'across' });
    else
      onSay({
        type: 'spread',
        values: lamps.map((_, i) => (drive?.type === 'spread' ? drive.values[i % drive.values.length]! : first)),
      });
  };
  return (
    <Column gap={12} role="group" aria-label={label}>
      {lamps.length > 1 && (
        <Row gap={8} justifyContent="space-between" flexWrap="wrap">
          <Segments
            label={WORDS.overTheLamps(label)}
            value={type}
            choices={[
              { value: 'hold', name: WORDS.same },
              { value: 'fan', name: WORDS.fan },
              { value: 'spread', name: WORDS.each },
            ]}
            onChoose={become}
          />
          {drive && <Alone label={label} onPress={() => onSay(undefined)} />}
        </Row>
      )}
      {type === 'hold' && children(first, label, (value) => onSay({ type: 'hold', value }))}
      {drive?.type === 'fan' && (
        <>
          {children(drive.from, WORDS.from(label), (from) => onSay({ ...drive, from }))}
          {children(drive.to, WORDS.to(label), (to) => onSay({ ...drive, to }))}
          <RunForm run={drive} onChange={(run) => onSay({ ...drive, ...run })} />
        </>
      )}
      {drive?.type === 'spread' && <Each drive={drive} lamps={lamps} onSay={onSay} control={children} />}
      {lamps.length <= 1 && drive && <Alone label={label} onPress={() => onSay(undefined)} />}
    </Column>
  );
}

function Alone({ label, onPress }: { readonly label: string; readonly onPress: () => void }) {
  return (
    <Button kind="quiet" label={WORDS.leaveAloneNamed(label.toLowerCase())} onPress={onPress}>
      {WORDS.leaveAlone}
    </Button>
  );
}

type EachProps<T> = {
  readonly drive: Extract<Drive<T>, { type: 'spread' }>;
  readonly lamps: readonly string[];
  readonly onSay: Props<T>['onSay'];
  readonly control: Props<T>['children'];
};

/** More lamps than this at once are a list nobody reads. */
const SHOWN = 12;

function Each<T>({ drive, lamps, onSay, control }: EachProps<T>) {
  const [all, setAll] = useState(false);
  const shown = all ? lamps : lamps.slice(0, SHOWN);
  const values = lamps.map((_, i) => drive.values[i % drive.values.length]!);
  return (
    <>
      {shown.map((lamp, i) => (
        <Column key={i}>
          {control(values[i]!, lamp, (value) =>
            onSay({ type: 'spread', values: values.map((one, k) => (k === i ? value : one)) }),
          )}
        </Column>
      ))}
      {lamps.length > SHOWN && !all && (
        <Button kind="quiet" onPress={() => setAll(true)}>
          {WORDS.moreLamps(lamps.length - SHOWN)}
        </Button>
      )}
    </>
  );
}

type Run = { readonly way: Way; readonly groups?: number | undefined; readonly seed?: number | undefined };

/** In which order a fan or a wave runs over the lamps. */
export function RunForm({ run, onChange }: { readonly run: Run; readonly onChange: (run: Run) => void }) {
  const groups = run.groups ?? 0;
  return (
    <Column gap={10}>
      <Quiet fontWeight="600">{WORDS.runsOverLamps}</Quiet>
      <Row gap={6} flexWrap="wrap" role="group" aria-label={WORDS.runsOverLamps}>
        {WAYS.map((way) => (
          <Chip key={way} small name={WAY_NAMES[way]} on={run.way === way} onPress={() => onChange({ ...run, way })} />
        ))}
        {run.way === 'random' && (
          <Button onPress={() => onChange({ ...run, seed: ((run.seed ?? 0) + 1) % 1000 })}>{WORDS.shuffle}</Button>
        )}
      </Row>
      <Choose
        label={WORDS.inGroups}
        value={String(groups)}
        choices={[0, 2, 3, 4, 5, 6, 8, 12, 16].map((count) => ({
          value: String(count),
          name: count === 0 ? 'all together' : WORDS.repeatsEvery(count),
        }))}
        onChoose={(value) => onChange({ ...run, groups: Number(value) || undefined })}
      />
    </Column>
  );
}
