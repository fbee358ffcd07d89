// The steps of a chase, in their order; the one that is lit now is marked.

import { useEffect, useMemo, useRef } from 'react';
import { router } from 'expo-router';
import { View } from '@tamagui/core';
import { courseOf, type Chase, type Position, type Step } from '@hovlix/core/light';
import { chasePlace, heardPlace, ownBeat } from '@hovlix/core/live';
import type { Show } from '@hovlix/core/show';
import { clockNow } from '../../../host/conduct/gestures';
import { useHovlix } from '../../../host/hovlix';
import { eachFrame, REST_MS } from '../../../ui/each-frame';
import { LookPicture } from '../../../ui/LookPicture';
import { decimal, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words, Grid } from '../../../ui/pieces';
import { usePalette } from '../../../ui/palette';
import { SortableList } from '../../../ui/SortableList';
import { TickBox } from '../../../ui/Ticks';
import { changesBetween, stepName, valuesOf } from './model';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly chase: Chase;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (id: string, on: boolean) => void;
  readonly onPut: (chase: Chase) => void;
  readonly onDouble: (place: number) => void;
  readonly onPlay: (place: number) => void;
};

export function Steps({ show, chase, chosen, onChoose, onPut, onDouble, onPlay }: Props) {
  const list = useRef<HTMLDivElement>(null);
  useRunningMark(chase, list);
  const change = (id: string, step: Partial<Step>) =>
    onPut({ ...chase, steps: chase.steps.map((one) => (one.id === id ? { ...one, ...step } : one)) });
  return (
    <div ref={list}>
      <SortableList
        items={chase.steps}
        nameOf={(step) => WORDS.step(chase.steps.indexOf(step) + 1)}
        onOrder={(steps) => onPut({ ...chase, steps: [...steps] })}
      >
        {(step) => {
          const place = chase.steps.findIndex((one) => one.id === step.id);
          return (
            <StepRow
              show={show}
              chase={chase}
              step={step}
              place={place}
              chosen={chosen.has(step.id)}
              onChoose={(on) => onChoose(step.id, on)}
              onChange={(changed) => change(step.id, changed)}
              onDouble={() => onDouble(place)}
              onPlay={() => onPlay(place)}
            />
          );
        }}
      </SortableList>
    </div>
  );
}

type RowProps = {
  readonly show: Show;
  readonly chase: Chase;
  readonly step: Step;
  readonly place: number;
  readonly chosen: boolean;
  readonly onChoose: (on: boolean) => void;
  readonly onChange: (step: Partial<Step>) => void;
  readonly onDouble: () => void;
  readonly onPlay: () => void;
};

function StepRow({ show, chase, step, place, chosen, onChoose, onChange, onDouble, onPlay }: RowProps) {
  const name = stepName(show, step, place);
  const values = useMemo(() => valuesOf(show, step), [show, step]);
  const before = chase.steps[place - 1];
  const changes = before ? changesBetween(show, before, step) : [];
  const unit = chase.pace === 'seconds' ? 's' : 'beats';
  return (
    <Column flex={1} gap={10} paddingVertical={10} minWidth={0} data-step={place} borderRadius={14}>
      <Row gap={10}>
        <View
          render="button"
          role="checkbox"
          aria-checked={chosen}
          aria-label={WORDS.chooseStep(place + 1)}
          onPress={() => onChoose(!chosen)}
          width={44}
          height={44}
          alignItems="center"
          justifyContent="center"
          borderWidth={0}
          backgroundColor="transparent"
          cursor="pointer"
        >
          <TickBox on={chosen} />
        </View>
        <View width={116} borderRadius={10} overflow="hidden" flexShrink={0}>
          <LookPicture look={values} height={68} />
        </View>
        <Column flex={1} minWidth={0} gap={2}>
          <Words fontWeight="600" numberOfLines={1}>
            {place + 1}. {name}
          </Words>
          {changes.length > 0 && <Quiet numberOfLines={2}>{WORDS.changes(changes.join('; '))}</Quiet>}
          {before && changes.length === 0 && <Quiet>{WORDS.sameAsStep(place)}</Quiet>}
        </Column>
      </Row>
      <Grid gridTemplateColumns="repeat(3, minmax(0, 1fr))" gap={8}>
        <Typed
          label={WORDS.fade(unit)}
          value={step.fade}
          read={decimal(0, 4096)}
          onChange={(fade) => onChange({ fade })}
        />
        {chase.pace !== 'hand' && (
          <Typed
            label={WORDS.hold(unit)}
            value={step.hold}
            read={decimal(0, 4096)}
            onChange={(hold) => onChange({ hold })}
          />
        )}
        <Typed
          label={WORDS.level}
          value={Math.round(step.level * 100)}
          read={decimal(0, 100)}
          onChange={(level) => onChange({ level: level / 100 })}
        />
      </Grid>
      <Row gap={4} flexWrap="wrap">
        <Button kind="quiet" label={WORDS.playFromStep(place + 1)} onPress={onPlay}>
          {WORDS.fromHere}
        </Button>
        <Button
          kind="quiet"
          label={WORDS.changeLightStep(place + 1)}
          onPress={() => router.push(`/looks/chase/${chase.id}/${step.id}`)}
        >
          {WORDS.light}
        </Button>
        <Button kind="quiet" label={WORDS.duplicateStep(place + 1)} onPress={onDouble}>
          {WORDS.duplicate}
        </Button>
      </Row>
    </Column>
  );
}

/** Marks the step that is lit, sixty times a second and without React. */
function useRunningMark(chase: Chase, list: React.RefObject<HTMLDivElement | null>): void {
  const app = useHovlix();
  const palette = usePalette();
  useEffect(() => {
    const course = courseOf(chase);
    const position: Position = { step: -1, before: -1, share: 1, ended: true };
    let shown = -1;
    const draw = () => {
      const { live } = app.conducting.store.getState();
      const one = live.standing.find(({ look, on }) => on && look === chase.id);
      const now = app.conducting.now();
      // The strokes of a song are known where it is rendered, not here.
      const unknown = chase.pace === 'sound' && live.song?.playing;
      const safe = app.document.store.getState().show?.safety.on ?? false;
      if (one && chase.pace === 'sound') heardPlace(live, one, course, chase.drum ?? 'kick', safe, now, position);
      else if (one) chasePlace(one, course, chase.pace, ownBeat(live, one, clockNow(app).beat, now), now, 1, position);
      const step = one && !position.ended && !unknown ? position.step : -1;
      const rest = step < 0 && !one ? REST_MS : 0;
      if (step === shown) return rest;
      shown = step;
      list.current?.querySelectorAll<HTMLElement>('[data-step]').forEach((row) => {
        const lit = row.dataset['step'] === String(step);
        row.style.boxShadow = lit ? `inset 4px 0 0 ${palette.doing}` : 'none';
        row.setAttribute('aria-current', lit ? 'step' : 'false');
      });
      return rest;
    };
    return eachFrame(draw, app.conducting.store.subscribe);
  }, [app, chase, list, palette]);
}
