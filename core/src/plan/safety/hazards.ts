import type { HoldPointFields } from '../../record';

/** A hold point as the catalogue asks it: a reading or answer before work with a hazard begins. */
type HoldPointAsk = Pick<HoldPointFields, 'asks' | 'kind' | 'unit' | 'low' | 'high'>;

export interface Hazard {
  readonly id: string;
  readonly name: string;
  /** the usual cautions; local codes and licensed practice decide */
  readonly cautions: readonly string[];
  readonly holdPoints: readonly HoldPointAsk[];
}

export const LOCAL_CODES =
  'These are the usual cautions, not a permission: local codes and licensed practice decide, and the people who do the work judge.';

const text = (asks: string): HoldPointAsk => ({ asks, kind: 'text', unit: '', low: null, high: null });
const yes = (asks: string): HoldPointAsk => ({ asks, kind: 'yes', unit: '', low: null, high: null });
const number = (asks: string, unit: string, low: number | null, high: number | null): HoldPointAsk => ({
  asks,
  kind: 'number',
  unit,
  low,
  high,
});

/**
 * The hazards of taking vehicles apart, with the usual cautions in our own words.
 * @source common practice, no source; the limit of 60 V DC is the one of ISO 6469-3 for contact, recalled
 */
export const HAZARDS: readonly Hazard[] = [
  {
    id: 'high-voltage',
    name: 'High voltage',
    cautions: [
      'Only people trained for it work on the high-voltage system, and never one alone.',
      'Switch off, isolate, lock and tag the isolation; keep the key with whoever works.',
      'Wait for the link capacitors to empty, then prove at every terminal that they are dead, with a tester proved before and after.',
      'Insulating gloves checked that day, insulated tools, no rings or watches, face shield.',
    ],
    holdPoints: [
      number('State of charge', '%', 0, 100),
      number('Voltage measured at the terminals after the wait', 'V', 0, 60),
      text('Second person, by name'),
      yes('Isolation locked, and the tester proved before and after'),
    ],
  },
  {
    id: 'open-cells',
    name: 'Open battery, exposed cells',
    cautions: [
      'A battery has no off: cells stay live. Cover what is not worked on; insulate every tool.',
      'A damaged, swollen, warm or hissing pack goes to quarantine outdoors at once, away from buildings.',
      'Have a fire plan with the fire service, plenty of water within reach, and a way to move the pack out.',
      'Watch the temperature of the cells; stop when one rises.',
    ],
    holdPoints: [
      number('State of charge', '%', 0, 50),
      number('Warmest cell', '°C', -20, 40),
      text('Second person, by name'),
      yes('Quarantine place free and the fire plan read'),
    ],
  },
  {
    id: 'pyrotechnic',
    name: 'Airbags, pre-tensioners, pyrotechnic fuses',
    cautions: [
      'Disconnect the low-voltage supply and wait as long as the maker says, at least several minutes, before touching a module.',
      'Carry modules one at a time, cover away from the body; lay them cover up, alone, away from heat.',
      'Never measure the resistance of an igniter with an ordinary meter. No static: touch bare earth first.',
    ],
    holdPoints: [number('Minutes since the supply was taken off', 'min', 10, null), text('Where the modules are kept')],
  },
  {
    id: 'magnets',
    name: 'Strong permanent magnets',
    cautions: [
      'People with pacemakers or other implants stay away.',
      'A rotor pulls itself into its stator, and both off the bench: guide it in a rig all the way, hands never between.',
      'Only non-magnetic tools within arm’s length; no loose steel on the bench.',
    ],
    holdPoints: [yes('Everybody near asked about implants'), text('Rig that guides it')],
  },
  {
    id: 'lifting',
    name: 'Lifting',
    cautions: [
      'Nobody under a hanging load. Slings, eyes and hooks are rated and looked over before each use.',
      'Find the centre of mass first with a trial lift of a hand’s breadth.',
    ],
    holdPoints: [number('Mass to be lifted', 'kg', 0, null), yes('Slings and eyes looked over')],
  },
  {
    id: 'hoist',
    name: 'Vehicle on a lift',
    cautions: [
      'Taking heavy things off moves the centre of mass; check it for every step before the first.',
      'Pads at the places the maker gives; stands or straps before the balance gets near its limit.',
      'Rock the vehicle gently just off the ground before it goes up.',
    ],
    holdPoints: [yes('Balance checked for the steps of this package'), yes('Stands or straps set')],
  },
  {
    id: 'springs',
    name: 'Springs and struts under load',
    cautions: [
      'Take the load off with a compressor made for it, both sides even; never under the arm of a person.',
      'A strut nut is the last thing that holds a spring: the compressor first.',
    ],
    holdPoints: [text('Compressor used')],
  },
  {
    id: 'refrigerant',
    name: 'Refrigerant under pressure',
    cautions: [
      'Recovery only by somebody licensed for it, with equipment for that refrigerant; never vented.',
      'A mildly flammable (A2L) refrigerant needs air and no flame or spark nearby.',
      'Goggles and gloves: liquid freezes skin and eyes.',
    ],
    holdPoints: [text('Refrigerant, by its label'), text('Recovered by, with licence number'), number('Mass recovered', 'g', 0, null)],
  },
  {
    id: 'fuel',
    name: 'Fuel',
    cautions: [
      'Drain cold, outdoors or under extraction, into closed cans, with the vehicle earthed.',
      'No flame, no spark, an extinguisher at hand.',
    ],
    holdPoints: [yes('Extinguisher at hand and the vehicle earthed')],
  },
  {
    id: 'coolant',
    name: 'Hot or pressurised coolant',
    cautions: ['Let it cool below hand warm before a cap or hose is opened.', 'Catch it all; it is poisonous and slippery.'],
    holdPoints: [number('Coolant temperature', '°C', -20, 45)],
  },
  {
    id: 'oil',
    name: 'Oils and greases',
    cautions: ['Gloves; wipe the floor at once.', 'Keep oily rags in a closed metal bin.'],
    holdPoints: [],
  },
  {
    id: 'sharp-edges',
    name: 'Sharp castings and cut sheet',
    cautions: ['Cut-resistant gloves and sleeves; break the edges that stay.'],
    holdPoints: [],
  },
  {
    id: 'fibres',
    name: 'Mineral fibres, mica and composite dust',
    cautions: ['Wet it, extract it, never blow it off; a fitting particle mask and goggles.', 'Bag the waste and name it.'],
    holdPoints: [yes('Extraction running, masks on')],
  },
  {
    id: 'cutting',
    name: 'Cutting, grinding and melting adhesive',
    cautions: [
      'Know what is behind the cut: lines, cells, igniters.',
      'Screens for sparks, a fire watch while it lasts and half an hour after; fumes extracted.',
    ],
    holdPoints: [text('What lies behind the cut'), text('Fire watch, by name')],
  },
  {
    id: 'capacitors',
    name: 'Capacitors that hold charge',
    cautions: [
      'Wait for the time the sum says, then measure; bleed through a resistor made for it, never with a screwdriver.',
      'Short the terminals once they are proved dead, and leave the short on.',
    ],
    holdPoints: [number('Voltage measured across the capacitor', 'V', 0, 60)],
  },
];

export const hazardById: ReadonlyMap<string, Hazard> = new Map(HAZARDS.map((hazard) => [hazard.id, hazard]));

/** Whether a reading or answer lets the work begin, and if not, why; null when it does. */
export const holdPointFault = (
  holdPoint: Pick<HoldPointFields, 'asks' | 'kind' | 'unit' | 'low' | 'high' | 'value' | 'said'>,
): string | null => {
  if (holdPoint.kind === 'number') {
    if (holdPoint.value === null) return `${holdPoint.asks}: not read yet`;
    if (holdPoint.low !== null && holdPoint.value < holdPoint.low)
      return `${holdPoint.asks}: ${holdPoint.value} ${holdPoint.unit} is below ${holdPoint.low} ${holdPoint.unit}`;
    if (holdPoint.high !== null && holdPoint.value > holdPoint.high)
      return `${holdPoint.asks}: ${holdPoint.value} ${holdPoint.unit} is above ${holdPoint.high} ${holdPoint.unit}`;
    return null;
  }
  if (holdPoint.said.trim() === '') return `${holdPoint.asks}: not answered yet`;
  if (holdPoint.kind === 'yes' && holdPoint.said !== 'yes') return `${holdPoint.asks}: answered “${holdPoint.said}”`;
  return null;
};
