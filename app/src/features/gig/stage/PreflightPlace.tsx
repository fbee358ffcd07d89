// Preflight: what would go wrong tonight, and the way to where each is put right.

import { useEffect, useState } from 'react';
import { useRouter, type Href } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import { useStore } from 'zustand';
import { rowInWords, troubleInWords } from '@hovlix/core/connect';
import { preflight, type Facts, type Fix } from '@hovlix/core/show';
import { recordingsOf } from '@hovlix/core/song';
import { statusQuery } from '../../../data/queries';
import { useConnections, useHovlix, useLink, useLive, useShow } from '../../../host/hovlix';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { GigPage } from './GigPage';
import { WORDS } from './words';

export function PreflightPlace() {
  const router = useRouter();
  const show = useShow((one) => one);
  const facts = useFacts();
  if (!show) return null;
  const remarks = facts ? preflight(show, facts) : undefined;
  const stops = remarks?.filter(({ weight }) => weight === 'stops').length ?? 0;
  return (
    <GigPage title={WORDS.preflight}>
      <Words role="status" testID="preflight">
        {remarks === undefined
          ? WORDS.looking
          : remarks.length === 0
            ? WORDS.allReadyTonight
            : stops === 0
              ? WORDS.nothingStopsShow(remarks.length)
              : `${stops} would be missed tonight${remarks.length > stops ? `, ${remarks.length - stops} worth a look` : ''}.`}
      </Words>
      <Column role={remarks && remarks.length > 0 ? 'list' : 'group'} aria-label={WORDS.preflight}>
        {remarks?.map(({ weight, text, fix }) => (
          <Row
            key={text}
            role="listitem"
            gap={12}
            paddingVertical={8}
            borderBottomWidth={1}
            borderColor="$line"
            borderLeftWidth={4}
            borderLeftColor={weight === 'stops' ? '$fault' : '$warn'}
            paddingLeft={12}
            minHeight={56}
          >
            <Column flex={1} minWidth={0}>
              <Words>{text}</Words>
              <Quiet>{weight === 'stops' ? 'would be missed' : 'worth a look'}</Quiet>
            </Column>
            {fix && (
              <Button label={WORDS.fixNamed(text)} onPress={() => router.push(wayTo(fix))}>
                {WORDS.fix}
              </Button>
            )}
          </Row>
        ))}
      </Column>
    </GigPage>
  );
}

function wayTo(fix: Fix): Href {
  switch (fix.place) {
    case 'song':
      return `/songs/${fix.song}` as Href;
    case 'pedals':
      return '/gig/pedals';
    case 'timetable':
      return '/connect/timetable';
    case 'safety':
      return '/gig/flashes';
    case 'connect':
      return '/connect';
    case 'rig':
      return '/rig';
    case 'set':
    case 'banks':
      return '/gig';
  }
}

/** What can be known of this device and of the computer that sends; undefined until it has been looked up. */
function useFacts(): Facts | undefined {
  const { hasMusic, midi } = useHovlix();
  const served = useLink((link) => link.conductor) === 'server';
  const status = useQuery(statusQuery(served)).data;
  const outputs = useConnections((state) => state.connections?.outputs);
  const sending = useLive((live) => live.sending);
  const blackout = useLive((live) => live.blackout.on);
  const own = useStore(midi.store, ({ state, inputs }) => (state === 'on' ? inputs : null));
  const theirs = status?.midi?.inputs;
  const devices = own || theirs ? [...(own ?? []), ...(theirs ?? [])] : null;
  const songs = useShow((show) => show.songs);
  const [music, setMusic] = useState<ReadonlySet<string>>();
  const [battery, setBattery] = useState<number | null>(null);
  useEffect(() => {
    const hashes = recordingsOf(songs ?? []).map(({ hash }) => hash);
    let over = false;
    void Promise.all(hashes.map(async (hash) => ((await hasMusic(hash)) ? [hash] : []))).then(
      (all) => !over && setMusic(new Set(all.flat())),
    );
    return () => {
      over = true;
    };
  }, [hasMusic, songs]);
  useEffect(() => void batteryLeft().then(setBattery), []);
  if (!music || (served && !status)) return undefined;
  const on = outputs?.filter((row) => row.on) ?? [];
  const troubles = on.flatMap((row) => {
    const report = status?.output?.rows.find(({ id }) => id === row.id);
    return report?.trouble ? [`${rowInWords(row)}: ${troubleInWords(report.trouble)}`] : [];
  });
  return {
    music,
    devices,
    osc: status?.osc?.deaf === null,
    timetable: status ? status.timetable !== null : null,
    outputs: served ? { on: on.length, troubles } : null,
    sending,
    blackout,
    awake: 'wakeLock' in navigator,
    battery,
  };
}

/** 0…1 while it is not charging; null where it is, or where the browser does not tell. */
async function batteryLeft(): Promise<number | null> {
  const ask = (navigator as { getBattery?: () => Promise<{ level: number; charging: boolean }> }).getBattery;
  if (!ask) return null;
  const { level, charging } = await ask.call(navigator);
  return charging ? null : level;
}
