// The patch: the address ruler, each lamp with its switches, many changed at once, and the sheet to print.

import { useMemo, useState, type ReactNode } from 'react';
import { Text, View } from '@tamagui/core';
import { finder } from '@hovlix/core/letters';
import { footprint, loads, overlaps, type Patched, type Rig } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { address } from '@hovlix/core/units';
import { useHovlix } from '../../../host/hovlix';
import { sheetFormats } from '../../../host/files/formats';
import { saveFile } from '../../../host/files/save-file';
import { useSession } from '../../../host/session';
import { Field } from '../../../ui/Field';
import { LongList } from '../../../ui/LongList';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { tintsByFixture } from '../model';
import { ManyLamps } from './ManyLamps';
import { Ruler } from './Ruler';
import { Switches } from './Switches';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly rig: Rig;
  readonly patched: readonly Patched[];
  readonly chosen: ReadonlySet<string>;
  readonly onChosen: (ids: readonly string[]) => void;
  readonly onChange: (lamp: string) => void;
  /** Shown under the lamp that is chosen. */
  readonly detail?: ReactNode;
};

export function ListTab({ show, rig, patched, chosen, onChosen, onChange, detail }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const [many, setMany] = useState(false);
  const [sheet, setSheet] = useState(false);
  const [text, setText] = useState('');
  const found = useMemo(() => searched(patched, rig, show, text), [patched, rig, show, text]);
  const tintOf = useMemo(() => tintsByFixture(rig, show.roles), [rig, show.roles]);
  const pairs = useMemo(() => overlaps(patched), [patched]);
  const { universes, circuits, unknown } = useMemo(() => loads(rig, show.profiles), [rig, show.profiles]);
  const toggle = (id: string) =>
    many ? onChosen(chosen.has(id) ? [...chosen].filter((one) => one !== id) : [...chosen, id]) : onChosen([id]);
  const lamps = patched.filter(({ fixture }) => chosen.has(fixture.id));
  const move = ({ fixture }: Patched, to: number) => {
    app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: [{ ...fixture, address: address(to) }] });
    say(WORDS.listensAtNow(fixture.name, to), { undo: app.document.takingBack() });
  };
  return (
    <Column>
      {pairs.slice(0, 4).map(([a, b]) => (
        <Row key={`${a.id} ${b.id}`} paddingHorizontal={16} paddingBottom={10} gap={12} justifyContent="space-between">
          <Words color="$fault" flexShrink={1}>
            {WORDS.shareChannelsThey(a.name, b.name)}
          </Words>
          <Button onPress={() => onChange(b.id)}>{WORDS.fix}</Button>
        </Row>
      ))}
      <Ruler
        rig={rig}
        profiles={show.profiles}
        patched={patched}
        tintOf={tintOf}
        chosen={chosen}
        onChoose={toggle}
        onMove={move}
      />
      <Row gap={8} paddingHorizontal={16} paddingBottom={8} flexWrap="wrap">
        <Button pressed={many} kind={many ? 'primary' : 'plain'} onPress={() => setMany(!many)}>
          {WORDS.chooseSeveral}
        </Button>
        {many && lamps.length > 0 && <Button onPress={() => setSheet(true)}>{WORDS.change(lamps.length)}</Button>}
        {many && (
          <Button kind="quiet" onPress={() => onChosen(found.map(({ fixture }) => fixture.id))}>
            {WORDS.all}
          </Button>
        )}
      </Row>
      <Column paddingHorizontal={12}>
        {patched.length > SEARCHED && (
          <Field label={WORDS.searchTheLamps} value={text} onChange={setText} placeholder={WORDS.nameNumberType} />
        )}
        {found.length === 0 && patched.length > 0 && <Words paddingVertical={12}>{WORDS.noLampMatches}</Words>}
        <LongList items={found.map((lamp) => ({ id: lamp.fixture.id as string, lamp }))} height={60}>
          {({ lamp }) => (
            <>
              <LampRow {...lamp} on={chosen.has(lamp.fixture.id)} onChoose={toggle} />
              {lamps.length === 1 && lamps[0]!.fixture.id === lamp.fixture.id && detail}
            </>
          )}
        </LongList>
      </Column>
      {patched.length > 0 && (
        <Column paddingHorizontal={16} paddingTop={16} gap={12}>
          {universes.size > 0 && (
            <Quiet>
              {WORDS.load}
              {[...universes].map(([universe, watts]) => WORDS.universeW(universe, watts)).join(', ')}
              {circuits.size > 0 &&
                `; ${[...circuits].map(([circuit, watts]) => WORDS.circuitW(circuit, watts)).join(', ')}`}
              {unknown > 0 && `; power of ${unknown} ${unknown === 1 ? 'lamp' : 'lamps'} not known`}.
            </Quiet>
          )}
          <Row gap={8} flexWrap="wrap">
            <Button onPress={() => void sheetAs('pdf', show, rig)}>{WORDS.patchSheetPdf}</Button>
            <Button onPress={() => void sheetAs('csv', show, rig)}>{WORDS.patchSheetCsv}</Button>
          </Row>
        </Column>
      )}
      {sheet && <ManyLamps show={show} rig={rig} lamps={lamps} onClose={() => setSheet(false)} />}
    </Column>
  );
}

/** From so many lamps on, the list can be searched. */
const SEARCHED = 8;

/** Lamps whose name, number, maker, model or role has each of the words. */
function searched(patched: readonly Patched[], rig: Rig, show: Show, text: string): readonly Patched[] {
  if (text.trim() === '') return patched;
  const fits = finder(text);
  const roleOf = (id: string) => {
    const cast = rig.casting.find(({ fixtures }) => fixtures.some((one) => one === id));
    return show.roles.find((role) => role.id === cast?.role)?.name ?? '';
  };
  return patched.filter(({ fixture, profile }) =>
    fits(`${fixture.name} ${fixture.number} ${profile.maker} ${profile.model} ${roleOf(fixture.id)}`),
  );
}

async function sheetAs(type: 'pdf' | 'csv', show: Show, rig: Rig): Promise<void> {
  const { madeNow, patchRows, patchSheetCsv, patchSheetPdf } = await sheetFormats();
  const rows = patchRows(rig, show.profiles, show.roles);
  const name = WORDS.patchSheet(rig.name, type);
  if (type === 'csv') return saveFile(name, patchSheetCsv(rows), 'text/csv');
  const pdf = await patchSheetPdf(rows, { show: show.name, rig: rig.name, ...madeNow() });
  saveFile(name, pdf as BlobPart, 'application/pdf');
}

type RowProps = Patched & { readonly on: boolean; readonly onChoose: (fixture: string) => void };

function LampRow({ fixture, profile, mode, on, onChoose }: RowProps) {
  return (
    <View
      render="button"
      aria-label={WORDS.address(fixture.name, fixture.address)}
      aria-pressed={on}
      onPress={() => onChoose(fixture.id)}
      flexDirection="row"
      alignItems="center"
      gap={12}
      minHeight={60}
      paddingHorizontal={8}
      borderWidth={0}
      borderBottomWidth={1}
      borderColor="$line"
      backgroundColor={on ? '$well' : 'transparent'}
      cursor="pointer"
    >
      <Figures width={26}>{fixture.number}</Figures>
      <Column flex={1} minWidth={0} alignItems="flex-start">
        <Text fontFamily="$body" fontWeight="600" fontSize={15} lineHeight={20} color="$text">
          {fixture.name}
        </Text>
        <Quiet numberOfLines={1}>{WORDS.ch(profile.maker, profile.model, footprint(mode))}</Quiet>
      </Column>
      <Figures fontSize={16} color="$text">
        {fixture.address}
      </Figures>
      <Switches address={fixture.address} />
    </View>
  );
}
