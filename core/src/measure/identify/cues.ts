/** What may be seen on a part, and how many times likelier it makes a process or a material. 1 says nothing. */
export interface Cue {
  readonly id: string;
  readonly word: string;
  /** where or how to look */
  readonly hint: string;
  readonly group: 'surface' | 'edges and shape' | 'marks' | 'material';
  /** likelihood ratio by process of the catalogue; those not named have 1 */
  readonly processes: Readonly<Record<string, number>>;
  /** by family of material */
  readonly families: Readonly<Record<string, number>>;
}

const cue = (
  id: string,
  word: string,
  hint: string,
  group: Cue['group'],
  processes: Cue['processes'],
  families: Cue['families'] = {},
): Cue => ({ id, word, hint, group, processes, families });

/** Ratios are this product's own round figures: 8 speaks strongly for, 3 for, 0.3 against, 0.1 strongly against. */
export const CUES: readonly Cue[] = [
  cue('parting-line', 'Parting line', 'a fine ridge round the part where two halves of a tool met', 'surface', {
    ...{
      hpdc: 4,
      'gravity-casting': 4,
      'sand-casting': 3,
      'injection-moulding': 4,
      forging: 3,
      stamping: 0.1,
      extrusion: 0.1,
      'roll-forming': 0.1,
    },
    machining: 0.2,
  }),
  cue('draft', 'Draft on the walls', 'walls lean a degree or two so that the part leaves its tool', 'edges and shape', {
    ...{
      hpdc: 4,
      'gravity-casting': 3,
      'injection-moulding': 4,
      forging: 4,
      'sand-casting': 2,
      extrusion: 0.1,
      stamping: 0.4,
      machining: 0.3,
    },
  }),
  cue('ejector-marks', 'Round ejector marks', 'flat discs a few millimetres wide, in even places', 'marks', {
    ...{ hpdc: 8, 'injection-moulding': 8, 'gravity-casting': 1.5, 'sand-casting': 0.1, forging: 0.3, stamping: 0.1, extrusion: 0.1 },
  }),
  cue('gate-mark', 'Gate mark', 'a broken or cut stub, or a small dot, where the material came in', 'marks', {
    ...{ hpdc: 4, 'injection-moulding': 6, 'gravity-casting': 4, 'sand-casting': 3, stamping: 0.1, extrusion: 0.1, forging: 0.2 },
  }),
  cue('flow-lines', 'Flow lines', 'streaks that fan out from the gate, swirls on the skin', 'surface', {
    ...{ hpdc: 5, 'injection-moulding': 4, 'gravity-casting': 1.5, stamping: 0.2, extrusion: 0.3 },
  }),
  cue('sand-texture', 'Skin rough as from sand', 'evenly rough, like fine sandpaper, also inside cavities', 'surface', {
    ...{ 'sand-casting': 10, 'gravity-casting': 1.5, hpdc: 0.1, 'injection-moulding': 0.05, forging: 0.5, stamping: 0.05, extrusion: 0.05 },
  }),
  cue('even-thickness', 'Even thickness everywhere', 'the wall is as thick at the edge as in the middle', 'edges and shape', {
    ...{
      stamping: 6,
      'hot-stamping': 6,
      'roll-forming': 5,
      thermoforming: 2,
      hpdc: 0.3,
      'gravity-casting': 0.2,
      forging: 0.2,
      'injection-moulding': 1,
    },
  }),
  cue('sheared-edge', 'Sheared edge', 'a bright band and a torn band along the edge, a burr on one side', 'edges and shape', {
    ...{
      stamping: 10,
      'roll-forming': 4,
      'hot-stamping': 0.5,
      extrusion: 1,
      hpdc: 0.1,
      'injection-moulding': 0.05,
      'gravity-casting': 0.1,
    },
  }),
  cue('laser-edge', 'Laser-cut edge', 'fine stripes square to the edge, no burr, a dark rim', 'edges and shape', {
    'hot-stamping': 8,
    stamping: 1.2,
    'tube-forming': 3,
  }),
  cue(
    'scale-or-coating',
    'Dull grey or silvery scale',
    'a diffused coating or scale that does not wipe off, very hard to file',
    'surface',
    { 'hot-stamping': 8, forging: 3, stamping: 0.5 },
    { steel: 6 },
  ),
  cue('same-section', 'Same section all along', 'any two cuts across would look alike', 'edges and shape', {
    ...{ extrusion: 10, 'roll-forming': 6, 'profile-extrusion': 8, 'tube-forming': 4, hpdc: 0.1, 'sand-casting': 0.1, stamping: 0.5 },
  }),
  cue('die-lines', 'Lines along the length', 'straight fine grooves that run the whole length', 'surface', {
    extrusion: 8,
    'profile-extrusion': 6,
    'tube-forming': 2,
    hpdc: 0.1,
    stamping: 0.4,
  }),
  cue(
    'closed-chambers',
    'Several closed chambers along the length',
    'look at a cut end',
    'edges and shape',
    { extrusion: 10, 'profile-extrusion': 6, 'roll-forming': 0.4, stamping: 0.1 },
    { aluminium: 4 },
  ),
  cue('ribs', 'Thin ribs', 'ribs thinner than the wall they stand on', 'edges and shape', {
    'injection-moulding': 6,
    hpdc: 4,
    'gravity-casting': 1.5,
    'sand-casting': 0.7,
    stamping: 0.05,
    extrusion: 0.3,
  }),
  cue('bosses', 'Screw bosses', 'round columns with a hole for a screw', 'edges and shape', {
    'injection-moulding': 5,
    hpdc: 5,
    'gravity-casting': 3,
    'sand-casting': 2,
    stamping: 0.1,
    extrusion: 0.1,
  }),
  cue(
    'sink-marks',
    'Sink marks',
    'shallow dips opposite ribs and bosses',
    'surface',
    { 'injection-moulding': 8, hpdc: 0.7, stamping: 0.1 },
    { plastic: 6 },
  ),
  cue('forging-flash', 'Trimmed flash', 'a cut band round the thickest outline', 'edges and shape', {
    forging: 8,
    hpdc: 2,
    'gravity-casting': 1.5,
    stamping: 0.1,
  }),
  cue(
    'end-welds',
    'Seam along a tube',
    'a straight weld line, inside also',
    'marks',
    { 'tube-forming': 5, 'roll-forming': 5, extrusion: 0.3 },
    { steel: 3 },
  ),
  cue('tool-marks', 'Turning or milling marks', 'arcs or rings of even pitch on most faces', 'surface', {
    machining: 8,
    forging: 1,
    'sand-casting': 1,
    stamping: 0.3,
  }),
  cue('pores', 'Pores in a cut or machined face', 'small round or ragged holes', 'material', {
    hpdc: 5,
    'sand-casting': 3,
    'gravity-casting': 2,
    foaming: 6,
    extrusion: 0.1,
    stamping: 0.05,
    forging: 0.1,
  }),
  cue(
    'vacuum-corners',
    'Thin corners, thick middle',
    'the wall gets thinner where it was drawn deepest',
    'edges and shape',
    { thermoforming: 10, 'injection-moulding': 0.2, stamping: 1.5 },
    { plastic: 5 },
  ),
  cue(
    'cells',
    'Cells like a sponge',
    'soft, springs back',
    'material',
    { foaming: 20, 'injection-moulding': 0.2 },
    { 'rubber and foam': 15, plastic: 1 },
  ),
  cue(
    'magnetic',
    'A magnet holds',
    'stainless grades may be weak or none',
    'material',
    { stamping: 1.5 },
    { steel: 15, aluminium: 0.02, 'magnesium and zinc': 0.02, copper: 0.02, plastic: 0.02, 'rubber and foam': 0.02, glass: 0.02 },
  ),
  cue(
    'not-magnetic',
    'No magnet holds, and it is metal',
    '',
    'material',
    {},
    { steel: 0.1, aluminium: 5, 'magnesium and zinc': 4, copper: 3, plastic: 0.02, 'rubber and foam': 0.02, glass: 0.02 },
  ),
  cue(
    'glass-fibre',
    'Glass fibres at a break',
    'fine bright needles; a filed edge feels rough',
    'material',
    { 'injection-moulding': 3, hpdc: 0.02, stamping: 0.02 },
    { plastic: 20, aluminium: 0.02, steel: 0.02 },
  ),
  cue('reddish', 'Reddish metal', '', 'material', {}, { copper: 20, steel: 0.05, aluminium: 0.05, plastic: 0.2 }),
  cue(
    'very-light-metal',
    'Metal that is strikingly light',
    'lighter than aluminium of that size',
    'material',
    { hpdc: 2 },
    { 'magnesium and zinc': 6, aluminium: 1.5, steel: 0.05 },
  ),
  cue(
    'heavy-small-casting',
    'Small, heavy, sharply cast',
    'a handle, a lock part; heavier than aluminium',
    'material',
    { hpdc: 3 },
    { 'magnesium and zinc': 8, aluminium: 0.2, steel: 0.7 },
  ),
];

export const cueById: ReadonlyMap<string, Cue> = new Map(CUES.map((c) => [c.id, c]));
