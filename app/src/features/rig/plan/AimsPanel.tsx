// Named points that heads can be pointed at, true in every room.

import { snapped, type Aim, type Patched } from '@hovlix/core/rig';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { useSession } from '../../../host/session';
import { decimal, named, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { namesOf } from '../model';
import { WORDS } from './words';

type Props = {
  readonly aims: readonly Aim[];
  readonly aim: Aim | undefined;
  /** Chosen lamps: those of them that move follow a dragged aim. */
  readonly heads: readonly Patched[];
  readonly outOfReach: readonly string[];
  readonly onAim: (id: string | null) => void;
};

export function AimsPanel({ aims, aim, heads, outOfReach, onAim }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const put = (changed: Aim) => app.document.make({ type: 'add-aim', aim: changed });
  const add = () => {
    const fresh: Aim = { id: freshId() as Aim['id'], name: WORDS.aim(aims.length + 1), x: snapped(0, 0), y: 2, z: 1.6 };
    put(fresh);
    onAim(fresh.id);
  };
  const movers = heads.filter(({ profile }) => profile.panRange > 0).map(({ fixture }) => fixture);
  return (
    <Column gap={12}>
      {aim ? (
        <>
          <Typed<string>
            key={`${aim.id} name`}
            label={WORDS.name}
            value={aim.name}
            read={named}
            onChange={(name) => put({ ...aim, name })}
          />
          <Row gap={8} alignItems="flex-start">
            <Column flex={1}>
              <Typed
                key={`${aim.id} height`}
                label={WORDS.heightAboveFloor}
                value={aim.z}
                numeric
                read={decimal(0, 100)}
                onChange={(z) => put({ ...aim, z })}
              />
            </Column>
            <Column flex={1} justifyContent="flex-end" paddingTop={24}>
              <Button
                kind="quiet"
                onPress={() => {
                  app.document.make({ type: 'remove-aim', aim: aim.id });
                  say(WORDS.goneLooksPoint(aim.name), {
                    undo: app.document.takingBack(),
                  });
                  onAim(null);
                }}
              >
                {WORDS.removeAim}
              </Button>
            </Column>
          </Row>
        </>
      ) : (
        <Quiet>{WORDS.dragPointFollow(movers.length > 0 ? namesOf(movers) : 'all moving heads')}</Quiet>
      )}
      {outOfReach.length > 0 && <Words color="$warn">{WORDS.cannotReachThey(outOfReach.join(', '))}</Words>}
      <Row>
        <Button onPress={add}>{WORDS.newAim}</Button>
      </Row>
    </Column>
  );
}
