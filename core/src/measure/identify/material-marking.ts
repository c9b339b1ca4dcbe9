interface MaterialMarking {
  /** symbols of the polymers, the main one first */
  readonly polymers: readonly string[];
  /** filler: its letter code and percent by mass */
  readonly fillers: readonly { readonly code: string; readonly percent: number }[];
  readonly words: string;
  /** the catalogue's material it is nearest to, or null */
  readonly materialId: string | null;
}

const FILLER_WORD: Readonly<Record<string, string>> = {
  GF: 'glass fibre',
  GB: 'glass beads',
  GK: 'glass beads',
  CF: 'carbon fibre',
  MD: 'mineral powder',
  MF: 'mineral fibre',
  MX: 'mineral',
  TD: 'talc powder',
  TF: 'talc',
  KD: 'chalk powder',
  WD: 'wood powder',
};

const KNOWN_POLYMERS: readonly string[] = [
  'PP',
  'PE',
  'ABS',
  'PC',
  'PA6',
  'PA66',
  'PA12',
  'POM',
  'PBT',
  'PET',
  'PMMA',
  'PS',
  'TPE',
  'TPV',
  'EPDM',
  'PUR',
  'PPS',
  'PPE',
  'ASA',
  'SAN',
  'PVC',
];

const MATERIAL_OF: Readonly<Record<string, string>> = {
  PP: 'pp',
  'PP-TD20': 'pp-td20',
  'PP-GF30': 'pp-gf30',
  ABS: 'abs',
  'PC+ABS': 'pc-abs',
  'PA6-GF30': 'pa6-gf30',
  'PA66-GF30': 'pa66-gf30',
  PA66: 'pa66',
  POM: 'pom',
  'PBT-GF30': 'pbt-gf30',
  EPDM: 'epdm',
  TPE: 'tpe',
  PUR: 'pur-foam',
};

/**
 * Reads the material marking of a plastic part: ">PA66-GF30<", ">PC+ABS<", ">PP-(GF15+TD20)<".
 *
 * @returns null when it is no such mark
 * @source ISO 11469 with the symbols of ISO 1043-1 and -2: from memory
 */
export const readMaterialMarking = (text: string): MaterialMarking | null => {
  const inside = /^[>›»]?\s*([^<>‹«]+?)\s*[<‹«]?$/.exec(text.trim())?.[1]?.toUpperCase().replace(/\s+/g, '') ?? '';
  const [main = '', ...rest] = inside.split('-');
  const polymers = main.split(/[+/]/);
  if (!polymers.every((p) => KNOWN_POLYMERS.includes(p))) return null;
  const fillers: { code: string; percent: number }[] = [];
  for (const term of rest.join('-').replace(/[()]/g, '').split('+')) {
    if (term === '') continue;
    const match = /^([A-Z]{2})(\d{1,2})$/.exec(term);
    if (!match || FILLER_WORD[match[1]!] === undefined) return null;
    fillers.push({ code: match[1]!, percent: Number(match[2]) });
  }
  const written = `${polymers.join('+')}${fillers.length > 0 ? `-${fillers.map((f) => `${f.code}${f.percent}`).join('+')}` : ''}`;
  const words = [polymers.join(' with '), ...fillers.map((f) => `${f.percent} % ${FILLER_WORD[f.code] ?? ''}`)].join(', ');
  return { polymers, fillers, words, materialId: MATERIAL_OF[written] ?? null };
};
