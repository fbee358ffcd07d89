// Banks: which pads they have, in which order, what pressing each does, and what comes after the last.

import { useState } from 'react';
import { Bank, Pad, PRESSES, type Press } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, usePlays } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Choose, named, Pair, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { ActList } from '../pedal/ActList';
import { Segments } from '../../../ui/Segments';
import { Sheet } from '../../../ui/Sheet';
import { SortableList } from '../../../ui/SortableList';
import { Switch } from '../../../ui/Switch';
import { WORDS } from './words';

const PRESS_NAMES: Readonly<Record<Press, string>> = {
  toggle: WORDS.onAndOff,
  start: WORDS.onlyOn,
  stop: WORDS.onlyOff,
  flash: WORDS.onWhileHeld,
};

type Props = { readonly show: Show; readonly bank: Bank; readonly onClose: () => void };

export function BankSheet({ show, bank, onClose }: Props) {
  const app = useHovlix();
  const plays = usePlays();
  const say = useSession((session) => session.say);
  /** By its look: its place changes as somebody else takes out one before it. */
  const [open, setOpen] = useState<Pad['look'] | null>(null);
  const own = show.banks.some(({ id }) => id === bank.id);
  const store = (next: Bank) => app.document.make({ type: 'store-bank', bank: next });
  const put = (change: Partial<Bank>) => store({ ...bank, ...change });
  const begin = (pads: readonly Pad[], name: string) => {
    const fresh = Bank.parse({ id: freshId(), name, pads });
    store(fresh);
    app.conducting.act({ type: 'bank', bank: fresh.id });
  };
  if (!own)
    return (
      <Sheet title={WORDS.banks} onClose={onClose}>
        <Quiet>{WORDS.thesePadsAll}</Quiet>
        <Row gap={8} flexWrap="wrap">
          <Button kind="primary" onPress={() => begin(bank.pads, WORDS.bank1)}>
            {WORDS.makeBankThem}
          </Button>
          <Button onPress={() => begin([], WORDS.bank1)}>{WORDS.beginEmpty}</Button>
        </Row>
      </Sheet>
    );
  const nameOf = (look: string) => plays.find((one) => one.id === look)?.name ?? 'a look that is gone';
  const putPad = (at: number, change: { [K in keyof Pad]?: Pad[K] | undefined }) =>
    put({
      pads: bank.pads.map((one, i) =>
        i === at
          ? (Object.fromEntries(Object.entries({ ...one, ...change }).filter((entry) => entry[1] !== undefined)) as Pad)
          : one,
      ),
    });
  const free = plays.filter((one) => !bank.pads.some(({ look }) => look === one.id));
  const remove = () => {
    app.document.make({ type: 'remove-bank', bank: bank.id });
    say(WORDS.goneItsLooks(bank.name), { undo: app.document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={bank.name} onClose={onClose}>
      <Typed label={WORDS.name} value={bank.name} read={named} onChange={(name) => put({ name })} />
      <Segments
        label={WORDS.afterLastPad}
        titled
        value={bank.end}
        choices={[
          { value: 'stop', name: WORDS.stopThere },
          { value: 'wrap', name: WORDS.beginAgain },
          { value: 'next', name: WORDS.nextBank },
        ]}
        onChoose={(end) => put({ end })}
      />
      <SortableList
        items={bank.pads.map((pad, at) => ({ id: `${pad.look}/${timesBefore(bank.pads, at)}`, pad, at }))}
        nameOf={({ pad }) => nameOf(pad.look)}
        onOrder={(items) => put({ pads: items.map(({ pad }) => pad) })}
      >
        {({ pad, at }) => (
          <Column gap={8} flex={1} minWidth={0}>
            <Row justifyContent="space-between" gap={8}>
              <Column flexShrink={1} minWidth={0}>
                <Words numberOfLines={1}>{nameOf(pad.look)}</Words>
                <Quiet numberOfLines={1}>{padWords(pad)}</Quiet>
              </Column>
              <Button
                label={WORDS.change(nameOf(pad.look))}
                kind="quiet"
                onPress={() => setOpen(open === pad.look ? null : pad.look)}
              >
                {open === pad.look ? WORDS.done : WORDS.changeAlone}
              </Button>
            </Row>
            {open === pad.look && (
              <Column gap={12} paddingBottom={12}>
                <Pair>
                  <Choose
                    label={WORDS.whenPressed}
                    value={pad.press}
                    choices={PRESSES.map((value) => ({ value, name: PRESS_NAMES[value] }))}
                    onChoose={(press) => putPad(at, { press: press as Press })}
                  />
                  <Choose
                    label={WORDS.oneTime}
                    value={String(pad.group ?? 0)}
                    choices={[
                      { value: '0', name: WORDS.noGroup },
                      ...Array.from({ length: 8 }, (_, i) => ({ value: String(i + 1), name: WORDS.group(i + 1) })),
                    ]}
                    onChoose={(value) => putPad(at, { group: Number(value) || undefined })}
                  />
                </Pair>
                <Choose
                  label={WORDS.starts}
                  value={pad.waits ?? 'now'}
                  choices={[
                    { value: 'now', name: WORDS.atOnce },
                    { value: 'beat', name: WORDS.nextBeat },
                    { value: 'bar', name: WORDS.nextBar },
                  ]}
                  onChoose={(waits) => putPad(at, { waits: waits === 'now' ? undefined : waits })}
                />
                <ActList
                  show={show}
                  label={WORDS.itAlsoDoes}
                  acts={pad.also ?? []}
                  onChange={(acts) => putPad(at, { also: acts.length > 0 ? [...acts] : undefined })}
                />
                <Switch
                  label={WORDS.leftOutBy}
                  on={pad.skip === true}
                  onChange={(skip) => putPad(at, { skip: skip || undefined })}
                />
                <Row>
                  <Button
                    kind="quiet"
                    onPress={() => {
                      setOpen(null);
                      put({ pads: bank.pads.filter((_, i) => i !== at) });
                    }}
                  >
                    {WORDS.takeOutBank}
                  </Button>
                </Row>
              </Column>
            )}
          </Column>
        )}
      </SortableList>
      {free.length > 0 && (
        <Choose
          label={WORDS.putBank}
          value=""
          choices={[
            { value: '', name: WORDS.chooseLookOr },
            ...free.map(({ id, name }) => ({ value: id as string, name })),
          ]}
          onChoose={(look) => look !== '' && put({ pads: [...bank.pads, Pad.parse({ look })] })}
        />
      )}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => begin([], WORDS.bank(show.banks.length + 1))}>{WORDS.anotherBank}</Button>
        <Button kind="quiet" onPress={remove}>
          {WORDS.deleteThisBank}
        </Button>
      </Row>
    </Sheet>
  );
}

/** How often the look of a pad comes before it: a file may have it on several. */
const timesBefore = (pads: readonly Pad[], at: number): number =>
  pads.slice(0, at).filter(({ look }) => look === pads[at]!.look).length;

function padWords({ press, group, skip, waits, also }: Pad): string {
  const words = [
    PRESS_NAMES[press].toLowerCase(),
    waits ? WORDS.onTheNext(waits) : '',
    group ? WORDS.groupInLine(group) : '',
    also ? WORDS.andMore(also.length) : '',
    skip ? 'left out' : '',
  ];
  return words.filter(Boolean).join(' · ');
}
