// A bank on the whole screen, to be played with the fingers: all its pads are in sight, as large as they can be. Nothing
// scrolls, so that each counts as a finger comes down.

import { useEffect, useRef, useState, type MouseEvent } from 'react';
import { useRouter } from 'expo-router';
import X from 'lucide-react-native/icons/x';
import { useMedia, View } from '@tamagui/core';
import { banksOf } from '@hovlix/core/light';
import { useHovlix, useLive, useShow } from '../../../host/hovlix';
import { keepAwake } from '../../../host/screen';
import { Chip } from '../../../ui/Chip';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Row, Title } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Trouble } from '../stage/Trouble';
import { fittedPads } from './fitted';
import { Going } from './Going';
import { NoPads } from './NoPads';
import { OnePad, useBankPads, type BankProps } from './Pads';
import { RunningChip } from './Running';
import { WORDS } from './words';

const GAP = 10;
/** Narrower than this a pad writes its name smaller, in pixels. */
const SMALL = 150;
/** The row of pages below the pads, in pixels. */
const TURNING = 44;

export function PadsPlace() {
  const app = useHovlix();
  const router = useRouter();
  const palette = usePalette();
  const show = useShow((one) => one);
  const place = useLive((live) => live.place);
  const { wide, short } = useMedia();
  // A phone on its side has no height to give away.
  const oneLine = wide || short;
  useEffect(() => keepAwake(), []);
  if (!show) return null;
  const banks = banksOf(show);
  const bank = banks.find(({ id }) => id === place.bank) ?? banks[0]!;
  const chips = (
    <ScrollArea sideways>
      <Row gap={6} paddingHorizontal={12} role="group" aria-label={WORDS.banks}>
        <RunningChip />
        {banks.length > 1 &&
          banks.map(({ id, name }) => (
            <Chip
              key={id}
              small
              name={name}
              on={id === bank.id}
              onPress={() => app.conducting.act({ type: 'bank', bank: id })}
            />
          ))}
      </Row>
    </ScrollArea>
  );
  return (
    <Column flex={1} minHeight={0} backgroundColor="$ground" gap={6} paddingTop={8}>
      <Row justifyContent="space-between" paddingLeft={14}>
        <Title render="h1" margin={0} fontSize={22} flexShrink={1} minWidth={0} numberOfLines={1}>
          {bank.name}
        </Title>
        {oneLine && (
          <View flex={1} minWidth={0}>
            {chips}
          </View>
        )}
        <Going banks={banks} bank={bank} at={place.look}>
          <Button label={WORDS.close} kind="quiet" onPress={() => router.push('/gig')}>
            <X size={24} color={palette.text} aria-hidden />
          </Button>
        </Going>
      </Row>
      <Trouble inset={14} />
      {!oneLine && chips}
      <AllPads key={bank.id} banks={banks} bank={bank} />
    </Column>
  );
}

function AllPads({ banks, bank }: BankProps) {
  const pads = useBankPads(bank);
  return pads.length === 0 ? <Empty /> : <Fitting banks={banks} pads={pads} />;
}

type FittingProps = Pick<BankProps, 'banks'> & { readonly pads: ReturnType<typeof useBankPads> };

function Fitting({ banks, pads }: FittingProps) {
  const { room, width, height } = useRoom();
  const [page, setPage] = useState(0);
  const whole = fittedPads(width, height, pads.length, GAP);
  const {
    columns,
    rows,
    height: high,
    pages,
  } = whole.pages === 1 ? whole : fittedPads(width, height - TURNING - GAP, pads.length, GAP);
  const onOne = columns * rows;
  const here = Math.min(page, pages - 1);
  return (
    <View flex={1} minHeight={0} marginHorizontal={12} marginBottom={10} position="relative" overflow="hidden">
      <div ref={room} style={{ position: 'absolute', inset: 0, touchAction: 'none' }}>
        {width > 0 && (
          <div
            role="group"
            aria-label={WORDS.pads}
            style={{ display: 'grid', gap: GAP, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
            // A finger that stays opens no menu.
            onContextMenu={(event: MouseEvent) => event.preventDefault()}
          >
            {pads.slice(here * onOne, (here + 1) * onOne).map((one, i) => (
              <OnePad
                key={`${one.pad.look} ${i}`}
                {...one}
                banks={banks}
                height={high}
                small={width / columns < SMALL}
              />
            ))}
          </div>
        )}
        {pages > 1 && (
          <Row position="absolute" bottom={0} left={0} right={0} gap={6} justifyContent="center">
            {Array.from({ length: pages }, (_, i) => (
              <Chip
                key={i}
                small
                name={`${i + 1}`}
                label={WORDS.padsFrom(i * onOne + 1, Math.min(pads.length, (i + 1) * onOne))}
                on={i === here}
                onPress={() => setPage(i)}
              />
            ))}
          </Row>
        )}
      </div>
    </View>
  );
}

function Empty() {
  const router = useRouter();
  return <NoPads words={WORDS.noPadHere} way={WORDS.backToGig} onWay={() => router.push('/gig')} alone />;
}

/** How large an element is, in pixels; nothing until it is known. */
function useRoom() {
  const room = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const watch = new ResizeObserver(
      ([entry]) => entry && setSize({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    if (room.current) watch.observe(room.current);
    return () => watch.disconnect();
  }, []);
  return { room, ...size };
}
