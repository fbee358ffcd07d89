import { testShow } from '../testing/show';
import { id } from '../units';
import { rigInUse, unlitPlays, type Show } from '.';

/** The test show in a rig where only some roles are played. */
function playedBy(...roles: readonly string[]): Show {
  const show = testShow();
  const rig = rigInUse(show);
  const casting = rig.casting.map((cast) => (roles.includes(cast.role) ? cast : { ...cast, fixtures: [] }));
  return { ...show, rigs: show.rigs.map((one) => (one.id === rig.id ? { ...rig, casting } : one)) };
}

const roles = rigInUse(testShow()).casting.map(({ role }) => role as string);

test('with every role played each look lights something; with none, those that are made for roles do not', () => {
  expect([...unlitPlays(testShow())]).toEqual([]);
  const { looks } = testShow();
  const forRoles = looks.filter(({ values }) => values.length > 0 && values.every(({ lamps }) => !lamps));
  expect([...unlitPlays(playedBy())].sort()).toEqual(
    expect.arrayContaining(forRoles.map((look) => look.id as string).sort()),
  );
});

test('one role that is played is enough, and lamps named by themselves are always there', () => {
  for (const role of roles)
    for (const look of testShow().looks) {
      const made = look.values.flatMap((value) => value.role ?? []) as string[];
      if (made.includes(role)) expect(unlitPlays(playedBy(role)).has(look.id)).toBe(false);
    }
  const show = playedBy();
  const look = {
    ...show.looks[0]!,
    values: [{ ...show.looks[0]!.values[0]!, role: undefined, lamps: [id<'Fixture'>('a')] }],
  };
  expect(unlitPlays({ ...show, looks: [look as never], chases: [] }).size).toBe(0);
});

test('a chase is lit by the looks of its steps', () => {
  const of = (show: Show): Show => {
    const look = show.looks.find(({ values }) => values.some(({ role }) => role))!;
    const chase = { id: id<'Chase'>('c'), steps: [{ look: look.id, values: [] }] };
    return { ...show, chases: [chase as never] };
  };
  expect(unlitPlays(of(playedBy(...roles))).has('c')).toBe(false);
  expect(unlitPlays(of(playedBy())).has('c')).toBe(true);
});
