// A chase: its steps one below the other as pictures, how each comes and stays, and how the whole runs.

import { useState } from 'react';
import { router } from 'expo-router';
import { useMedia } from '@tamagui/core';
import ArrowLeft from 'lucide-react-native/icons/arrow-left';
import { courseOf, scaledTo, DIRECTIONS, type Chase, type Step } from '@hovlix/core/light';
import type { Show } from '@hovlix/core/show';
import { seconds } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { clockNow, toggleLook } from '../../../host/conduct/gestures';
import { useHovlix, useShow } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { useIsOn } from '../../../host/conduct/use-is-on';
import { Card } from '../../../ui/card';
import { Pair, decimal, named, Typed, wholeNumber } from '../../../ui/form';
import { MicrophoneSwitch } from '../../microphone/MicrophoneSwitch';
import { NotHere } from '../../../ui/NotHere';
import { usePalette } from '../../../ui/palette';
import { Button, Column, PlaceHead, Quiet, Row, Words, Grid } from '../../../ui/pieces';
import { ScrollArea } from '../../../ui/ScrollArea';
import { Segments } from '../../../ui/Segments';
import { SpeedRow } from '../../../ui/SpeedRow';
import { valuesInSteps } from '../model';
import { TimesForm } from '../TimesForm';
import { AddStep } from './AddStep';
import { ManySteps } from './ManySteps';
import { withStepAfter } from './model';
import { StepFaders } from './StepFaders';
import { Steps } from './Steps';
import { WORDS } from './words';

export function ChasePlace({ id }: { readonly id: string }) {
  const show = useShow((one) => one);
  const chase = show?.chases.find((one) => one.id === id);
  if (!show) return null;
  return chase ? <Editor show={show} chase={chase} /> : <NotHere what={WORDS.chaseNotShow} />;
}

type Props = { readonly show: Show; readonly chase: Chase };

/** Steps that were copied, for this visit: they can go into any chase. */
let copied: readonly Step[] = [];

function Editor({ show, chase }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const { wide } = useMedia();
  const say = useSession((session) => session.say);
  const on = useIsOn(chase.id);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  // Steps are being added, with so many of the chase before them.
  const [adding, setAdding] = useState<number | null>(null);
  const [faders, setFaders] = useState(false);
  const [hasCopy, setHasCopy] = useState(copied.length > 0);
  const put = (next: Chase) => app.document.make({ type: 'store-chase', chase: next });
  const fresh = () => freshId() as Step['id'];
  const insertCopies = (steps: readonly Step[], after: number) =>
    put({
      ...chase,
      steps: [
        ...chase.steps.slice(0, after + 1),
        ...steps.map((step) => ({ ...step, id: fresh() })),
        ...chase.steps.slice(after + 1),
      ],
    });
  const last = chase.steps.length - 1;
  const picked = chase.steps.filter((step) => chosen.has(step.id));
  const pasteAfter = picked.length > 0 ? chase.steps.indexOf(picked.at(-1)!) : last;
  const playFrom = (place: number) => {
    const course = courseOf(chase);
    const { beat, pulse } = clockNow(app);
    const from = course.starts[[...course.order.subarray(0, course.length)].indexOf(place)] ?? 0;
    app.conducting.act({ type: 'look-on', look: chase.id, fade: seconds(0), beat, pulse, from });
    if (chase.pace === 'hand' && place > 0) app.conducting.act({ type: 'step', look: chase.id, by: place, beat });
  };
  return (
    <ScrollArea>
      <PlaceHead title={chase.name}>
        <Button label={WORDS.backLooks} kind="quiet" onPress={() => router.replace('/looks')}>
          <ArrowLeft size={20} color={palette.text} aria-hidden />
        </Button>
        {on && chase.pace === 'hand' && (
          <Button onPress={() => app.conducting.act({ type: 'step', look: chase.id, by: 1, beat: clockNow(app).beat })}>
            {WORDS.nextStep}
          </Button>
        )}
        <Button kind="primary" disabled={chase.steps.length === 0} onDown={() => toggleLook(app, chase.id)}>
          {on ? WORDS.stop : WORDS.run}
        </Button>
      </PlaceHead>
      <Grid
        gridTemplateColumns={wide ? 'minmax(0, 3fr) minmax(320px, 2fr)' : 'minmax(0, 1fr)'}
        gap={14}
        paddingHorizontal={12}
        maxWidth={1180}
        alignItems="flex-start"
      >
        <Column gap={14} minWidth={0}>
          <Row justifyContent="space-between" gap={8} flexWrap="wrap">
            <Words fontWeight="600">
              {chase.steps.length === 0
                ? WORDS.noStepsYet
                : `${chase.steps.length} ${chase.steps.length === 1 ? 'step' : 'steps'}`}
            </Words>
            <Row gap={8} flexWrap="wrap">
              {hasCopy && <Button onPress={() => insertCopies(copied, pasteAfter)}>{WORDS.paste}</Button>}
              {chase.steps.length > 0 && (
                <Button
                  onPress={() =>
                    setChosen(
                      picked.length === chase.steps.length ? new Set() : new Set(chase.steps.map(({ id }) => id)),
                    )
                  }
                >
                  {picked.length === chase.steps.length ? WORDS.chooseNone : WORDS.chooseAll}
                </Button>
              )}
              <Button
                kind={chase.steps.length === 0 ? 'primary' : 'plain'}
                onPress={() => setAdding(chase.steps.length)}
              >
                {WORDS.addAStep}
              </Button>
            </Row>
          </Row>
          {chase.steps.length === 0 && <Quiet>{WORDS.chaseGoesFrom}</Quiet>}
          <Steps
            show={show}
            chase={chase}
            chosen={chosen}
            onChoose={(id, is) => setChosen(new Set(is ? [...chosen, id] : [...chosen].filter((one) => one !== id)))}
            onPut={put}
            onDouble={(place) => put(withStepAfter(chase, place, { id: fresh() }))}
            onPlay={playFrom}
          />
          {picked.length > 0 && (
            <ManySteps
              chase={chase}
              picked={picked}
              onPut={put}
              onCopy={() => {
                copied = picked;
                setHasCopy(true);
                say(WORDS.copiedPastePuts(picked.length, picked.length === 1 ? 'step is' : 'steps are'));
              }}
              onAdd={setAdding}
              onFaders={() => setFaders(true)}
              onClear={() => setChosen(new Set())}
            />
          )}
        </Column>
        <Column gap={14} minWidth={0}>
          {on && <SpeedRow id={chase.id} name={chase.name} />}
          <Running show={show} chase={chase} onPut={put} />
        </Column>
      </Grid>
      {faders && picked.length > 0 && (
        <StepFaders show={show} chase={chase} picked={picked} seen={!on} onPut={put} onClose={() => setFaders(false)} />
      )}
      {adding !== null && (
        <AddStep
          show={show}
          count={chase.steps.length}
          before={adding}
          onClose={() => setAdding(null)}
          onAdd={(step) => {
            const { look: _, ...times } = chase.steps[Math.max(0, adding - 1)] ?? {};
            const id = fresh();
            put(withStepAfter(chase, adding - 1, step === 'copy' ? { id } : { ...times, id, look: step, values: [] }));
            setAdding(step === 'copy' ? null : adding + 1);
            if (step === 'copy') router.push(`/looks/chase/${chase.id}/${id}`);
          }}
        />
      )}
    </ScrollArea>
  );
}

const DIRECTION_NAMES = { forward: 'Forward', back: 'Back', bounce: WORDS.backAndForth, random: 'Random' } as const;

/** Tempo, direction, loops and length of the whole. */
type RunningProps = { readonly show: Show; readonly chase: Chase; readonly onPut: (chase: Chase) => void };

function Running({ show, chase, onPut }: RunningProps) {
  const { total } = courseOf(chase);
  const unit = chase.pace === 'seconds' ? 'seconds' : 'beats';
  return (
    <Card title={WORDS.howItRuns}>
      <Typed label={WORDS.name} value={chase.name} read={named} onChange={(name) => onPut({ ...chase, name })} />
      <Segments
        label={WORDS.whatMoves}
        titled
        value={chase.pace}
        choices={[
          { value: 'beats', name: WORDS.beats },
          { value: 'seconds', name: WORDS.seconds },
          { value: 'hand', name: WORDS.byHand },
          { value: 'sound', name: WORDS.drums },
        ]}
        onChoose={(pace) => onPut({ ...chase, pace })}
      />
      {chase.pace === 'sound' && (
        <>
          <Segments
            label={WORDS.whichStrokesMove}
            titled
            value={chase.drum ?? 'kick'}
            choices={[
              { value: 'kick', name: WORDS.kick },
              { value: 'snare', name: WORDS.snare },
              { value: 'hat', name: WORDS.hat },
            ]}
            onChoose={(drum) => onPut({ ...chase, drum })}
          />
          <MicrophoneSwitch />
          <Quiet>{WORDS.strokesHeardSong}</Quiet>
        </>
      )}
      <Segments
        label={WORDS.direction}
        titled
        value={chase.direction}
        choices={DIRECTIONS.map((value) => ({ value, name: DIRECTION_NAMES[value] }))}
        onChoose={(direction) => onPut({ ...chase, direction })}
      />
      <Pair>
        {chase.steps.length > 0 && (chase.pace === 'beats' || chase.pace === 'seconds') && (
          <Typed
            label={WORDS.wholeLength(unit)}
            value={Math.round(total * 1000) / 1000}
            read={decimal(0.0625, 4096)}
            onChange={(length) => onPut(scaledTo(chase, length))}
          />
        )}
        <Typed
          label={WORDS.repeats0Loop}
          numeric
          value={chase.loops}
          read={wholeNumber(0, 10000)}
          onChange={(loops) => onPut({ ...chase, loops })}
        />
      </Pair>
      <TimesForm
        show={show}
        values={valuesInSteps(show, chase)}
        said={chase}
        timed={false}
        onSay={({ snaps }) => {
          const { snaps: _, ...rest } = chase;
          onPut(snaps ? { ...rest, snaps } : rest);
        }}
      />
    </Card>
  );
}
