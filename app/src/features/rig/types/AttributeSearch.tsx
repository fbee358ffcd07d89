// An attribute found by typing, in the trade's words, a manual's, or GDTF's.

import { useState } from 'react';
import { View } from '@tamagui/core';
import { searchAttributes } from '@hovlix/core/rig';
import { Field } from '../../../ui/Field';
import { Column, Quiet, Row, Words } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly label: string; readonly onChoose: (attribute: string) => void };

const SHOWN = 8;

export function AttributeSearch({ label, onChoose }: Props) {
  const [text, setText] = useState('');
  const found = searchAttributes(text);
  const own = text.trim();
  const choose = (attribute: string) => {
    onChoose(attribute);
    setText('');
  };
  const known = found.some(({ name, attribute }) =>
    [name.toLowerCase(), attribute.toLowerCase()].includes(own.toLowerCase()),
  );
  return (
    <Column gap={4}>
      <Field
        label={label}
        placeholder={WORDS.whatDoesDimmer}
        value={text}
        onChange={setText}
        onEnter={() => choose(found[0]?.attribute ?? own)}
      />
      {text !== '' && (
        <Column>
          {found.slice(0, SHOWN).map(({ attribute, name }) => (
            <Choice key={attribute} name={name} more={attribute} onPress={() => choose(attribute)} />
          ))}
          {!known && /^[\w.]{1,60}$/.test(own) && (
            <Choice name={own} more={WORDS.nameItsOwn} onPress={() => choose(own)} />
          )}
        </Column>
      )}
    </Column>
  );
}

function Choice({
  name,
  more,
  onPress,
}: {
  readonly name: string;
  readonly more: string;
  readonly onPress: () => void;
}) {
  return (
    <View
      render="button"
      onPress={onPress}
      minHeight={44}
      borderWidth={0}
      backgroundColor="transparent"
      hoverStyle={{ backgroundColor: '$well' }}
      cursor="pointer"
      justifyContent="center"
      alignItems="flex-start"
      paddingHorizontal={8}
    >
      <Row gap={8}>
        <Words>{name}</Words>
        <Quiet>{more}</Quiet>
      </Row>
    </View>
  );
}
