// What manuals call an attribute. A page that only plays a show needs none of it, so it is not with the attributes.

import { ATTRIBUTES, type Attribute } from './attributes';

/** Whole words, lower case, other languages too, each attribute's apart by a stroke. */
const WORDS: Readonly<Record<string, string>> = {
  Dimmer:
    'dimmer|dimming|dim|intensity|master|master dimmer|total dimming|brightness|helligkeit|dimmerintensität|intensité|gradateur|intensidad|intensità|总调光',
  Pan: 'pan|pan movement|x axis|x-axis|horizontal',
  Tilt: 'tilt|tilt movement|y axis|y-axis|vertical',
  ColorAdd_R: 'red|r|rot|rouge|rojo|rosso|红',
  ColorAdd_G: 'green|g|grün|vert|verde|绿',
  ColorAdd_B: 'blue|b|blau|bleu|azul|blu|蓝',
  ColorAdd_W: 'white|w|weiß|weiss|blanc|blanco|bianco|cool white|cold white|cw|白',
  ColorAdd_WW: 'warm white|ww|warmweiß|warmweiss|blanc chaud',
  ColorAdd_CW: 'cool white led',
  ColorAdd_A: 'amber|a|ambre|ámbar|ambra|bernstein',
  ColorAdd_UV: 'uv|ultraviolet|ultra violet|violet|blacklight|purple',
  ColorAdd_L: 'lime|mint',
  ColorAdd_C: 'cyan led',
  ColorAdd_Y: 'yellow led',
  ColorAdd_GC: 'blue-green led',
  ColorAdd_BC: 'light blue led',
  ColorAdd_BM: 'indigo led',
  ColorAdd_RM: 'pink led',
  ColorAdd_M: 'magenta led',
  ColorSub_C: 'cyan|c',
  ColorSub_M: 'magenta|m',
  ColorSub_Y: 'yellow|y|gelb|jaune|amarillo|giallo',
  HSB_Hue: 'hue|farbton|teinte|tonalità|matiz',
  HSB_Saturation: 'saturation|sat|sättigung|saturación|saturazione',
  CTC: 'ctc|colour temperature|color temperature|cct|farbtemperatur|température de couleur|temperatura de color|temperatura colore',
  CTO: 'cto',
  CTB: 'ctb',
  Color1:
    'colour wheel|color wheel|colour|color|colors|colours|colour wheel 1|color wheel 1|farbrad|farbe|roue de couleur|couleur|rueda de color',
  Color2: 'colour wheel 2|color wheel 2|farbrad 2',
  ColorMacro1:
    'colour macro|color macro|colour macros|color macros|colour preset|color preset|colour change|color change|macro|macros',
  Shutter1:
    'shutter|strobe|shutter strobe|strobe shutter|shutter/strobe|strobe/shutter|flash|stroboscope|strob|stroboskop|obturateur|obturador|estrobo',
  Gobo1: 'gobo|gobo wheel|gobos|gobo wheel 1|static gobo|fixed gobo|goborad|pattern|patterns',
  Gobo1Pos: 'gobo rotation|gobo rot|gobo index|rotating gobo rotation|goborotation|gobo turning',
  Gobo2: 'gobo wheel 2|gobo 2|rotating gobo|rotating gobos|goborad 2',
  Gobo2Pos: 'gobo 2 rotation',
  Prism1: 'prism|prisma|prisme|prism 1',
  Prism1Pos: 'prism rotation|prism rot|prismarotation|prism index',
  Focus1: 'focus|fokus|mise au point|enfoque',
  Zoom: 'zoom',
  Iris: 'iris',
  Frost1: 'frost|diffusion',
  Effects1:
    'effect|effects|auto|chase|chases|auto program|auto programs|program|programs|programme|built-in programs|mode|function mode|effekt|programm',
  EffectsSpeed: 'effect speed|chase speed|program speed|auto speed|speed|macro speed|geschwindigkeit|vitesse|velocidad',
  SoundSensitivity: 'sound|sound sensitivity|mic sensitivity|sound control',
  PanTiltSpeed:
    'pan tilt speed|pan/tilt speed|p/t speed|movement speed|xy speed|speed pan/tilt|vector speed|motor speed|speed of pan/tilt',
  LampControl:
    'control|lamp control|master/slave|master slave|special|special functions|function|functions|settings|reset|lamp|reset and lamp|sonderfunktionen|maintenance',
  Fog1: 'fog|haze|smoke|output|fog output|haze output|nebel',
  Fans: 'fan|fan speed|fans|lüfter|ventilator',
  DimmerCurve: 'dimmer curve|dimming curve|dimmer speed|dimming speed|dimmer mode',
  Reserved: 'reserved|not used|unused|no function|none|n/a|frei|keine funktion',
};

const SPLIT = new Map(Object.entries(WORDS).map(([attribute, words]) => [attribute, words.split('|')]));

/** What manuals call it; none for an attribute of a stranger's own. */
export const wordsOf = (attribute: string): readonly string[] => SPLIT.get(attribute) ?? [];

/** Attributes whose name, GDTF name or any word begins with or holds `text`; those that begin with it first. Empty finds all. */
export function searchAttributes(text: string): readonly Attribute[] {
  const wanted = text.trim().toLowerCase();
  if (wanted === '') return ATTRIBUTES;
  const rank = ({ attribute, name }: Attribute) => {
    const all = [name.toLowerCase(), attribute.toLowerCase(), ...wordsOf(attribute)];
    if (all.includes(wanted)) return 0;
    if (all.some((word) => word.startsWith(wanted))) return 1;
    return all.some((word) => word.includes(wanted)) ? 2 : 3;
  };
  return ATTRIBUTES.map((one) => ({ one, rank: rank(one) }))
    .filter(({ rank: place }) => place < 3)
    .sort((a, b) => a.rank - b.rank)
    .map(({ one }) => one);
}
