// Where does it point? Steer the real beam onto points one can name, tap where it lands, and the mount is found.

import { useEffect, useMemo, useState } from 'react';
import {
  namedPoints,
  panTiltTo,
  pointToAdd,
  solveMount,
  type Fixture,
  type NamedPoint,
  type Patched,
  type Rig,
  type Solved,
  type Tap,
} from '@hovlix/core/rig';
import type { Show } from '@hovlix/core/show';
import { hand } from '../../../host/conduct/hold-lamps';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { LandingPlan } from './LandingPlan';
import { SteerPad } from '../../../ui/SteerPad';
import { WORDS } from './words';

type Props = {
  readonly show: Show;
  readonly rig: Rig;
  readonly patched: readonly Patched[];
  readonly first: string;
  readonly onClose: () => void;
};

export function Direction({ show, rig, patched, first, onClose }: Props) {
  const app = useHovlix();
  const [now, setNow] = useState({ id: first, step: 'steer' as 'steer' | 'check' });
  const lamp = patched.find(({ fixture }) => fixture.id === now.id);
  const points = useMemo(() => namedPoints(rig, show.aims), [rig, show.aims]);
  if (!lamp) return null;
  const others = patched.filter(
    ({ fixture, profile }) => profile.id === lamp.profile.id && fixture.id !== lamp.fixture.id && !fixture.directed,
  );
  const put = (change: Partial<Fixture>, of = lamp.fixture) =>
    app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: [{ ...of, ...change }] });
  const next = () => {
    const [neighbour] = others;
    if (!neighbour) return onClose();
    setNow({ id: neighbour.fixture.id, step: 'check' });
  };
  /** A head that nobody has looked at yet is taken to hang as its neighbour does, until somebody says otherwise. */
  const likeNeighbours = (solved: Pick<Fixture, 'mount' | 'panInvert' | 'tiltInvert' | 'swapPanTilt'>) => {
    const { yaw, pitch, roll } = solved.mount;
    const turned = others.map(({ fixture }) => ({
      ...fixture,
      panInvert: solved.panInvert,
      tiltInvert: solved.tiltInvert,
      swapPanTilt: solved.swapPanTilt,
      mount: { ...fixture.mount, yaw, pitch, roll },
    }));
    const own = { ...lamp.fixture, ...solved, directed: true };
    app.document.make({ type: 'patch-fixtures', rig: rig.id, fixtures: [own, ...turned] });
  };
  return (
    <Sheet
      title={now.step === 'steer' ? WORDS.whereDoesPoint(lamp.fixture.name) : WORDS.isRight(lamp.fixture.name)}
      onClose={onClose}
    >
      {now.step === 'steer' ? (
        <Steer
          key={lamp.fixture.id}
          rig={rig}
          lamp={lamp}
          points={points}
          neighbours={others}
          onUse={(solved) => {
            likeNeighbours(solved);
            next();
          }}
        />
      ) : (
        <Check
          key={lamp.fixture.id}
          lamp={lamp}
          points={points}
          left={others.length}
          onRight={() => {
            put({ directed: true });
            next();
          }}
          onWrong={() => setNow({ id: lamp.fixture.id, step: 'steer' })}
        />
      )}
    </Sheet>
  );
}

type SteerProps = {
  readonly rig: Rig;
  readonly lamp: Patched;
  readonly points: readonly NamedPoint[];
  readonly neighbours: readonly Patched[];
  readonly onUse: (solved: Pick<Fixture, 'mount' | 'panInvert' | 'tiltInvert' | 'swapPanTilt'>) => void;
};

/** A head shines where it is turned to for as long as this is shown; others that are held stay so. */
function useShining(lamp: Patched, { pan, tilt }: { readonly pan: number; readonly tilt: number }): void {
  const app = useHovlix();
  const hands = useMemo(() => hand(app, true), [app]);
  useEffect(() => () => hands.free([lamp]), [hands, lamp]);
  useEffect(() => hands.hold([[lamp, { pan, tilt, level: 1 }]]), [hands, lamp, pan, tilt]);
}

/** The head as its channels move it, whatever is known of it so far. */
function bare(lamp: Patched): Patched {
  const { panInvert: _p, tiltInvert: _t, swapPanTilt: _s, limits: _l, ...fixture } = lamp.fixture;
  return { ...lamp, fixture };
}

function Steer({ rig, lamp, points, neighbours, onUse }: SteerProps) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const raw = useMemo(() => bare(lamp), [lamp]);
  const [turn, setTurn] = useState({ pan: 0, tilt: 0 });
  const [taps, setTaps] = useState<readonly (Tap & { readonly name: string })[]>([]);
  useShining(raw, turn);
  const solved = taps.length >= 2 ? solveMount(lamp.fixture.mount, taps, lamp.profile) : 'too few taps';
  const better = pointToAdd(lamp.fixture.mount, taps, points);
  const tapped = (point: NamedPoint) => {
    const before = taps.filter((tap) => tap.name !== point.name);
    setTaps([...before, { ...turn, point, name: point.name }]);
  };
  return (
    <>
      <Quiet>{taps.length === 0 ? WORDS.shinesNowSteer : WORDS.steerOntoAnother}</Quiet>
      <SteerPad turn={turn} profile={lamp.profile} onTurn={setTurn} />
      <LandingPlan rig={rig} lamp={lamp} points={points} taps={taps} onPoint={tapped} />
      {taps.length > 0 && (
        <Row gap={8} flexWrap="wrap">
          {taps.map((tap) => (
            <Button
              key={tap.name}
              label={WORDS.forget(tap.name)}
              onPress={() => setTaps(taps.filter((one) => one !== tap))}
            >
              {`${tap.name} ×`}
            </Button>
          ))}
        </Row>
      )}
      {solved === 'taps in one line' && <Words color="$warn">{WORDS.thesePointsLie}</Words>}
      {typeof solved === 'object' && <Fit solved={solved} better={better} taps={taps.length} />}
      {typeof solved !== 'object' && better && taps.length > 0 && <Quiet>{WORDS.wouldTellMost(better.name)}</Quiet>}
      <Row gap={8} flexWrap="wrap">
        <Button
          kind="primary"
          disabled={typeof solved !== 'object'}
          onPress={() => {
            if (typeof solved !== 'object') return;
            const { mount, panInvert, swapPanTilt } = solved;
            onUse({ mount, panInvert, swapPanTilt, tiltInvert: false });
            say(
              WORDS.hungAsShines(
                lamp.fixture.name,
                neighbours.length > 0 ? ' Its neighbours are assumed to hang the same way: check them one by one.' : '',
              ),
              { undo: app.document.takingBack() },
            );
          }}
        >
          {neighbours.length > 0 ? WORDS.takeCheck(neighbours[0]!.fixture.name) : WORDS.takeIt}
        </Button>
      </Row>
    </>
  );
}

/** Past this, in degrees, a tap was wrong, or the lamp hangs elsewhere than on the plan. */
const POOR_FIT = 4;

function Fit({
  solved,
  better,
  taps,
}: {
  readonly solved: Solved;
  readonly better: NamedPoint | undefined;
  readonly taps: number;
}) {
  const poor = solved.residual > POOR_FIT;
  return (
    <Column gap={4}>
      <Words color={poor ? '$warn' : '$text'}>
        {WORDS.fits}
        {taps}
        {WORDS.pointsTo}
        <Figures color={poor ? '$warn' : '$text'}>{solved.residual.toFixed(1)}°</Figures>
        {solved.panInvert ? ', with pan running the other way round' : ''}
        {solved.swapPanTilt ? ', with pan and tilt swapped' : ''}.
      </Words>
      {poor && <Words color="$warn">{WORDS.tapOffOr}</Words>}
      {solved.unsure && better && <Quiet>{WORDS.whichWayRound(better.name)}</Quiet>}
    </Column>
  );
}

type CheckProps = {
  readonly lamp: Patched;
  readonly points: readonly NamedPoint[];
  readonly left: number;
  readonly onRight: () => void;
  readonly onWrong: () => void;
};

/** The head is sent to a point by what is believed of it; the user says whether it got there. */
function Check({ lamp, points, left, onRight, onWrong }: CheckProps) {
  const [at, setAt] = useState(0);
  const point = points[at % points.length]!;
  useShining(lamp, panTiltTo(lamp.fixture.mount, { ...lamp.profile, limits: lamp.fixture.limits }, point));
  return (
    <>
      <Words>
        {lamp.fixture.name}
        {WORDS.shinesDoesIts}{' '}
        <Words fontWeight="700" display="inline">
          {point.name}
        </Words>
        ?
      </Words>
      <Row gap={8} flexWrap="wrap">
        <Button kind="primary" onPress={onRight}>
          {WORDS.yesRightThere}
        </Button>
        <Button onPress={onWrong}>{WORDS.noShowWhere}</Button>
        <Button kind="quiet" onPress={() => setAt(at + 1)}>
          {WORDS.tryAnotherPoint}
        </Button>
      </Row>
      {left > 0 && <Quiet>{WORDS.moreSameType(left)}</Quiet>}
    </>
  );
}
