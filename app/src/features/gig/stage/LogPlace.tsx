// The gig log, what just happened: what was pressed, by whom, in words; and the log to keep.

import { useEffect, useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { logText, toldLines, type Log, type ToldLine } from '@hovlix/core/live';
import { logQuery } from '../../../data/queries';
import { dayHere, saveFile } from '../../../host/files/save-file';
import { useHovlix, useLink, useShow } from '../../../host/hovlix';
import { Button, Column, Figures, Quiet, Row, Words } from '../../../ui/pieces';
import { GigPage } from './GigPage';
import { WORDS } from './words';

const SHOWN = 200;
const LOOK_MS = 500;

export function LogPlace() {
  const app = useHovlix();
  const show = useShow((one) => one);
  const served = useLink((link) => link.conductor) === 'server';
  const before = useQuery(logQuery(served)).data;
  const [lines, setLines] = useState<readonly (ToldLine & { readonly ago: number })[]>([]);
  useEffect(() => {
    const look = () => {
      const { show: now } = app.document.store.getState();
      const at = app.conducting.now();
      if (now)
        setLines(
          toldLines(now, joined(before, app.conducting.log()).entries, SHOWN).map((line) => ({
            ...line,
            ago: at - line.at,
          })),
        );
    };
    look();
    const timer = setInterval(look, LOOK_MS);
    return () => clearInterval(timer);
  }, [app, before]);
  const save = () => {
    const text = logText(joined(before, app.conducting.log()));
    saveFile(`${show?.name ?? 'gig'}, ${dayHere()}.log`, text, 'text/plain');
  };
  return (
    <GigPage title={WORDS.gigLog} action={<Button onPress={save}>{WORDS.saveTheLog}</Button>}>
      {lines.length === 0 && <Quiet>{WORDS.nothingWasPressed}</Quiet>}
      <Column role={lines.length > 0 ? 'list' : 'group'} aria-label={WORDS.log}>
        {lines.map((line, i) => (
          <Row
            key={`${line.at} ${i}`}
            role="listitem"
            gap={12}
            minHeight={44}
            borderBottomWidth={1}
            borderColor="$line"
            alignItems="flex-start"
            paddingVertical={8}
          >
            <Figures width={74} flexShrink={0} textAlign="right">
              {agoWords(line.ago)}
            </Figures>
            <Column flex={1} minWidth={0}>
              <Words>
                {line.words}
                {line.times > 1 ? ` (${line.times} times)` : ''}
              </Words>
              {line.who !== app.conducting.screen && (
                <Quiet numberOfLines={1}>{line.who.replace(/^screen-/, 'another screen, ')}</Quiet>
              )}
            </Column>
          </Row>
        ))}
      </Column>
    </GigPage>
  );
}

/** What was kept before this screen came, and what it heard itself: each entry once. */
function joined(before: Log | null | undefined, own: Log): Log {
  if (!before) return own;
  const first = own.entries[0]?.seq ?? Infinity;
  const after = before.entries.filter(({ seq }) => seq < first);
  const last = after.at(-1)?.seq ?? before.begin.seq;
  // With a gap between them only one of the two can be rendered again.
  return own.entries.length > 0 && last + 1 !== first
    ? own
    : { begin: before.begin, entries: [...after, ...own.entries] };
}

function agoWords(seconds: number): string {
  if (seconds < 90) return WORDS.sAgo(Math.max(0, Math.round(seconds)));
  return seconds < 5400 ? WORDS.minAgo(Math.round(seconds / 60)) : WORDS.hAgo(Math.round(seconds / 3600));
}
