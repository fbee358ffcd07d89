// Rig check: each lamp lights in turn and one says whether it is the right one. One button does, a pedal's key too.

import { useCallback, useEffect, useMemo, useState } from 'react';
import { footprint, type Patched } from '@hovlix/core/rig';
import { hand } from '../../../host/conduct/hold-lamps';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { keyOf } from '../../../ui/key-of';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { Sheet } from '../../../ui/Sheet';
import { WORDS } from './words';

type Props = {
  readonly patched: readonly Patched[];
  readonly onClose: () => void;
  readonly onChange: (lamp: string) => void;
};

/** What foot pedals that act as keyboards send, and the keys one would try first. */
const RIGHT_KEYS = [' ', 'Enter', 'PageDown', 'ArrowRight', 'ArrowDown'];
const WRONG_KEYS = ['Backspace', 'n'];

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
      const key = keyOf(event);
      const right = RIGHT_KEYS.includes(key);
      if (!right && !WRONG_KEYS.includes(key)) return false;
      if (!event.repeat) answer(right);
      return true;
    });
  }, [answer, takeKeys]);
  const toFix = patched.filter(({ fixture }) => wrong.includes(fixture.id));
  return (
    <Sheet title={WORDS.rigCheck} onClose={onClose}>
      {lamp ? (
        <>
          <Quiet>{WORDS.lampAllOthers(at + 1, patched.length)}</Quiet>
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
            {lamp.mode.menu && <Quiet>{WORDS.onItsMenu(lamp.mode.menu)}</Quiet>}
          </Column>
          <Row gap={12}>
            <Button kind="primary" onPress={() => answer(true)}>
              {WORDS.right}
            </Button>
            <Button onPress={() => answer(false)}>{WORDS.notThisOne}</Button>
            {at > 0 && (
              <Button kind="quiet" onPress={() => setAt(at - 1)}>
                {WORDS.back}
              </Button>
            )}
          </Row>
          <Quiet>{WORDS.spaceOrPedal}</Quiet>
        </>
      ) : (
        <>
          <Words fontWeight="600">
            {toFix.length === 0
              ? patched.length === 1
                ? WORDS.lampRight
                : WORDS.allLampsRight(patched.length)
              : WORDS.ofToFix(toFix.length, patched.length)}
          </Words>
          {toFix.map(({ fixture, mode }) => (
            <Row key={fixture.id} gap={12} justifyContent="space-between">
              <Column flexShrink={1}>
                <Words fontWeight="600">{fixture.name}</Words>
                <Quiet>{WORDS.setAddressOr(mode.name, fixture.address, fixture.universe)}</Quiet>
              </Column>
              <Button onPress={() => onChange(fixture.id)}>{WORDS.changeAlone}</Button>
            </Row>
          ))}
          <Row gap={12}>
            <Button onPress={() => setAt(0)}>{WORDS.checkAgain}</Button>
            <Button kind="quiet" onPress={onClose}>
              {WORDS.done}
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
  return `${side}, ${mount.y < 0 ? 'before the stage' : WORDS.mUpStage(mount.y.toFixed(1))}, ${mount.z.toFixed(1)} m high`;
}
