// The light of one step of a chase, made like a look.

import { router } from 'expo-router';
import { useEffect } from 'react';
import { useHovlix, useLink, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { NotHere } from '../../../ui/NotHere';
import { valuesOf } from '../chase/model';
import { Editor } from './EditPlace';
import { WORDS } from './words';

export function StepPlace({ chase: of, step: id }: { readonly chase: string; readonly step: string }) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const show = useShow((one) => one);
  const chase = show?.chases.find((one) => one.id === of);
  const step = chase?.steps.find((one) => one.id === id);
  const found = useLink((link) => link.conductor !== 'looking');
  const ready = show !== undefined && found;
  useEffect(() => {
    if (ready && show && step) app.draft.open({ id: `step ${step.id}`, values: valuesOf(show, step) });
    // The step as it is when the place opens.
    // oxlint-disable-next-line react/exhaustive-deps -- see above
  }, [app, ready, id]);
  if (!show) return null;
  if (!chase || !step) return <NotHere what={WORDS.stepNotShow} />;
  const back = () => router.replace(`/looks/chase/${chase.id}`);
  const store = () => {
    const { look: _, ...rest } = step;
    const { values } = app.draft.store.getState();
    const steps = chase.steps.map((one) => (one.id === id ? { ...rest, values: [...values] } : one));
    app.document.make({ type: 'store-chase', chase: { ...chase, steps } });
    app.draft.close(0);
    say(WORDS.stepChanged, { undo: app.document.takingBack() });
    back();
  };
  return (
    <Editor
      show={show}
      title={WORDS.step(chase.name, chase.steps.indexOf(step) + 1)}
      onStore={store}
      onLeave={() => {
        app.draft.close(0);
        back();
      }}
    />
  );
}
