// A song without any light: the looks there are, in turn, as a start to edit from.

import { isLit, lookLanes, looksInTurn, type Song } from '@hovlix/core/song';
import { freshId } from '../../host/fresh-id';
import { useHovlix, useShow } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Button, Quiet, Row } from '../../ui/pieces';
import { WORDS } from './words';

/** Looks that take turns: more of them would make no picture anybody remembers. */
const MOST_LOOKS = 6;

export function LightIt({ song }: { readonly song: Song }) {
  const { document } = useHovlix();
  const looks = useShow((show) => show.looks);
  const say = useSession((session) => session.say);
  const [lane] = lookLanes(song);
  if (!lane || !looks || looks.length === 0 || isLit(song)) return null;
  const light = () => {
    const ids = looks.slice(0, MOST_LOOKS).map(({ id }) => id);
    const clips = looksInTurn(song, ids, freshId);
    document.together(clips.map((clip) => ({ type: 'lay-clip', song: song.id, lane: lane.id, clip })));
    say(WORDS.songHasLight, { undo: document.takingBack() });
  };
  return (
    <Row
      gap={10}
      paddingHorizontal={16}
      paddingVertical={8}
      backgroundColor="$raised"
      borderBottomWidth={1}
      borderColor="$line"
    >
      <Quiet flex={1}>{WORDS.songHasNo}</Quiet>
      <Button kind="primary" onPress={light}>
        {WORDS.lightMyLooks}
      </Button>
    </Row>
  );
}
