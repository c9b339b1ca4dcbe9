import type { JointKind } from '../../record';

/** The word typed for each kind of joint. */
export const JOINT_WORD: Readonly<Record<JointKind, string>> = {
  'spot weld': 'spot',
  'self-piercing rivet': 'spr',
  'flow-drill screw': 'fds',
  clinch: 'clinch',
  'press fit': 'press',
  'snap fit': 'snap',
  'adhesive bead': 'bead',
  'seam weld': 'seam',
  'laser weld': 'laser',
  'friction-stir weld': 'fsw',
  braze: 'braze',
  solder: 'solder',
  hem: 'hem',
};
/** Other words and phrases for them. */
const PHRASES: Readonly<Record<JointKind, readonly string[]>> = {
  'spot weld': [
    'spots',
    'spot weld',
    'spot-weld',
    'spotweld',
    'resistance spot weld',
    'rsw',
    'weld spot',
    'weld point',
    'welding point',
    'spot welding',
    'schweißpunkt',
    'schweisspunkt',
    'schweißpunkte',
    'schweisspunkte',
    'point de soudure',
    'points de soudure',
    'pt de soudure',
    'pts de soudure',
    'punto de soldadura',
    'puntos de soldadura',
    'punto di saldatura',
    'punti di saldatura',
  ],
  'self-piercing rivet': ['sprs', 'self-piercing rivet', 'self piercing rivet'],
  'flow-drill screw': ['flow-drill screw', 'flow drill screw'],
  clinch: ['clinches', 'clinch joint', 'clinch point', 'clinched joint'],
  'press fit': ['press fit', 'press-fit'],
  'snap fit': ['snaps', 'snap fit', 'snap-fit'],
  'adhesive bead': [
    'beads',
    'adhesive bead',
    'glue bead',
    'adhesive',
    'bonded seam',
    'klebenaht',
    'klebenähte',
    'kleberaupe',
    'kleberaupen',
    'cordon de colle',
    'cordons de colle',
  ],
  'seam weld': [
    'seams',
    'seam weld',
    'weld seam',
    'mig weld',
    'mag weld',
    'tig weld',
    'arc weld',
    'fillet weld',
    'weld bead',
    'mig seam',
    'schweißnaht',
    'schweissnaht',
    'schweißnähte',
    'schweissnähte',
    'cordon de soudure',
    'cordons de soudure',
    'cordón de soldadura',
    'cordone di saldatura',
  ],
  'laser weld': ['laser weld', 'laser seam'],
  'friction-stir weld': ['friction-stir weld', 'friction stir weld'],
  braze: ['braze joint', 'brazed joint', 'brazed seam'],
  solder: ['solder joint', 'soldered joint'],
  hem: ['hems', 'hem flange', 'hemmed edge'],
};
const KIND_OF: ReadonlyMap<string, JointKind> = new Map(
  (Object.keys(JOINT_WORD) as JointKind[]).flatMap((kind) =>
    [JOINT_WORD[kind], ...PHRASES[kind], ...PHRASES[kind].filter((word) => !word.endsWith('s')).map((word) => `${word}s`)].map(
      (word) => [word, kind] as const,
    ),
  ),
);
const alternatives = (words: readonly string[]): string =>
  [...words]
    .sort((a, b) => b.length - a.length)
    .map((word) => word.replaceAll(' ', String.raw`\s+`))
    .join('|');

/** Every word and phrase for a joint, as a pattern without groups. */
export const JOINT_PATTERN = alternatives([...KIND_OF.keys()]);
export const wordsOfJoints = (kinds: readonly JointKind[]): string =>
  alternatives([...KIND_OF].filter(([, kind]) => kinds.includes(kind)).map(([word]) => word));
export const jointKind = (word: string): JointKind | undefined => KIND_OF.get(word.toLowerCase().replace(/\s+/g, ' '));

/** Words that are nothing else than a code for a joint. */
export const JOINT_CODE = /^(?:sprs?|fds|fsw|rsw)$/i;
