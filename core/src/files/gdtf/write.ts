// A fixture type as a GDTF file (DIN SPEC 15800:2022): a zip with description.xml.

import { XMLBuilder } from 'fast-xml-parser';
import { zipSync } from 'fflate';
import { attributeOf, bytesOfValue, testValue, type Channel, type Mode, type Profile } from '../../rig';
import { fromGdtf, stretchOf, toGdtf, type Stretch } from './functions';

/** Lumens of a lamp whose output is 1: a common LED par. */
export const LUMENS = 4000;

type Xml = { readonly [name: string]: string | number | Xml | readonly Xml[] };

/** What GDTF has no place for, in words: shown beside the export. */
export function notInGdtf(profile: Profile): readonly string[] {
  const channels = profile.modes.flatMap((mode) => mode.channels);
  return [
    profile.colours.some(({ second }) => second) ? 'second halves of split colours' : '',
    channels.some(({ dark }) => dark !== undefined && dark !== null) ? 'values for blackout' : '',
    profile.picture ? 'its picture' : '',
    profile.modes.some(({ menu }) => menu) ? 'what to set on the lamp’s menu' : '',
    channels.some(({ ranges }) => ranges.some(({ hold }) => hold !== undefined && hold !== 3 && hold !== 5))
      ? 'how long a reset is held'
      : '',
  ].filter(Boolean);
}

/** @returns the bytes of the .gdtf file; the same type gives the same bytes. */
export function writeGdtf(profile: Profile): Uint8Array<ArrayBuffer> {
  const builder = new XMLBuilder({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    format: true,
    suppressEmptyNode: true,
  });
  const xml = builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    GDTF: { '@DataVersion': '1.2', FixtureType: fixtureType(named(profile)) },
  });
  return zipSync({ 'description.xml': new TextEncoder().encode(xml) }, { mtime: '2020-01-01T00:00' });
}

/** With the names that emitters have in GDTF. */
function named(profile: Profile): Profile {
  const renamed = <T extends { readonly attribute: string }>(one: T): T => ({
    ...one,
    attribute: toGdtf(one.attribute),
  });
  const modes = profile.modes.map((mode) => ({ ...mode, channels: mode.channels.map(renamed) }));
  return { ...profile, emitters: profile.emitters.map(renamed), modes };
}

function fixtureType(profile: Profile): Xml {
  return {
    '@Name': profile.model,
    '@ShortName': profile.label,
    '@LongName': `${profile.maker} ${profile.model}`,
    '@Manufacturer': profile.maker,
    '@Description': `Kind: ${profile.kind}.${profile.strobesByLevel ? '' : ' No strobe by level.'}`,
    '@FixtureTypeID': guidOf(`${profile.maker}/${profile.model}`),
    AttributeDefinitions: definitions(profile),
    Wheels: { Wheel: wheels(profile) },
    PhysicalDescriptions: {
      Emitters: {
        Emitter: profile.emitters.map(({ attribute, colour }) => ({ '@Name': attribute, '@Color': ciexyY(colour) })),
      },
    },
    Models: {},
    Geometries: { Geometry: geometry(profile) },
    DMXModes: { DMXMode: profile.modes.map((mode) => dmxMode(profile, mode)) },
  };
}

const FEATURES = {
  level: 'Dimmer.Dimmer',
  colour: 'Color.Color',
  aim: 'Position.PanTilt',
  beam: 'Beam.Beam',
  rate: 'Beam.Beam',
  other: 'Control.Control',
} as const;

function definitions(profile: Profile): Xml {
  const names = new Set(
    profile.modes.flatMap(({ channels }) =>
      channels.flatMap((channel) => stretches(profile, channel).map(({ attribute }) => attribute)),
    ),
  );
  const group = (feature: string) => {
    const [name, own] = feature.split('.') as [string, string];
    return { '@Name': name, '@Pretty': name, Feature: { '@Name': own } };
  };
  return {
    ActivationGroups: {},
    FeatureGroups: { FeatureGroup: [...new Set(Object.values(FEATURES))].map(group) },
    Attributes: {
      Attribute: [...names].map((name) => ({
        '@Name': name,
        '@Pretty': attributeOf(fromGdtf(name)).name,
        '@Feature': FEATURES[attributeOf(fromGdtf(name)).family],
      })),
    },
  };
}

function wheels({ colours, gobos }: Profile): readonly Xml[] {
  const slots = (list: readonly Xml[], name: string): readonly Xml[] =>
    list.length > 0 ? [{ '@Name': name, Slot: list }] : [];
  return [
    ...slots(
      colours.map(({ name, colour }) => ({ '@Name': name, '@Color': ciexyY(colour) })),
      'Color1',
    ),
    ...slots(
      gobos.map(({ name, pattern }) => ({
        '@Name': name,
        '@Color': ciexyY({ x: 0.3127, y: 0.329 }),
        '@MediaFileName': pattern,
      })),
      'Gobo1',
    ),
  ];
}

/** A base; for heads, a yoke that pans and a head that tilts; the beam, or one for each cell. */
function geometry(profile: Profile): Xml {
  const cells = Math.max(0, ...profile.modes.flatMap(({ channels }) => channels.map(({ cell }) => (cell ?? -1) + 1)));
  const beam = (name: string) => ({
    '@Name': name,
    '@BeamAngle': profile.beamAngle,
    '@FieldAngle': profile.beamAngle,
    '@LuminousFlux': Math.round(profile.output * LUMENS),
    '@PowerConsumption': profile.watts ?? 0,
  });
  const beams = cells > 0 ? Array.from({ length: cells }, (_, i) => beam(`Cell ${i + 1}`)) : [beam('Beam')];
  if (profile.panRange === 0) return { '@Name': 'Base', Beam: beams };
  return { '@Name': 'Base', Axis: { '@Name': 'Yoke', Axis: { '@Name': 'Head', Beam: beams } } };
}

function dmxMode(profile: Profile, mode: Mode): Xml {
  return {
    '@Name': mode.name,
    '@Geometry': 'Base',
    DMXChannels: { DMXChannel: mode.channels.map((channel) => dmxChannel(profile, channel)) },
  };
}

function dmxChannel(profile: Profile, channel: Channel): Xml {
  const geometryName = geometryOf(profile, channel);
  const lit = testValue(channel);
  const all = stretches(profile, channel);
  const functions = all.map((stretch, i) => {
    const name = stretch.name || `${stretch.attribute} ${i + 1}`;
    return {
      '@Name': name,
      '@Attribute': stretch.attribute,
      '@DMXFrom': `${stretch.from}/1`,
      ...(channel.home === null ? {} : { '@Default': dmxValue(channel.home, channel) }),
      '@PhysicalFrom': stretch.physicalFrom,
      '@PhysicalTo': stretch.physicalTo,
      ...(stretch.slot > 0
        ? {
            '@Wheel': channel.attribute,
            ChannelSet: { '@Name': name, '@DMXFrom': `${stretch.from}/1`, '@WheelSlotIndex': stretch.slot },
          }
        : {}),
    };
  });
  return {
    '@DMXBreak': 1,
    '@Offset': channel.at.join(','),
    '@Highlight': channel.test === undefined || lit === null ? 'None' : dmxValue(lit, channel),
    '@Geometry': geometryName,
    '@InitialFunction': `${geometryName}_${channel.attribute}.${channel.attribute}.${functions[0]!['@Name']}`,
    LogicalChannel: {
      '@Attribute': channel.attribute,
      '@Snap': channel.snap === undefined ? undefinedSnap(channel) : channel.snap ? 'On' : 'Off',
      '@Master': channel.masters === false ? 'None' : 'Grand',
      ...(channel.name ? { '@Name': channel.name } : {}),
      ChannelFunction: functions,
    },
  };
}

/** “Yes” and “No” are what is usual; “On” and “Off” what the user said. The standard knows all four. */
function undefinedSnap(channel: Channel): string {
  return attributeOf(channel.attribute).snap ? 'Yes' : 'No';
}

function geometryOf(profile: Profile, { attribute, cell }: Channel): string {
  if (attribute === 'Pan' && profile.panRange > 0) return 'Yoke';
  if (attribute === 'Tilt' && profile.panRange > 0) return 'Head';
  return cell === undefined ? 'Base' : `Cell ${cell + 1}`;
}

/** Functions over the whole of a channel: its ranges, and nothing in the gaps between them. */
function stretches(profile: Profile, channel: Channel): readonly Stretch[] {
  const { attribute, ranges } = channel;
  if (ranges.length === 0) {
    const turn = attribute === 'Pan' ? profile.panRange : attribute === 'Tilt' ? profile.tiltRange : 0;
    const [physicalFrom, physicalTo] = turn > 0 ? [-turn / 2, turn / 2] : [0, 1];
    return [{ attribute, from: 0, to: 255, physicalFrom, physicalTo, name: '', slot: 0 }];
  }
  const sorted = ranges.map((range) => stretchOf(range, attribute)).sort((a, b) => a.from - b.from);
  const gap = (from: number, to: number): Stretch[] =>
    from <= to ? [{ attribute: 'NoFeature', from, to, physicalFrom: 0, physicalTo: 0, name: GAP, slot: 0 }] : [];
  return [
    ...gap(0, sorted[0]!.from - 1),
    ...sorted.flatMap((stretch, i) => [stretch, ...gap(stretch.to + 1, (sorted[i + 1]?.from ?? 256) - 1)]),
  ];
}

/** What a stretch is called that no range of ours claims. */
export const GAP = 'no range';

function dmxValue(value: number, { at }: Channel): string {
  const whole = bytesOfValue(value, at.length).reduce((sum, byte) => sum * 256 + byte, 0);
  return `${whole}/${at.length}`;
}

const ciexyY = ({ x, y }: { x: number; y: number }) => `${x.toFixed(6)},${y.toFixed(6)},100.000000`;

/** A GUID in the form the standard asks for, always the same for the same name: four rounds of FNV-1a, 32 bits each. */
function guidOf(text: string): string {
  const hex = [0, 1, 2, 3].map((round) => {
    let hash = 0x811c9dc5 ^ (round * 0x9e3779b9);
    for (const letter of text) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193);
    return (hash >>> 0).toString(16).padStart(8, '0').toUpperCase();
  });
  const all = hex.join('');
  return [all.slice(0, 8), all.slice(8, 12), all.slice(12, 16), all.slice(16, 20), all.slice(20)].join('-');
}
