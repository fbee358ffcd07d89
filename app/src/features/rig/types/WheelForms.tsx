// The slots of a colour wheel and of a gobo wheel, and the colours of emitters, as the type has them.

import { chromaticityFromHex, EMITTERS, hexFromChromaticity } from '@hovlix/core/colour';
import { attributeOf, PATTERNS, withoutSlot, type Profile } from '@hovlix/core/rig';
import { Choose, named, Typed } from '../../../ui/form';
import { ColourInput } from '../../../ui/inputs';
import { Button, Column, Quiet, Row, Words } from '../../../ui/pieces';
import { WORDS } from './words';

type Props = { readonly type: Profile; readonly onPut: (change: Partial<Profile>) => void };
type Chroma = Profile['colours'][number]['colour'];

/** What changes of a type with a slot less. */
function without(type: Profile, wheel: 'colours' | 'gobos', slot: number): Partial<Profile> {
  const { modes, colours, gobos } = withoutSlot(type, wheel, slot);
  return wheel === 'colours' ? { modes, colours } : { modes, gobos };
}

export function ColourSlots({ type, onPut }: Props) {
  const put = (i: number, change: Partial<Profile['colours'][number]>) =>
    onPut({ colours: type.colours.map((slot, k) => (k === i ? { ...slot, ...change } : slot)) });
  return (
    <Column gap={8}>
      {type.colours.map((slot, i) => (
        <Row key={i} gap={8} alignItems="flex-end">
          <Column flex={1}>
            <Typed<string>
              label={WORDS.slot3(i)}
              value={slot.name}
              read={named}
              onChange={(name) => put(i, { name })}
            />
          </Column>
          <Swatch label={WORDS.colourOfSlot(i)} colour={slot.colour} onChange={(colour) => put(i, { colour })} />
          {slot.second ? (
            <Swatch label={WORDS.secondHalfSlot(i)} colour={slot.second} onChange={(second) => put(i, { second })} />
          ) : (
            <Button kind="quiet" onPress={() => put(i, { second: { x: 0.3127, y: 0.329 } })}>
              {WORDS.split}
            </Button>
          )}
          <Button label={WORDS.removeSlot(i)} kind="quiet" onPress={() => onPut(without(type, 'colours', i))}>
            ×
          </Button>
        </Row>
      ))}
      <Row>
        <Button
          disabled={type.colours.length >= 64}
          onPress={() =>
            onPut({
              colours: [
                ...type.colours,
                {
                  name: type.colours.length === 0 ? 'Open' : WORDS.colour(type.colours.length),
                  colour: { x: 0.3127, y: 0.329 },
                },
              ],
            })
          }
        >
          {WORDS.addColourSlot}
        </Button>
      </Row>
    </Column>
  );
}

export function GoboSlots({ type, onPut }: Props) {
  const put = (i: number, change: Partial<Profile['gobos'][number]>) =>
    onPut({ gobos: type.gobos.map((slot, k) => (k === i ? { ...slot, ...change } : slot)) });
  return (
    <Column gap={8}>
      {type.gobos.map((slot, i) => (
        <Row key={i} gap={8} alignItems="flex-end">
          <Column flex={1}>
            <Typed<string>
              label={WORDS.slot3(i)}
              value={slot.name}
              read={named}
              onChange={(name) => put(i, { name })}
            />
          </Column>
          <Column flex={1}>
            <Choose
              label={WORDS.looksLike}
              value={slot.pattern}
              choices={PATTERNS.map((pattern) => ({ value: pattern, name: pattern }))}
              onChoose={(pattern) => put(i, { pattern: PATTERNS.find((one) => one === pattern) ?? 'dots' })}
            />
          </Column>
          <Button label={WORDS.removeGobo(i)} kind="quiet" onPress={() => onPut(without(type, 'gobos', i))}>
            ×
          </Button>
        </Row>
      ))}
      <Row>
        <Button
          disabled={type.gobos.length >= 64}
          onPress={() =>
            onPut({
              gobos: [
                ...type.gobos,
                type.gobos.length === 0
                  ? { name: 'Open', pattern: 'open' }
                  : { name: WORDS.pattern(type.gobos.length), pattern: 'dots' },
              ],
            })
          }
        >
          {WORDS.addGobo}
        </Button>
      </Row>
    </Column>
  );
}

/** Emitters of the type's mixes, with the colour measured of each or the usual one. */
export function Emitters({ type, onPut }: Props) {
  const names = [...new Set(type.modes.flatMap(({ channels }) => channels.map(({ attribute }) => attribute)))].filter(
    (name) => name.startsWith('ColorAdd_'),
  );
  if (names.length === 0) return <Quiet>{WORDS.noModeMixes}</Quiet>;
  const usual: Readonly<Record<string, Chroma>> = EMITTERS;
  return (
    <Column gap={4}>
      {names.map((attribute) => {
        const own = type.emitters.find((one) => one.attribute === attribute);
        const rest = type.emitters.filter((one) => one.attribute !== attribute);
        return (
          <Row key={attribute} gap={12} minHeight={48}>
            <Words flex={1}>{attributeOf(attribute).name}</Words>
            <Swatch
              label={WORDS.colourOf(attributeOf(attribute).name)}
              colour={own?.colour ?? usual[attribute] ?? { x: 0.3127, y: 0.329 }}
              onChange={(colour) => onPut({ emitters: [...rest, { attribute, colour }] })}
            />
            {own && (
              <Button kind="quiet" onPress={() => onPut({ emitters: rest })}>
                {WORDS.asUsual}
              </Button>
            )}
          </Row>
        );
      })}
    </Column>
  );
}

type SwatchProps = { readonly label: string; readonly colour: Chroma; readonly onChange: (colour: Chroma) => void };

function Swatch({ label, colour, onChange }: SwatchProps) {
  return (
    <ColourInput
      label={label}
      value={hexFromChromaticity(colour)}
      onChange={(hex) => onChange(chromaticityFromHex(hex))}
    />
  );
}
