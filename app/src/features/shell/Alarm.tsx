// An output that fails while we send is said in every place, plainly, until it is back; then that is said too.

import { useEffect, useRef } from 'react';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'expo-router';
import { rowInWords, troubleInWords } from '@hovlix/core/connect';
import { statusQuery } from '../../data/queries';
import { useLink, useConnections, useLive } from '../../host/hovlix';
import { useSession } from '../../host/session';
import { Column, Quiet, Row, Words } from '../../ui/pieces';

export function Alarm() {
  const served = useLink((link) => link.conductor) === 'server';
  const sending = useLive((live) => live.sending);
  const outputs = useConnections((state) => state.connections?.outputs);
  const reports = useQuery(statusQuery(served)).data?.output?.rows ?? [];
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
      if (row?.on) say(`${rowInWords(row)} sends again.`);
    }
  }, [now, outputs, say]);
  if (!sending || failing.length === 0) return null;
  const [{ row, trouble }] = failing as [(typeof failing)[number]];
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
        <Words fontWeight="600">
          {rowInWords(row)} has fallen silent{failing.length > 1 ? `, and ${failing.length - 1} more` : ''}
        </Words>
        <Quiet>{troubleInWords(trouble)}</Quiet>
      </Column>
      <Link
        href="/connect"
        style={{ minHeight: 44, display: 'flex', alignItems: 'center', paddingLeft: 8, textDecorationLine: 'none' }}
      >
        <Words fontWeight="600" color="$doingText">
          Connect
        </Words>
      </Link>
    </Row>
  );
}
