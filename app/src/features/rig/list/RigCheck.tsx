// Rig check: each lamp lights in turn and one says whether it is the right one. One button does, a pedal's key too.

import { useCallback, useEffect, useMemo, useState } from 'react';
import { footprint, type Patched } from '@hovlix/core/rig';
import { hand } from '../../../host/conduct/hold-lamps';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';

type Props = {
  readonly patched: readonly Patched[];
  readonly onClose: () => void;
  readonly onChange: (lamp: string) => void;
};

/** What foot pedals that act as keyboards send, and the keys one would try first. */
const RIGHT_KEYS = [' ', 'Enter', 'PageDown', 'ArrowRight', 'ArrowDown'];
const WRONG_KEYS = ['Backspace', 'n', 'N'];

export function RigCheck({ patched, onClose, onChange }: Props) {
  const app = useHovlix();
  const hands = useMemo(() => hand(app, true), [app]);
  const takeKeys = useSession((session) => session.takeKeys);
  const [at, setAt] = useState(0);
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const lamp = patched[at];
  useEffect(() => {
    hands.hold(patched.map((one, i) => [one, { level: i === at ? 1 : 0 }] as const));
  }, [hands, patched, at]);
  useEffect(() => () => hands.free(patched), [hands, patched]);
  const answer = useCallback(
    (right: boolean) => {
      const id = patched[at]?.fixture.id;
      if (id === undefined) return;
      setWrong((before) => [...before.filter((one) => one !== id), ...(right ? [] : [id])]);
      setAt(at + 1);
    },
    [patched, at],
  );
  useEffect(() => {
    return takeKeys((event) => {
      const right = RIGHT_KEYS.includes(event.key);
      if (!right && !WRONG_KEYS.includes(event.key)) return false;
      if (!event.repeat) answer(right);
      return true;
    });
  }, [answer, takeKeys]);
  const toFix = patched.filter(({ fixture }) => wrong.includes(fixture.id));
  return (
    <Sheet title="Rig check" onClose={onClose}>
      {lamp ? (
        <>
          <Quiet>
            Lamp {at + 1} of {patched.length}. All others are held dark.
          </Quiet>
          <Column gap={4}>
            <Words fontSize={26} lineHeight={32} fontWeight="700">
              {lamp.fixture.name}
            </Words>
            <Words>
              {lamp.profile.maker} {lamp.profile.model}, {lamp.mode.name}
            </Words>
            <Figures fontSize={16} lineHeight={22} color="$text">
              {lamp.fixture.universe} / {lamp.fixture.address}–{lamp.fixture.address + footprint(lamp.mode) - 1}
            </Figures>
            <Quiet>{placeOf(lamp)}</Quiet>
            {lamp.mode.menu && <Quiet>On its menu: {lamp.mode.menu}</Quiet>}
          </Column>
          <Row gap={12}>
            <Button kind="primary" onPress={() => answer(true)}>
              Right
            </Button>
            <Button onPress={() => answer(false)}>Not this one</Button>
            {at > 0 && (
              <Button kind="quiet" onPress={() => setAt(at - 1)}>
                Back
              </Button>
            )}
          </Row>
          <Quiet>Space, or a pedal that sends a key, says “right”.</Quiet>
        </>
      ) : (
        <>
          <Words fontWeight="600">
            {toFix.length === 0
              ? patched.length === 1
                ? 'The lamp is right.'
                : `All ${patched.length} lamps are right.`
              : `${toFix.length} of ${patched.length} to fix:`}
          </Words>
          {toFix.map(({ fixture, mode }) => (
            <Row key={fixture.id} gap={12} justifyContent="space-between">
              <Column flexShrink={1}>
                <Words fontWeight="600">{fixture.name}</Words>
                <Quiet>
                  Set it to {mode.name} at address {fixture.address}, or its cable to universe {fixture.universe}.
                </Quiet>
              </Column>
              <Button onPress={() => onChange(fixture.id)}>Change</Button>
            </Row>
          ))}
          <Row gap={12}>
            <Button onPress={() => setAt(0)}>Check again</Button>
            <Button kind="quiet" onPress={onClose}>
              Done
            </Button>
          </Row>
        </>
      )}
    </Sheet>
  );
}

function placeOf({ fixture: { mount } }: Patched): string {
  const side =
    Math.abs(mount.x) < 0.3 ? 'in the middle' : `${Math.abs(mount.x).toFixed(1)} m ${mount.x < 0 ? 'left' : 'right'}`;
  return `${side}, ${mount.y < 0 ? 'before the stage' : `${mount.y.toFixed(1)} m up-stage`}, ${mount.z.toFixed(1)} m high`;
}
