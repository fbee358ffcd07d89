// An output that fails while we send is said in every place, plainly, until it is back; then that is said too. So is
// what cannot be lit or kept: the light goes on, but somebody should know before the night is over.

import { useEffect, useRef, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { rowInWords, troubleInWords } from '@hovlix/core/connect';
import { statusQuery } from '../../data/queries';
import { useLink, useConnections, useLive } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { ButtonLink } from '../../ui/links';
import { Button, Column, Quiet, Row, Words } from '../../ui/pieces';
import { useIsEmpty } from './Welcome';
import { WORDS } from './words';

export function Alarm() {
  const served = useLink((link) => link.conductor) === 'server';
  const sending = useLive((live) => live.sending);
  const outputs = useConnections((state) => state.connections?.outputs);
  const status = useQuery(statusQuery(served)).data;
  const reports = status?.output?.rows ?? [];
  const say = useSession((session) => session.say);
  const failing = reports.flatMap((report) => {
    const row = outputs?.find((one) => one.id === report.id);
    return row?.on && report.trouble ? [{ row, trouble: report.trouble }] : [];
  });
  const before = useRef<readonly string[]>([]);
  const now = failing.map(({ row }) => row.id).join(' ');
  useEffect(() => {
    const back = before.current.filter((id) => !now.includes(id));
    before.current = now === '' ? [] : now.split(' ');
    for (const id of back) {
      const row = outputs?.find((one) => one.id === id);
      if (row?.on) say(WORDS.isSendingAgain(rowInWords(row)));
    }
  }, [now, outputs, say]);
  const silent = sending ? failing[0] : undefined;
  const troubles = status?.troubles ?? [];
  /** Problems that were read on this screen; Connect and Preflight go on listing them while they last. */
  const [read, setRead] = useState<readonly string[]>([]);
  const [kept, ...others] = troubles.filter((trouble) => !read.includes(trouble));
  // One that was over and comes again is said again.
  if (status && read.some((trouble) => !troubles.includes(trouble)))
    setRead(read.filter((trouble) => troubles.includes(trouble)));
  const dark = status?.output?.trouble;
  if (silent)
    return (
      <Told
        title={`${rowInWords(silent.row)} has stopped sending${failing.length > 1 ? `, and ${failing.length - 1} more` : ''}`}
        words={troubleInWords(silent.trouble)}
      />
    );
  if (dark) return <Told title={WORDS.lastChangeCannot} words={WORDS.lightStaysAs} />;
  if (kept)
    return (
      <Told
        title={others.length > 0 ? WORDS.problems(others.length + 1) : WORDS.aProblem}
        words={kept}
        onRead={() => setRead([...read, kept])}
      />
    );
  return null;
}

type Telling = { readonly title: string; readonly words: string; readonly onRead?: () => void };

function Told({ title, words, onRead }: Telling) {
  // Before there is a show no place can be gone to.
  const empty = useIsEmpty();
  return (
    <Row
      role="alert"
      testID="alarm"
      gap={12}
      paddingHorizontal={16}
      paddingVertical={8}
      minHeight={52}
      backgroundColor="$raised"
      borderLeftWidth={6}
      borderColor="$fault"
    >
      <Column flex={1} minWidth={0}>
        <Words fontWeight="600">{title}</Words>
        <Quiet>{words}</Quiet>
      </Column>
      <Row gap={8}>
        {!empty && (
          <ButtonLink href="/connect" kind="words">
            {WORDS.connect}
          </ButtonLink>
        )}
        {onRead && (
          <Button kind="quiet" onPress={onRead}>
            {WORDS.ok}
          </Button>
        )}
      </Row>
    </Row>
  );
}
