// What one gesture does: acts in their order, found by typing.

import { useMemo, useState } from 'react';
import { View } from '@tamagui/core';
import Trash from 'lucide-react-native/icons/trash';
import { MOST_ACTS, type Act } from '@hovlix/core/gig';
import { actName } from '@hovlix/core/live';
import { actsFound, actsOffered } from '@hovlix/core/offered';
import type { Show } from '@hovlix/core/show';
import { decimal, Typed } from '../../../ui/form';
import { Field } from '../../../ui/Field';
import { useOpenRow } from '../../../ui/open-row';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Scroller } from '../../../ui/ScrollArea';
import { WORDS } from './words';

export type ActListProps = {
  readonly show: Show;
  readonly label: string;
  readonly acts: readonly Act[];
  /** Whether an act is one to choose here; all are without. */
  readonly offers?: (act: Act) => boolean;
  readonly onChange: (acts: readonly Act[]) => void;
};

/** So many are shown at once; typing finds the rest. */
const SHOWN = 40;

export function ListedActs({ show, label, acts, offers, onChange }: ActListProps) {
  const palette = usePalette();
  const [adding, setAdding] = useState(false);
  const row = useOpenRow();
  const put = (at: number, act: Act) => onChange(acts.map((one, i) => (i === at ? act : one)));
  return (
    <Column gap={6} role="group" aria-label={label}>
      <Row justifyContent="space-between" gap={8}>
        <Words fontWeight="600">{label}</Words>
        {acts.length < MOST_ACTS && (
          <Button label={WORDS.addTo(label)} kind="quiet" onPress={() => setAdding(!adding)}>
            {adding ? WORDS.cancel : WORDS.add}
          </Button>
        )}
      </Row>
      {acts.length === 0 && !adding && <Quiet>{WORDS.nothing}</Quiet>}
      {acts.map((act, i) => (
        <Column key={i} gap={6}>
          <Row gap={4} minHeight={44}>
            <View
              render="button"
              aria-expanded={row.isOpen(i)}
              onPress={() => row.toggle(i)}
              flex={1}
              minWidth={0}
              minHeight={44}
              justifyContent="center"
              alignItems="flex-start"
              padding={0}
              borderWidth={0}
              backgroundColor="transparent"
              cursor="pointer"
            >
              <Words textAlign="left">{actName(show, act)}</Words>
            </View>
            <Button
              label={WORDS.removeFrom(actName(show, act), label)}
              kind="quiet"
              onPress={() => {
                row.removed(i);
                onChange(acts.filter((_, at) => at !== i));
              }}
            >
              <Trash size={18} color={palette.quiet} aria-hidden />
            </Button>
          </Row>
          {row.isOpen(i) && (
            <Typed
              label={WORDS.beatsLaterThan}
              value={act.after ?? 0}
              read={decimal(0, 64)}
              onChange={(after) => {
                const { after: _, ...rest } = act;
                put(i, after > 0 ? { ...act, after } : (rest as Act));
              }}
              numeric
            />
          )}
        </Column>
      ))}
      {adding && (
        <Finder
          show={show}
          offers={offers}
          onFound={(act) => {
            onChange([...acts, act]);
            setAdding(false);
          }}
        />
      )}
    </Column>
  );
}

type FinderProps = Pick<ActListProps, 'show'> & {
  readonly offers: ActListProps['offers'];
  readonly onFound: (act: Act) => void;
};

function Finder({ show, offers, onFound }: FinderProps) {
  const [typed, setTyped] = useState('');
  const all = useMemo(() => actsOffered(show).filter((act) => offers?.(act) ?? true), [show, offers]);
  const found = useMemo(() => actsFound(show, all, typed), [show, all, typed]);
  return (
    <Column gap={4}>
      <Field label={WORDS.findAnAction} placeholder={WORDS.findAnAction} value={typed} onChange={setTyped} />
      <Scroller maxHeight={264} role="group" aria-label={WORDS.actions}>
        {found.slice(0, SHOWN).map((act) => (
          <View
            key={JSON.stringify(act)}
            render="button"
            onPress={() => onFound(act)}
            width="100%"
            minHeight={44}
            justifyContent="center"
            alignItems="flex-start"
            paddingHorizontal={8}
            borderWidth={0}
            borderBottomWidth={1}
            borderColor="$line"
            backgroundColor="transparent"
            cursor="pointer"
          >
            <Words textAlign="left">{actName(show, act)}</Words>
          </View>
        ))}
      </Scroller>
      <Quiet>
        {found.length === 0
          ? WORDS.noActionMatches
          : found.length > SHOWN
            ? WORDS.moreTypeFind(found.length - SHOWN)
            : ''}
      </Quiet>
    </Column>
  );
}
