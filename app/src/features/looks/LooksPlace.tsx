// Every look as a picture of the rig in it. A tap turns it on, another turns it off.

import { useState } from 'react';
import { Text, View } from '@tamagui/core';
import type { Look } from '@hovlix/core/light';
import { toggleLook } from '../../host/gestures';
import { useHovlix, useLive, useShow } from '../../host/hovlix';
import { LookPicture } from '../../ui/LookPicture';
import { Figures, PlaceHead, Quiet, Row, Words } from '../../ui/pieces';
import { ScrollArea } from '../../ui/ScrollArea';
import { plainWords } from './model';

export function LooksPlace() {
  const looks = useShow((show) => show.looks) ?? [];
  const parts = useShow((show) => show.parts) ?? [];
  const [part, setPart] = useState<string | null>(null);
  const shown = part ? looks.filter((look) => look.values.some((value) => value.part === part)) : looks;
  return (
    <ScrollArea>
      <PlaceHead title="Looks" />
      <ScrollArea sideways>
        <Row gap={8} paddingHorizontal={14} paddingBottom={12}>
          <Chip name={`All ${looks.length}`} on={part === null} onPress={() => setPart(null)} />
          {parts.map((one) => (
            <Chip key={one.id} name={one.name} on={part === one.id} onPress={() => setPart(one.id)} />
          ))}
        </Row>
      </ScrollArea>
      <div
        style={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(168px, 1fr))',
          gap: 12,
          padding: '0 12px',
        }}
      >
        {shown.map((look) => (
          <LookCard key={look.id} look={look} parts={parts} />
        ))}
      </div>
      {looks.length === 0 && <Quiet padding={24}>There is no look in this show yet.</Quiet>}
    </ScrollArea>
  );
}

function Chip({ name, on, onPress }: { readonly name: string; readonly on: boolean; readonly onPress: () => void }) {
  return (
    <View
      render="button"
      aria-pressed={on}
      onPress={onPress}
      minHeight={44}
      paddingHorizontal={16}
      justifyContent="center"
      borderWidth={0}
      borderRadius={22}
      cursor="pointer"
      backgroundColor={on ? '$text' : '$well'}
    >
      <Words fontWeight="600" whiteSpace="nowrap" color={on ? '$ground' : '$text'}>
        {name}
      </Words>
    </View>
  );
}

function LookCard({
  look,
  parts,
}: {
  readonly look: Look;
  readonly parts: readonly { readonly id: string; readonly name: string }[];
}) {
  const app = useHovlix();
  const on = useLive((live) => live.standing.some((one) => one.look === look.id && one.on));
  return (
    <View
      render="button"
      aria-label={`${look.name}, ${on ? 'on' : 'off'}`}
      aria-pressed={on}
      onPress={() => toggleLook(app, look.id)}
      padding={0}
      borderRadius={14}
      overflow="hidden"
      borderWidth={2}
      borderColor={on ? '$doing' : 'transparent'}
      backgroundColor="$raised"
      cursor="pointer"
      alignItems="stretch"
      hoverStyle={{ backgroundColor: '$well' }}
      pressStyle={{ opacity: 0.8 }}
      minWidth={0}
    >
      <LookPicture look={look.id} height={104} />
      <View padding={12} gap={2} alignItems="stretch">
        <Row justifyContent="space-between" gap={8} alignItems="baseline">
          <Text
            fontFamily="$heading"
            fontWeight="650"
            fontSize={16}
            lineHeight={21}
            color="$text"
            numberOfLines={1}
            flexShrink={1}
          >
            {look.name}
          </Text>
          <Figures>{String(look.number).padStart(2, '0')}</Figures>
        </Row>
        <Quiet textAlign="left" numberOfLines={1}>
          {on ? 'on · ' : ''}
          {plainWords(look, parts)}
        </Quiet>
      </View>
    </View>
  );
}
