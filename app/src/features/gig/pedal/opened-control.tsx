// One control: where it is heard from, and what it does.

import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import {
  GESTURES,
  sourceWords,
  type Control,
  type Does,
  type FaderControl,
  type Source,
  type SwitchControl,
} from '@hovlix/core/gig';
import { banksOf } from '@hovlix/core/light';
import { turnName } from '@hovlix/core/live';
import { turnsOffered } from '@hovlix/core/offered';
import { id } from '@hovlix/core/units';
import type { Show } from '@hovlix/core/show';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Choose, named, Pair, Typed, wholeNumber } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Sheet } from '../../../ui/Sheet';
import { Slider } from '../../../ui/Slider';
import { Switch } from '../../../ui/Switch';
import { ActList } from './ActList';
import { OscFields } from './OscFields';
import { WORDS, GESTURE_NAMES } from './words';

export type OpenedControlProps = { readonly show: Show; readonly control: Control; readonly onClose: () => void };

export function OpenedControl({ show, control, onClose }: OpenedControlProps) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const store = (next: Control) => app.document.make({ type: 'store-control', control: next });
  /** May be told a second time, when more has changed: how it is let go does not matter of a knob, nor steps of a switch. */
  const learned = (source: Source) => {
    const now = app.document.store.getState().show?.controls.find(({ id: one }) => one === control.id);
    const sends = 'sends' in source ? source.sends : 'absolute';
    if (!now || sends === (now.kind === 'fader' ? 'toggle' : 'relative')) return;
    store({ ...now, source });
    if (sends === 'toggle') say(WORDS.saysNoRelease);
  };
  const remove = () => {
    app.document.make({ type: 'remove-control', control: control.id });
    say(WORDS.isRemoved(control.name), { undo: app.document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={control.name} onClose={onClose}>
      <Typed label={WORDS.name} value={control.name} read={named} onChange={(name) => store({ ...control, name })} />
      <Heard control={control} onLearned={learned} onChange={(source) => store({ ...control, source })} />
      {control.kind === 'switch' ? (
        <SwitchForm show={show} control={control} onChange={store} />
      ) : (
        <FaderForm show={show} control={control} onChange={store} />
      )}
      <Row>
        <Button kind="quiet" onPress={remove}>
          {WORDS.removeThisControl}
        </Button>
      </Row>
    </Sheet>
  );
}

type HeardProps = {
  readonly control: Control;
  readonly onLearned: (source: Source) => void;
  readonly onChange: (source: Source) => void;
};

/** Learned by touching it. Programs may be typed too, as gear prints them. */
function Heard({ control, onLearned, onChange }: HeardProps) {
  const app = useHovlix();
  const learning = useStore(app.controls.store, (state) => state.learns !== null);
  useEffect(() => () => app.controls.learn(null), [app]);
  const { source } = control;
  const learn = () => app.controls.learn(learning ? null : onLearned);
  return (
    <Column gap={8}>
      <Row justifyContent="space-between" gap={12}>
        <Column flex={1} minWidth={0}>
          <Quiet fontWeight="600">{WORDS.heardFrom}</Quiet>
          <Words role="status" testID="source">
            {learning ? (control.kind === 'fader' ? WORDS.turnItNow : WORDS.stepNow) : sourceWords(source)}
          </Words>
        </Column>
        <Button kind={source || learning ? 'plain' : 'primary'} onPress={learn}>
          {learning ? WORDS.cancel : source ? WORDS.learnAgain : WORDS.learn}
        </Button>
      </Row>
      {source?.by === 'osc' ? (
        <OscFields kind={control.kind} source={source} onChange={onChange} />
      ) : (
        source && source.by !== 'key' && source.by !== 'button' && <MidiFields source={source} onChange={onChange} />
      )}
      <Row gap={8} flexWrap="wrap">
        {control.kind === 'switch' && source?.by !== 'program' && (
          <Button
            kind="quiet"
            onPress={() => onChange({ by: 'program', device: null, channel: null, number: 0, bank: null })}
          >
            {WORDS.byProgramNumber}
          </Button>
        )}
        {source?.by !== 'osc' && (
          <Button
            kind="quiet"
            onPress={() => onChange({ by: 'osc', address: WORDS.firstAddress, full: 1, sends: 'absolute' })}
          >
            {WORDS.byOscAddress}
          </Button>
        )}
      </Row>
    </Column>
  );
}

type Midi = Exclude<Source, { by: 'key' | 'button' | 'osc' }>;

function MidiFields({ source, onChange }: { readonly source: Midi; readonly onChange: (source: Source) => void }) {
  return (
    <>
      <Pair>
        <Choose
          label={WORDS.channel}
          value={String(source.channel ?? 0)}
          choices={[
            { value: '0', name: WORDS.any },
            ...Array.from({ length: 16 }, (_, i) => ({ value: String(i + 1), name: String(i + 1) })),
          ]}
          onChoose={(channel) => onChange({ ...source, channel: Number(channel) || null })}
        />
        {source.device !== null && (
          <Choose
            label={WORDS.device}
            value="own"
            choices={[
              { value: 'own', name: source.device },
              { value: 'any', name: WORDS.any },
            ]}
            onChoose={(which) => which === 'any' && onChange({ ...source, device: null })}
          />
        )}
        {source.by === 'program' && (
          <Typed
            label={WORDS.programFrom1}
            value={source.number + 1}
            read={wholeNumber(1, 128)}
            onChange={(number) => onChange({ ...source, number: number - 1 })}
            hint={WORDS.from0(source.number)}
            numeric
          />
        )}
        {source.by === 'program' && (
          <Typed
            label={WORDS.bank}
            value={source.bank === null ? '' : String(source.bank)}
            read={(text) => {
              if (text.trim() === '') return { value: '' };
              const read = wholeNumber(0, 16383)(text);
              return 'wrong' in read ? read : { value: String(read.value) };
            }}
            hint={WORDS.emptyAnyBank}
            onChange={(bank) => onChange({ ...source, bank: bank === '' ? null : Number(bank) })}
            numeric
          />
        )}
      </Pair>
      {source.by === 'control' && (
        <Choose
          label={WORDS.whatItsValues}
          value={source.sends}
          choices={[
            { value: 'absolute', name: 'Position; 64 and above is pressed' },
            { value: 'toggle', name: WORDS.eachMessageOne },
            { value: 'relative', name: WORDS.stepsUpOr },
            { value: 'fine', name: WORDS.position14Bit },
          ]}
          onChoose={(sends) => onChange({ ...source, sends })}
        />
      )}
    </>
  );
}

type SwitchProps = {
  readonly show: Show;
  readonly control: SwitchControl;
  readonly onChange: (control: Control) => void;
};

const EVERYWHERE = '';

function SwitchForm({ show, control, onChange }: SwitchProps) {
  const [bank, setBank] = useState(EVERYWHERE);
  const own = control.banks?.find((one) => one.bank === bank);
  const does = bank === EVERYWHERE ? control.does : (own?.does ?? control.does);
  const put = (next: Does) => {
    if (bank === EVERYWHERE) return onChange({ ...control, does: next });
    const others = (control.banks ?? []).filter((one) => one.bank !== bank);
    onChange({ ...control, banks: [...others, { bank: id<'Bank'>(bank), does: next }] });
  };
  const asEverywhere = () => {
    const { banks: _, ...rest } = control;
    const left = (control.banks ?? []).filter((one) => one.bank !== bank);
    onChange(left.length > 0 ? { ...rest, banks: left } : rest);
  };
  const set = (change: { closed?: boolean; eager?: boolean }) => {
    const { closed, eager, ...rest } = { ...control, ...change };
    onChange({ ...rest, ...(closed ? { closed } : {}), ...(eager ? { eager } : {}) });
  };
  return (
    <>
      {show.banks.length > 0 && (
        <Choose
          label={WORDS.whatItDoes}
          value={bank}
          choices={[
            { value: EVERYWHERE, name: WORDS.inEveryBank },
            ...banksOf(show).map(({ id, name }) => ({
              value: id as string,
              name: WORDS.inBank(name, control.banks?.some((one) => one.bank === id) ? ' (its own)' : ''),
            })),
          ]}
          onChoose={setBank}
        />
      )}
      {bank !== EVERYWHERE && !own && <Quiet>{WORDS.asEveryBank}</Quiet>}
      {own && (
        <Row>
          <Button onPress={asEverywhere}>{WORDS.asEveryBankShort}</Button>
        </Row>
      )}
      {GESTURES.map((gesture) => (
        <ActList
          key={gesture}
          show={show}
          label={GESTURE_NAMES[gesture]}
          acts={does[gesture]}
          onChange={(acts) => put({ ...does, [gesture]: [...acts] })}
        />
      ))}
      <Quiet role="status" testID="when">
        {whenWords(control, does)}
      </Quiet>
      {does.hold.length > 0 && does.double.length === 0 && (
        <Switch label={WORDS.pressActsAs} on={control.eager === true} onChange={(eager) => set({ eager })} />
      )}
      <Switch label={WORDS.normallyClosedWorks} on={control.closed === true} onChange={(closed) => set({ closed })} />
    </>
  );
}

/** When a press acts, by what else is assigned. */
function whenWords({ eager }: SwitchControl, { press, double, hold }: Does): string {
  if (press.length === 0) return '';
  if (double.length > 0) return 'A press acts when the time for a second one is over.';
  if (hold.length > 0)
    return eager ? 'A press acts at once; a hold is done as well.' : 'A press acts as the foot lifts.';
  return 'A press acts at once.';
}

type FaderProps = {
  readonly show: Show;
  readonly control: FaderControl;
  readonly onChange: (control: Control) => void;
};

function FaderForm({ show, control, onChange }: FaderProps) {
  const offered = turnsOffered(show);
  const at = offered.findIndex((one) => JSON.stringify(one) === JSON.stringify(control.turns));
  return (
    <>
      <Choose
        label={WORDS.moves}
        value={String(at)}
        choices={offered.map((turns, i) => ({ value: String(i), name: turnName(show, turns) }))}
        onChoose={(value) => onChange({ ...control, turns: offered[Number(value)]! })}
      />
      <Slider
        label={WORDS.itsLowEnd}
        value={control.low * 100}
        low={0}
        high={100}
        step={1}
        unit="%"
        onChange={(low) => onChange({ ...control, low: low / 100 })}
      />
      <Slider
        label={WORDS.itsHighEnd}
        value={control.high * 100}
        low={0}
        high={100}
        step={1}
        unit="%"
        onChange={(high) => onChange({ ...control, high: high / 100 })}
      />
      <Segments
        label={WORDS.curve}
        titled
        value={control.curve}
        choices={[
          { value: 'even', name: WORDS.even },
          { value: 'gentle', name: WORDS.gentleStart },
          { value: 'steep', name: WORDS.steepStart },
        ]}
        onChoose={(curve) => onChange({ ...control, curve })}
      />
      <Switch label={WORDS.softTakeoverWaits} on={control.soft} onChange={(soft) => onChange({ ...control, soft })} />
    </>
  );
}
