// What can be told of the clips that are chosen in Close-up: one by its place, several together.

import { View } from '@tamagui/core';
import type { Chase, Look } from '@hovlix/core/light';
import type { Song } from '@hovlix/core/song';
import { beatAt, timeAt } from '@hovlix/core/time';
import { beats, seconds, type Id } from '@hovlix/core/units';
import { Typed } from '../../../ui/form';
import { Button, Column, Row, Words } from '../../../ui/pieces';
import { Scroller } from '../../../ui/ScrollArea';
import type { SomeClips } from '../clip-edits';
import { ClipChange } from '../ClipChange';
import { ClipFades } from '../ClipFades';
import { preciseText } from '../model';
import { ChosenHead } from './ChosenHead';
import { beatOfPlace, placeText, readPlace, readSeconds, secondsOfText } from './grid';
import { WORDS } from './words';

type Props = {
  readonly song: Song;
  readonly lane: Id<'Lane'>;
  readonly clips: SomeClips;
  readonly name: string;
  readonly looks: readonly (Look | Chase)[];
  /** A tap takes one more along. */
  readonly several: boolean;
  readonly onSeveral: (on: boolean) => void;
  /** Takes all that show along; none where they are. */
  readonly onAll: (() => void) | undefined;
  readonly onPlace: (where: { readonly from: number; readonly to: number }) => void;
  readonly onRemove: () => void;
  readonly onDone: () => void;
};

export function ChosenClips({
  song,
  lane,
  clips,
  name,
  looks,
  several,
  onSeveral,
  onAll,
  onPlace,
  onRemove,
  onDone,
}: Props) {
  const [clip] = clips;
  return (
    <Scroller backgroundColor="$raised" borderTopWidth={1} borderColor="$line">
      <Column
        gap={10}
        paddingVertical={8}
        role="group"
        aria-label={clips.length === 1 ? WORDS.chosenClip : WORDS.chosenClips}
      >
        <View paddingHorizontal={16}>
          <ChosenHead
            remove={clips.length === 1 ? WORDS.deleteClip : WORDS.deleteClips}
            onRemove={onRemove}
            onDone={onDone}
          >
            <Words fontWeight="600" numberOfLines={1} flexShrink={1}>
              {name}
            </Words>
          </ChosenHead>
        </View>
        <Row gap={8} paddingHorizontal={16} flexWrap="wrap">
          <Button pressed={several} onPress={() => onSeveral(!several)}>
            {WORDS.chooseSeveral}
          </Button>
          {onAll && <Button onPress={onAll}>{WORDS.allThatShow}</Button>}
        </Row>
        {clips.length === 1 && (
          <Row gap={10} paddingHorizontal={16} flexWrap="wrap" alignItems="flex-start">
            {(['from', 'to'] as const).map((end) => (
              <Column key={`${end} ${clip.id}`} flex={1} minWidth={120} gap={2}>
                <Typed
                  label={end === 'from' ? WORDS.beginsBarBeat : WORDS.endsBarBeat}
                  value={placeText(song, clip[end])}
                  read={readPlace(song)}
                  patient
                  onChange={(text) => {
                    const at = beatOfPlace(song, text);
                    if (at !== undefined) onPlace({ from: clip.from, to: clip.to, [end]: at });
                  }}
                  numeric
                />
                <Typed
                  label={end === 'from' ? WORDS.beginsAtTime : WORDS.endsAtTime}
                  value={preciseText(timeAt(song.tempo, beats(clip[end])))}
                  read={readSeconds}
                  patient
                  onChange={(text) => {
                    const at = beatAt(song.tempo, seconds(secondsOfText(text)!));
                    onPlace({ from: clip.from, to: clip.to, [end]: at });
                  }}
                  numeric
                />
              </Column>
            ))}
          </Row>
        )}
        <ClipFades song={song} lane={lane} clips={clips} looks={looks} />
        <ClipChange song={song} lane={lane} clips={clips} />
      </Column>
    </Scroller>
  );
}
