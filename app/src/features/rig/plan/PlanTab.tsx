// The plan with its tools: hang lamps, dim them with a finger, drag aims, draw the room.

import { useMemo, useState, type ReactNode } from 'react';
import { useMedia } from '@tamagui/core';
import Layers from 'lucide-react-native/icons/layers-2';
import Magnet from 'lucide-react-native/icons/magnet';
import Maximize from 'lucide-react-native/icons/maximize';
import PersonStanding from 'lucide-react-native/icons/person-standing';
import { panTiltTo, undrawn, type Aim, type Patched, type Point, type Rig } from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { hand } from '../../../host/conduct/hold-lamps';
import { useHovlix, useLive, useStage } from '../../../host/hovlix';
import { usePalette } from '../../../ui/palette';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { Segments } from '../../../ui/Segments';
import { heldLamps, namesOf, tintsByFixture } from '../model';
import { AimsPanel } from './AimsPanel';
import { HungPanel } from './HungPanel';
import { PlanPicture } from './PlanPicture';
import type { PlanMode } from './scene';
import { RoomPanel } from './RoomPanel';
import type { Window } from './window';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly rig: Rig;
  readonly patched: readonly Patched[];
  readonly chosen: ReadonlySet<string>;
  readonly onChosen: (ids: readonly string[]) => void;
  readonly onDirect: (lamp: Patched) => void;
  readonly onChange: (lamp: Patched) => void;
  /** What can be done with the rig as a whole. */
  readonly children: ReactNode;
};

export function PlanTab({ show, rig, patched, chosen, onChosen, onDirect, onChange, children }: Props) {
  const app = useHovlix();
  const palette = usePalette();
  const { wide } = useMedia();
  const [mode, setMode] = useState<PlanMode>('hang');
  const [from, setFrom] = useState<'above' | 'audience'>('above');
  const [snaps, setSnaps] = useState(true);
  const [window, setWindow] = useState<Window | null>(null);
  const [thing, setThing] = useState<string | null>(null);
  const [deaf, setDeaf] = useState<readonly string[]>([]);
  const inHand = useLive((live) => live.held);
  const notes = useStage().notes;
  const held = useMemo(() => heldLamps(patched, inHand), [patched, inHand]);
  const hands = useMemo(() => hand(app), [app]);
  const tintOf = useMemo(() => tintsByFixture(rig, show.roles), [rig, show.roles]);
  const lamps = patched.filter(({ fixture }) => chosen.has(fixture.id));
  const aim = show.aims.find(({ id }) => id === thing);
  const notDrawn = useMemo(() => undrawn(patched.map((one) => one.mode.channels)), [patched]);

  const toggled = (id: string) => (chosen.has(id) ? [...chosen].filter((one) => one !== id) : [...chosen, id]);
  const make = app.document.make;
  /** Chosen heads, or all there are, follow an aim while it is dragged. */
  const follow = (dragged: Aim, point: Point, done: boolean) => {
    const heads = patched.filter(({ profile }) => profile.panRange > 0);
    const some = heads.filter(({ fixture }) => chosen.has(fixture.id));
    const followers = some.length > 0 ? some : heads;
    const turns = followers.map(
      (head) => [head, panTiltTo(head.fixture.mount, { ...head.profile, limits: head.fixture.limits }, point)] as const,
    );
    if (done) {
      hands.free(followers);
      make({ type: 'add-aim', aim: { ...dragged, ...point } });
    } else hands.hold(turns.map(([head, { pan, tilt }]) => [head, { pan, tilt, level: 1 }] as const));
    setDeaf(turns.filter(([, { reached }]) => !reached).map(([head]) => head.fixture.name));
  };
  const picture = (
    <PlanPicture
      rig={rig}
      patched={patched}
      aims={show.aims}
      tintOf={tintOf}
      chosen={
        mode === 'aims' && thing
          ? new Set([...chosen, thing])
          : mode === 'room'
            ? new Set(thing ? [thing] : [])
            : chosen
      }
      held={held}
      mode={mode}
      from={from}
      grid={snaps ? 0.25 : 0}
      height={wide ? 400 : 300}
      window={window}
      onWindow={setWindow}
      onLamp={(id) => onChosen(toggled(id))}
      onGround={() => (mode === 'aims' || mode === 'room' ? setThing(null) : onChosen([]))}
      onLasso={(ids) => onChosen([...new Set([...chosen, ...ids])])}
      onHung={(hung) => make({ type: 'patch-fixtures', rig: rig.id, fixtures: [...hung] })}
      onLevel={(id, level) => {
        const lamp = patched.find(({ fixture }) => fixture.id === id);
        if (!lamp) return;
        // One of the chosen dims all of them.
        const all = chosen.has(id) ? lamps : [lamp];
        hands.hold(all.map((one) => [one, { level }] as const));
      }}
      onAim={setThing}
      onAimDrag={follow}
      onShape={setThing}
      onShaped={(shape) => make({ type: 'put-shape', rig: rig.id, shape })}
    />
  );
  const panel = (
    <Column gap={12} paddingHorizontal={16} paddingTop={12}>
      {mode === 'hang' && (
        <HungPanel rig={rig} lamps={lamps} from={from} onChosen={onChosen} onDirect={onDirect} onChange={onChange} />
      )}
      {mode === 'light' && <Quiet>{WORDS.dragLampUp}</Quiet>}
      {mode === 'aims' && <AimsPanel aims={show.aims} aim={aim} heads={lamps} outOfReach={deaf} onAim={setThing} />}
      {mode === 'room' && <RoomPanel rig={rig} shape={rig.shapes.find(({ id }) => id === thing)} onShape={setThing} />}
      {notes.map((note) => (
        <Words key={note} color="$warn">
          {note}
        </Words>
      ))}
      {notDrawn.length > 0 && <Quiet>{WORDS.picturesDoNot(notDrawn.join(', '))}</Quiet>}
    </Column>
  );
  return (
    <Column gap={0}>
      <Row gap={8} paddingHorizontal={16} paddingBottom={12} justifyContent="space-between">
        <Row gap={8}>{children}</Row>
        <Row>
          <Button
            label={from === 'above' ? WORDS.seenFromAbove : WORDS.seenFromAudience}
            kind="quiet"
            onPress={() => {
              setFrom(from === 'above' ? 'audience' : 'above');
              setWindow(null);
            }}
          >
            {from === 'above' ? (
              <PersonStanding size={20} color={palette.text} aria-hidden />
            ) : (
              <Layers size={20} color={palette.text} aria-hidden />
            )}
          </Button>
          <Button label={WORDS.snap25Cm} pressed={snaps} kind="quiet" onPress={() => setSnaps(!snaps)}>
            <Magnet size={20} color={snaps ? palette.doingText : palette.faint} aria-hidden />
          </Button>
          <Button label={WORDS.fitAll} kind="quiet" onPress={() => setWindow(null)}>
            <Maximize size={20} color={palette.text} aria-hidden />
          </Button>
        </Row>
      </Row>
      {picture}
      {lamps.length > 0 && mode === 'hang' && panel}
      <Row paddingHorizontal={12} paddingTop={10}>
        <Segments
          label={WORDS.whatDoPlan}
          value={mode}
          choices={[
            { value: 'hang', name: WORDS.hang },
            { value: 'light', name: WORDS.dim },
            { value: 'aims', name: WORDS.aims },
            { value: 'room', name: WORDS.room },
          ]}
          onChoose={(next) => {
            setMode(next);
            setThing(null);
            setDeaf([]);
          }}
        />
      </Row>
      {held.size > 0 && (
        <Row gap={12} paddingHorizontal={16} paddingTop={12} justifyContent="space-between">
          <Words color="$warn" flexShrink={1}>
            {WORDS.heldByHand(
              namesOf(patched.filter(({ fixture }) => held.has(fixture.id)).map(({ fixture }) => fixture)),
            )}
          </Words>
          <Button onPress={() => hands.free(patched.filter(({ fixture }) => held.has(fixture.id)))}>
            {WORDS.release}
          </Button>
        </Row>
      )}
      {(lamps.length === 0 || mode !== 'hang') && panel}
    </Column>
  );
}
