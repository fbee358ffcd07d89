// Chosen steps of a chase on faders, the same lamps in all of them at once; and what snaps as they come.

import { useEffect, useState } from 'react';
import { withFaders, type Chase, type Faders, type Step } from '@hovlix/core/light';
import { patchedFixtures, type Patched } from '@hovlix/core/rig';
import { rigInUse, type Show } from '@hovlix/core/show';
import { counted } from '@hovlix/core/counted';
import { useHovlix } from '../../../host/hovlix';
import { Chip } from '../../../ui/Chip';
import { Quiet, Row } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Sheet } from '../../../ui/Sheet';
import { FadersPanel } from '../faders/FadersPanel';
import { TimesForm } from '../TimesForm';
import { valuesOf } from './model';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly chase: Chase;
  readonly picked: readonly Step[];
  /** The first of them is on stage meanwhile; not where the chase itself runs. */
  readonly seen: boolean;
  readonly onPut: (chase: Chase) => void;
  readonly onClose: () => void;
};

export function StepFaders({ show, chase, picked, seen, onPut, onClose }: Props) {
  const { draft } = useHovlix();
  const first = picked[0]!;
  useEffect(() => {
    if (!seen) return;
    draft.open({ id: `step ${first.id}`, values: valuesOf(show, first) });
    return () => draft.close(0);
    // As it is when the sheet opens; what is moved then goes to the stage by itself.
    // oxlint-disable-next-line react/exhaustive-deps -- see above
  }, [draft, seen, first.id]);
  const rig = rigInUse(show);
  const known = new Map(patchedFixtures(rig, show.profiles).map((one) => [one.fixture.id as string, one]));
  const castOf = (role: string) => rig.casting.find((cast) => cast.role === role)?.fixtures ?? [];
  const roles = show.roles.filter(({ id }) => castOf(id).length > 0);
  // The roles that the steps are about come first to mind.
  const meant = new Set(picked.flatMap((step) => valuesOf(show, step).flatMap(({ role }) => role ?? [])));
  const [role, setRole] = useState(roles.find(({ id }) => meant.has(id))?.id ?? roles[0]?.id);
  const lamps = role === undefined ? [] : castOf(role).flatMap((id) => known.get(id) ?? []);
  const places = new Map(picked.map(({ id }, i) => [id, i]));
  const changed = (change: (step: Step, place: number) => Step) => {
    const steps = chase.steps.map((step) => {
      const place = places.get(step.id);
      return place === undefined ? step : change(step, place);
    });
    onPut({ ...chase, steps });
    const now = steps.find(({ id }) => id === first.id);
    if (seen && now) draft.put(valuesOf(show, now), 'faders');
  };
  const move = (attribute: string, moved: readonly Patched[], faders: Faders) => {
    const ids = moved.map(({ fixture }) => fixture.id);
    changed((step, place) => ({
      ...step,
      values: [...withFaders(step.values, ids, attribute, faders[place]!, rig.casting)],
    }));
  };
  return (
    <Sheet title={WORDS.onFaders(counted(picked.length, 'step'))} low onClose={onClose}>
      <ScrollArea sideways>
        <Row gap={6} role="group" aria-label={WORDS.role}>
          {roles.map(({ id, name }) => (
            <Chip key={id} small name={name} on={id === role} onPress={() => setRole(id)} />
          ))}
        </Row>
      </ScrollArea>
      {lamps.length === 0 ? (
        <Quiet>{WORDS.noRoleShow}</Quiet>
      ) : (
        <FadersPanel
          key={role}
          lamps={lamps}
          casting={rig.casting}
          sets={picked.map((step) => valuesOf(show, step))}
          onMove={move}
        />
      )}
      <TimesForm
        show={show}
        values={picked.flatMap((step) => valuesOf(show, step))}
        said={picked[0]?.snaps ? { snaps: picked[0].snaps } : {}}
        timed={false}
        onSay={({ snaps }) => changed(({ snaps: _, ...step }) => (snaps ? { ...step, snaps } : step))}
      />
    </Sheet>
  );
}
