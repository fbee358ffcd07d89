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

const PRESS_NAMES: Readonly<Record<Press, string>> = {
  toggle: 'On and off',
  start: 'Only on',
  stop: 'Only off',
  flash: 'On while held',
};

type Props = { readonly show: Show; readonly bank: Bank; readonly onClose: () => void };

export function BankSheet({ show, bank, onClose }: Props) {
  const app = useHovlix();
  const plays = usePlays();
  const say = useSession((session) => session.say);
  const [open, setOpen] = useState<number | null>(null);
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
      <Sheet title="Banks" onClose={onClose}>
        <Quiet>
          These pads are all looks and chases by their numbers. Make a bank of them to choose their order, what pressing
          each does, and which are left out. Others can stand beside it: one for each song, one for the bar.
        </Quiet>
        <Row gap={8} flexWrap="wrap">
          <Button kind="primary" onPress={() => begin(bank.pads, 'Bank 1')}>
            Make a bank of them
          </Button>
          <Button onPress={() => begin([], 'Bank 1')}>Begin empty</Button>
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
    say(`${bank.name} is gone. Its looks are still there.`, { undo: app.document.takingBack() });
    onClose();
  };
  return (
    <Sheet title={bank.name} onClose={onClose}>
      <Typed label="Name" value={bank.name} read={named} onChange={(name) => put({ name })} />
      <Segments
        label="After the last pad"
        titled
        value={bank.end}
        choices={[
          { value: 'stop', name: 'Stop there' },
          { value: 'wrap', name: 'Begin again' },
          { value: 'next', name: 'Next bank' },
        ]}
        onChoose={(end) => put({ end })}
      />
      <SortableList
        items={bank.pads.map((pad, i) => ({ id: `${pad.look}/${i}`, pad, at: i }))}
        nameOf={({ pad }) => nameOf(pad.look)}
        onOrder={(items) => {
          setOpen(null);
          put({ pads: items.map(({ pad }) => pad) });
        }}
      >
        {({ pad, at }) => (
          <Column gap={8} flex={1} minWidth={0}>
            <Row justifyContent="space-between" gap={8}>
              <Column flexShrink={1} minWidth={0}>
                <Words numberOfLines={1}>{nameOf(pad.look)}</Words>
                <Quiet numberOfLines={1}>{padWords(pad)}</Quiet>
              </Column>
              <Button label={`Change ${nameOf(pad.look)}`} kind="quiet" onPress={() => setOpen(open === at ? null : at)}>
                {open === at ? 'Done' : 'Change'}
              </Button>
            </Row>
            {open === at && (
              <Column gap={12} paddingBottom={12}>
                <Pair>
                  <Choose
                    label="When pressed"
                    value={pad.press}
                    choices={PRESSES.map((value) => ({ value, name: PRESS_NAMES[value] }))}
                    onChoose={(press) => putPad(at, { press: press as Press })}
                  />
                  <Choose
                    label="One at a time"
                    value={String(pad.group ?? 0)}
                    choices={[{ value: '0', name: 'No group' }, ...Array.from({ length: 8 }, (_, i) => ({ value: String(i + 1), name: `Group ${i + 1}` }))]}
                    onChoose={(value) => putPad(at, { group: Number(value) || undefined })}
                  />
                </Pair>
                <Choose
                  label="Starts"
                  value={pad.waits ?? 'now'}
                  choices={[{ value: 'now', name: 'At once' }, { value: 'beat', name: 'On the next beat' }, { value: 'bar', name: 'On the next bar' }]}
                  onChoose={(waits) => putPad(at, { waits: waits === 'now' ? undefined : waits })}
                />
                <ActList
                  show={show}
                  label="It also does"
                  acts={pad.also ?? []}
                  onChange={(acts) => putPad(at, { also: acts.length > 0 ? [...acts] : undefined })}
                />
                <Switch
                  label="Left out by next and previous"
                  on={pad.skip === true}
                  onChange={(skip) => putPad(at, { skip: skip || undefined })}
                />
                <Row>
                  <Button kind="quiet" onPress={() => { setOpen(null); put({ pads: bank.pads.filter((_, i) => i !== at) }); }}>
                    Take it out of the bank
                  </Button>
                </Row>
              </Column>
            )}
          </Column>
        )}
      </SortableList>
      {free.length > 0 && (
        <Choose
          label="Put in the bank"
          value=""
          choices={[{ value: '', name: 'Choose a look or a chase' }, ...free.map(({ id, name }) => ({ value: id as string, name }))]}
          onChoose={(look) => look !== '' && put({ pads: [...bank.pads, Pad.parse({ look })] })}
        />
      )}
      <Row gap={8} flexWrap="wrap">
        <Button onPress={() => begin([], `Bank ${show.banks.length + 1}`)}>Another bank</Button>
        <Button kind="quiet" onPress={remove}>
          Delete this bank
        </Button>
      </Row>
    </Sheet>
  ); // prettier-ignore
}

function padWords({ press, group, skip, waits, also }: Pad): string {
  const words = [PRESS_NAMES[press].toLowerCase(), waits ? `on the next ${waits}` : '', group ? `group ${group}` : '', also ? `and ${also.length} more` : '', skip ? 'left out' : '']; // prettier-ignore
  return words.filter(Boolean).join(' · ');
}
