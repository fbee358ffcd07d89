// Storing a look: what goes in, what it is called, and how it comes and goes.

import { useState } from 'react';
import { router } from 'expo-router';
import { FAMILIES, familiesOf, inFamilies, type Family, type Look, type LookValue } from '@hovlix/core/light';
import { isOn } from '@hovlix/core/live';
import { nextNumber, rigInUse, type Show } from '@hovlix/core/show';
import { beats, seconds } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { toggleLook } from '../../../host/conduct/gestures';
import { useDraft, useHovlix, useLive } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { named, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { Sheet } from '../../../ui/Sheet';
import { Ticks } from '../../../ui/Ticks';
import { FadeForm, type Fades } from '../FadeForm';

import { draftLines, FAMILY_NAMES, familyOf } from './model';
import { WORDS } from './words';

type Props = { readonly show: Show; readonly onClose: () => void };

export function StoreSheet({ show, onClose }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const touched = useDraft((state) => state.values);
  const from = useDraft((state) => state.look);
  const stored = show.looks.find((one) => one.id === from);
  const standing = useLive((live) => live.standing);
  const [how, setHow] = useState<'update' | 'new'>(stored ? 'update' : 'new');
  const [what, setWhat] = useState<'touched' | 'everything'>('touched');
  const [left, setLeft] = useState<ReadonlySet<Family>>(new Set());
  const number = nextNumber(show);
  const [name, setName] = useState(WORDS.look(number));
  const [fades, setFades] = useState<Fades>(stored ?? { fadeIn: beats(1), fadeOut: beats(1) });

  const on = standing.filter((one) => isOn(one, app.conducting.now())).map((one) => one.look);
  const below =
    what === 'everything' ? on.flatMap((id) => show.looks.find((look) => look.id === id)?.values ?? []) : [];
  const all: readonly LookValue[] = [...below, ...touched];
  const families = FAMILIES.filter((family) => all.some((value) => familiesOf(value, familyOf).has(family)));
  const kept = inFamilies(all, new Set(families.filter((family) => !left.has(family))), familyOf);

  const store = () => {
    const { fadeIn, fadeOut, hold, keep, clean } = fades;
    const timing = {
      fadeIn,
      fadeOut,
      keep: keep ?? false,
      ...(hold === undefined ? {} : { hold }),
      ...(clean ? { clean } : {}),
    };
    const { hold: _hold, clean: _clean, ...rest } = stored ?? { hold: undefined, clean: undefined };
    const look: Look =
      how === 'update' && stored
        ? { ...(rest as Look), ...timing, values: [...inFamilies(stored.values, left, familyOf), ...kept] }
        : { id: freshId() as Look['id'], number, name, ...timing, values: [...kept] };
    app.document.make({ type: 'store-look', look });
    const takeBack = app.document.takingBack();
    // The light stays as it is: what was in hand goes over into the look, which is on now.
    if (!app.conducting.store.getState().live.standing.some((one) => one.look === look.id && one.on))
      app.conducting.act({ type: 'look-on', look: look.id, fade: seconds(0) });
    app.draft.close(0);
    say(how === 'update' ? WORDS.isChanged(look.name) : WORDS.stored(look.name), {
      undo: () => {
        takeBack();
        if (how === 'new') toggleLook(app, look.id);
      },
    });
    onClose();
    router.replace('/looks');
  };
  return (
    <Sheet title={how === 'update' && stored ? WORDS.storeNamed(stored.name) : WORDS.storeALook} onClose={onClose}>
      {stored && (
        <Segments
          label={WORDS.whereItGoes}
          value={how}
          choices={[
            { value: 'update', name: WORDS.changeNamed(stored.name) },
            { value: 'new', name: 'A new look' },
          ]}
          onChoose={setHow}
        />
      )}
      {how === 'new' && <Typed label={WORDS.name} value={name} read={named} onChange={setName} />}
      <Column gap={8}>
        <Segments
          label={WORDS.whatGoesIn}
          titled
          value={what}
          choices={[
            { value: 'touched', name: WORDS.whatYouTouched },
            { value: 'everything', name: WORDS.everythingCurrentlyOn },
          ]}
          onChoose={setWhat}
        />
        <Quiet>{what === 'touched' ? WORDS.onlyWhatYou : on.length === 0 ? WORDS.noLookNow : WORDS.whatLooksSay}</Quiet>
      </Column>
      {families.length > 1 && (
        <Ticks
          label={WORDS.familiesOfAttributes}
          items={families.map((family) => ({ id: family, name: FAMILY_NAMES[family] }))}
          ticked={new Set(families.filter((family) => !left.has(family)))}
          onTick={(id, is) => setLeft(new Set(is ? [...left].filter((one) => one !== id) : [...left, id as Family]))}
        />
      )}
      <Column gap={4} role="status" aria-label={WORDS.thisIsStored}>
        <Words fontWeight="600">{WORDS.thisIsStored}</Words>
        {kept.length === 0 && <Quiet>{WORDS.nothingTickLeast}</Quiet>}
        {draftLines(kept, show.roles).map((line, i) => (
          <Quiet key={`${i} ${line}`}>{line}</Quiet>
        ))}
        {kept.some((value) => value.lamps) && <Quiet>{WORDS.singleLampsKnown(rigInUse(show).name)}</Quiet>}
      </Column>
      <FadeForm fades={fades} onChange={(change) => setFades({ ...fades, ...change })} />
      <Row gap={8}>
        <Button kind="primary" disabled={kept.length === 0} onPress={store}>
          {how === 'update' && stored ? WORDS.storeTheChange : WORDS.storeTheLook}
        </Button>
      </Row>
    </Sheet>
  );
}
