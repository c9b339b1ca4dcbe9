import {
  blank,
  evidence,
  type BoardDutyFields,
  type BoardFields,
  type Connection,
  type ConnectionKind,
  type EvidenceOf,
  type HeatingFields,
  type Op,
  type StudyRecord,
  type SupplyFields,
  type Triple,
} from '@each-bolt/core/record';

interface State<F> {
  readonly name: string;
  readonly isWhatIf: boolean;
  readonly author: string;
  readonly reason: string;
  /** all that is not said of it is as it is in that one of the list */
  readonly like?: number;
  readonly fields: Partial<F>;
  /** standard uncertainties by field */
  readonly u: Readonly<Record<string, number>>;
}

/** A line of a part: the first of its kind, unless its place among them is said. */
interface LineOf {
  readonly tag: string;
  readonly kind: ConnectionKind;
  readonly place?: number;
}

/** Lines with their ends, the supply, boards and heating of the demo study; places in mm, ports by the tag of their part and their name. */
export interface DemoSystems {
  readonly ports: readonly { readonly tag: string; readonly name: string; readonly mm: Triple }[];
  readonly passages: readonly {
    readonly tag: string;
    readonly name: string;
    readonly from: string;
    readonly to: string;
    readonly does: 'resists' | 'pumps';
    readonly kPa: number;
    readonly lpm: number;
  }[];
  readonly ends: readonly (LineOf & { readonly from: string; readonly to: string; readonly over: readonly Triple[] })[];
  readonly cases: readonly {
    readonly vehicle: string;
    readonly name: string;
    readonly author: string;
    readonly reason: string;
    readonly changes: readonly { readonly move: string; readonly to: Triple }[];
  }[];
  readonly supplies: readonly (Partial<SupplyFields> &
    Pick<SupplyFields, 'name' | 'role'> & { readonly tag: string; readonly fedFrom: string | null; readonly through: LineOf | null })[];
  readonly duties: readonly (State<BoardDutyFields> & { readonly tag: string })[];
  readonly heatings: readonly (State<HeatingFields> & { readonly vehicle: string })[];
  readonly boards: readonly { readonly tag: string; readonly fields: Partial<BoardFields> }[];
  /** parts that are drawn */
  readonly pictures: readonly string[];
}

interface Names {
  vehicle(name: string): string;
  part(tag: string): string;
  newId(): string;
}

const known = <T>(value: T | undefined, what: string): T => {
  if (value === undefined) throw new RangeError(`demo: ${what} is not there`);
  return value;
};

const inMetres = ([x, y, z]: Triple): Triple => [x / 1000, y / 1000, z / 1000];

const evidenceOf = (u: Readonly<Record<string, number>>): EvidenceOf =>
  Object.fromEntries(Object.entries(u).map(([field, value]) => [field, evidence('I', { u: value })]));

/** A state with what it takes over from another. */
const whole = <F>(states: readonly State<F>[], { like, fields, u }: State<F>): Pick<State<F>, 'fields' | 'u'> => {
  const from = like === undefined ? { fields: {}, u: {} } : known(states[like], `state ${like}`);
  return { fields: { ...from.fields, ...fields }, u: { ...from.u, ...u } };
};

/** What the demo has of systems, on top of the parts and connections that are recorded. */
export const systemOps = (demo: DemoSystems, recorded: StudyRecord, names: Names): readonly Op[] => {
  const portIds = new Map(demo.ports.map(({ tag, name }) => [`${tag} ${name}`, names.newId()]));
  const portId = (text: string): string => known(portIds.get(text), `port “${text}”`);
  const lineOf = ({ tag, kind, place = 0 }: LineOf): Connection => {
    const partId = names.part(tag);
    return known(recorded.connections.filter((line) => line.partId === partId && line.kind === kind)[place], `a ${kind} on ${tag}`);
  };
  const supplyIds = new Map(demo.supplies.map(({ name }) => [name, names.newId()]));
  const cases = demo.cases.map((said) => ({ ...said, id: names.newId() }));
  return [
    ...demo.ports.map(({ tag, name, mm }, sequence): Op => {
      const [xM, yM, zM] = inMetres(mm);
      return {
        kind: 'port.add',
        id: portId(`${tag} ${name}`),
        fields: { ...blank('port', { partId: names.part(tag), sequence, name }), xM, yM, zM },
      };
    }),
    ...demo.passages.map(({ tag, name, from, to, does, kPa, lpm }, sequence): Op => ({
      kind: 'passage.add',
      id: names.newId(),
      fields: {
        ...blank('passage', { partId: names.part(tag), sequence, name, does }),
        ...{ fromPortId: portId(from), toPortId: portId(to), pressurePa: kPa * 1000, flowM3PerS: lpm / 60e3 },
        evidence: { pressurePa: evidence('I'), flowM3PerS: evidence('I') },
      },
    })),
    ...demo.ends.map(({ from, to, over, ...line }): Op => {
      const { id, fromPortId, toPortId, route } = lineOf(line);
      return {
        kind: 'connection.edit',
        id,
        was: { fromPortId, toPortId, route },
        fields: { fromPortId: portId(from), toPortId: portId(to), route: over.map(inMetres) },
      };
    }),
    ...cases.map(({ id, vehicle, name, author, reason }, sequence): Op => ({
      kind: 'runCase.add',
      id,
      fields: { ...blank('runCase', { vehicleId: names.vehicle(vehicle), sequence, name, reason }), author },
    })),
    ...cases.flatMap(({ id: caseId, changes }) =>
      changes.map(({ move, to }, sequence): Op => {
        const [xM, yM, zM] = inMetres(to);
        return {
          kind: 'runChange.add',
          id: names.newId(),
          fields: { ...blank('runChange', { caseId, sequence, change: 'move a port' }), portId: portId(move), xM, yM, zM },
        };
      }),
    ),
    ...demo.supplies.map(({ tag, fedFrom, through, ...fields }, sequence): Op => ({
      kind: 'supply.add',
      id: known(supplyIds.get(fields.name), fields.name),
      fields: {
        ...blank('supply', { partId: names.part(tag), sequence, name: fields.name }),
        ...fields,
        feedId: fedFrom === null ? null : known(supplyIds.get(fedFrom), `feed “${fedFrom}”`),
        connectionId: through === null ? null : lineOf(through).id,
      },
    })),
    ...demo.duties.map((duty, sequence): Op => {
      const { fields, u } = whole(demo.duties, duty);
      const { tag, name, isWhatIf, author, reason } = duty;
      return {
        kind: 'boardDuty.add',
        id: names.newId(),
        fields: {
          ...blank('boardDuty', { partId: names.part(tag), sequence, name, isWhatIf }),
          ...fields,
          ...{ author, reason, evidence: evidenceOf(u) },
        },
      };
    }),
    ...demo.heatings.map((heating, sequence): Op => {
      const { fields, u } = whole(demo.heatings, heating);
      const { vehicle, name, isWhatIf, author, reason } = heating;
      return {
        kind: 'heating.add',
        id: names.newId(),
        fields: {
          ...blank('heating', { vehicleId: names.vehicle(vehicle), sequence, name, isWhatIf }),
          ...fields,
          ...{ author, reason, evidence: evidenceOf(u) },
        },
      };
    }),
    ...demo.boards.map(({ tag, fields }): Op => {
      const partId = names.part(tag);
      const board = known(
        recorded.boards.find((b) => b.partId === partId),
        `the board ${tag}`,
      );
      const was = Object.fromEntries(Object.keys(fields).map((field) => [field, board[field as keyof BoardFields]]));
      return { kind: 'board.edit', id: board.id, was, fields };
    }),
  ];
};
