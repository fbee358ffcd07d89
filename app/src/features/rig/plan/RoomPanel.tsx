// The room under the lamps: shapes that stand or hang there, and a picture of it.

import { type Rig, type Shape, SHAPE_KINDS } from '@hovlix/core/rig';
import { freshId } from '../../../host/fresh-id';
import { useHovlix } from '../../../host/hovlix';
import { pictureFromFile, ROOM_PICTURE } from '../../../host/files/picture';
import { useSession } from '../../../host/session';
import { FileButton } from '../../../ui/FileButton';
import { decimal, named, Typed } from '../../../ui/form';
import { Button, Column, Quiet, Row } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly rig: Rig; readonly shape: Shape | undefined; readonly onShape: (id: string | null) => void };

/** How big a thing of this kind usually is, and where it usually is. */
const USUAL: Readonly<Record<Shape['kind'], Omit<Shape, 'id' | 'kind' | 'name'>>> = {
  stage: { x: 0, y: 2, z: 0, width: 6, depth: 4, height: 0, turn: 0 },
  riser: { x: 0, y: 3, z: 0, width: 2, depth: 1.5, height: 0.4, turn: 0 },
  truss: { x: 0, y: 3.5, z: 3.5, width: 6, depth: 0.3, height: 0.3, turn: 0 },
  stand: { x: -3, y: -1, z: 0, width: 0.8, depth: 0.8, height: 2.5, turn: 0 },
  curtain: { x: 0, y: 4.2, z: 0, width: 6, depth: 0.2, height: 3, turn: 0 },
  bar: { x: -4, y: -5, z: 0, width: 3, depth: 0.8, height: 1.1, turn: 0 },
  floor: { x: 0, y: -4, z: 0, width: 6, depth: 4, height: 0, turn: 0 },
};
const NAMES = {
  stage: 'Stage',
  riser: 'Riser',
  truss: 'Truss',
  stand: 'Stand',
  curtain: 'Curtain',
  bar: 'Bar',
  floor: WORDS.danceFloor,
} as const;

export function RoomPanel({ rig, shape, onShape }: Props) {
  const app = useHovlix();
  const say = useSession((session) => session.say);
  const put = (changed: Shape) => app.document.make({ type: 'put-shape', rig: rig.id, shape: changed });
  const add = (kind: Shape['kind']) => {
    const fresh: Shape = { ...USUAL[kind], id: freshId() as Shape['id'], kind, name: NAMES[kind] };
    put(fresh);
    onShape(fresh.id);
  };
  const bring = async (chosen: File) => {
    const read = await pictureFromFile(chosen, ROOM_PICTURE);
    if ('wrong' in read) return say(read.wrong, { tone: 'bad' });
    const stage = rig.shapes.find(({ kind }) => kind === 'stage');
    app.document.make({
      type: 'set-picture',
      rig: rig.id,
      picture: {
        data: read.data,
        aspect: read.aspect,
        x: stage?.x ?? 0,
        y: stage?.y ?? 1,
        width: Math.round((stage?.width ?? 8) * 15) / 10,
      },
    });
  };
  const number = (key: 'width' | 'depth' | 'height' | 'z' | 'turn', label: string, low: number, high: number) =>
    shape && (
      <Column flex={1} minWidth={100} key={`${shape.id} ${key}`}>
        <Typed
          label={label}
          numeric
          value={shape[key]}
          read={decimal(low, high)}
          onChange={(value) => put({ ...shape, [key]: value })}
        />
      </Column>
    );
  return (
    <Column gap={12}>
      {shape ? (
        <>
          <Typed<string>
            key={shape.id}
            label={WORDS.name}
            value={shape.name}
            read={named}
            onChange={(name) => put({ ...shape, name })}
          />
          <Row gap={8} flexWrap="wrap" alignItems="flex-start">
            {number('width', WORDS.wideM, 0.05, 500)}
            {number('depth', WORDS.deepM, 0.05, 500)}
            {number('height', WORDS.highM, 0, 100)}
            {number('z', WORDS.fromFloorM, 0, 100)}
            {number('turn', WORDS.turned, -360, 360)}
          </Row>
          <Row>
            <Button
              kind="quiet"
              onPress={() => {
                app.document.make({ type: 'remove-shape', rig: rig.id, shape: shape.id });
                say(WORDS.isGone(shape.name), { undo: app.document.takingBack() });
                onShape(null);
              }}
            >
              {WORDS.remove}
            </Button>
          </Row>
        </>
      ) : (
        <Quiet>{WORDS.addWhatRoom}</Quiet>
      )}
      <Row gap={8} flexWrap="wrap">
        {SHAPE_KINDS.map((kind) => (
          <Button key={kind} onPress={() => add(kind)}>
            {NAMES[kind]}
          </Button>
        ))}
        <FileButton label={WORDS.pictureRoom} accept="image/*" onFiles={([chosen]) => chosen && void bring(chosen)}>
          {WORDS.pictureRoom}
        </FileButton>
      </Row>
      {rig.picture && (
        <Row gap={8} alignItems="flex-start" flexWrap="wrap">
          <Column flex={1}>
            <Typed
              label={WORDS.pictureShowsM}
              numeric
              value={rig.picture.width}
              read={decimal(0.5, 500)}
              onChange={(width) =>
                app.document.make({ type: 'set-picture', rig: rig.id, picture: { ...rig.picture!, width } })
              }
            />
          </Column>
          <Column paddingTop={24}>
            <Button kind="quiet" onPress={() => app.document.make({ type: 'set-picture', rig: rig.id, picture: null })}>
              {WORDS.removePicture}
            </Button>
          </Column>
        </Row>
      )}
    </Column>
  );
}
