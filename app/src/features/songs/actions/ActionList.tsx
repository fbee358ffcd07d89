// The actions of some bars: what is done when, and a way to add more.

import { useState } from 'react';
import { View } from '@tamagui/core';
import Plus from 'lucide-react-native/icons/plus';
import Trash from 'lucide-react-native/icons/trash';
import { type ActionLane, type LaneAction, type Song } from '@hovlix/core/song';
import { beats } from '@hovlix/core/units';
import { freshId } from '../../../host/fresh-id';
import { useHovlix, useMay, useShow } from '../../../host/hovlix';
import { Typed } from '../../../ui/form';
import { usePalette } from '../../../ui/palette';
import { Button, ButtonText, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { beatOfPlace, placeText, readPlace } from '../close-up/grid';
import { DeedForm } from './DeedForm';
import { usualDeed } from './model';
import { deedWords, WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly lane: ActionLane;
  /** `[from, to)` in beats. */
  readonly from: number;
  readonly to: number;
};

export function ActionList({ song, lane, from, to }: Props) {
  const { document } = useHovlix();
  const may = useMay('operator');
  const show = useShow((one) => one);
  const palette = usePalette();
  const [open, setOpen] = useState<LaneAction['id'] | null>(null);
  if (!show) return null;
  const put = (action: LaneAction) =>
    document.make({ type: 'put-actions', song: song.id, lane: lane.id, actions: [action] });
  const add = () => {
    const does = usualDeed('start', show, song) ?? usualDeed('blackout', show, song)!;
    const action = { id: freshId() as LaneAction['id'], at: beats(from), does };
    put(action);
    setOpen(action.id);
  };
  const here = lane.actions.filter(({ at }) => at >= from && at < to);
  return (
    <Column paddingHorizontal={16} gap={4} role="group" aria-label={WORDS.actions}>
      {here.length === 0 && <Quiet>{WORDS.noActionsThese}</Quiet>}
      {here.map((action) => (
        <Column key={action.id} gap={10} paddingBottom={open === action.id ? 12 : 0}>
          <Row gap={6}>
            <View
              render="button"
              aria-expanded={open === action.id}
              disabled={!may}
              onPress={() => setOpen(open === action.id ? null : action.id)}
              flex={1}
              minWidth={0}
              minHeight={44}
              flexDirection="row"
              alignItems="center"
              gap={10}
              padding={0}
              borderWidth={0}
              backgroundColor="transparent"
              cursor="pointer"
            >
              <Figures width={56} flexShrink={0} textAlign="left" color="$text">
                {placeText(song, action.at)}
              </Figures>
              <Words numberOfLines={1} textAlign="left" flexShrink={1}>
                {deedWords(show, action.does)}
              </Words>
            </View>
            {may && (
              <Button
                label={WORDS.delete(deedWords(show, action.does))}
                kind="quiet"
                onPress={() =>
                  document.make({ type: 'remove-actions', song: song.id, lane: lane.id, actions: [action.id] })
                }
              >
                <Trash size={18} color={palette.quiet} aria-hidden />
              </Button>
            )}
          </Row>
          {open === action.id && (
            <>
              <Typed
                label={WORDS.barBeat}
                value={placeText(song, action.at)}
                read={readPlace(song)}
                patient
                onChange={(text) => {
                  const at = beatOfPlace(song, text);
                  if (at !== undefined) put({ ...action, at: beats(at) });
                }}
                numeric
              />
              <DeedForm show={show} song={song} does={action.does} onChange={(does) => put({ ...action, does })} />
            </>
          )}
        </Column>
      ))}
      {may && (
        <Row paddingTop={4}>
          <Button onPress={add}>
            <Plus size={18} color={palette.text} aria-hidden />
            <ButtonText>{WORDS.addAnAction}</ButtonText>
          </Button>
        </Row>
      )}
    </Column>
  );
}
