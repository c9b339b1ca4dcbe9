/** How an instrument tells of a reading, unasked, once `INIT:CONT ON` was said. */
type Status = 'STAB' | 'UNST' | 'OVER' | 'UNDER';

interface ReadingParts {
  readonly seq: number;
  readonly quantity: 'MASS' | 'LENG' | 'TORQ' | 'COUN' | 'ELEM' | 'DATA';
  readonly value: number | null;
  readonly unit: string;
  readonly u: number | null;
  readonly tare: number | null;
  readonly status: Status;
  readonly elements?: Readonly<Record<string, { readonly fraction: number; readonly u: number }>>;
}

const number = (value: number | null): string => (value === null ? '' : value.toExponential(6));

/** `READ 12,MASS,4.120000e-2,KG,5.000000e-5,0.000000e+0,STAB` */
export const readingLine = ({ seq, quantity, value, unit, u, tare, status, elements }: ReadingParts): string =>
  `READ ${[
    seq,
    quantity,
    number(value),
    unit,
    number(u),
    number(tare),
    status,
    ...Object.entries(elements ?? {}).map(([symbol, part]) => `${symbol}=${number(part.fraction)}:${number(part.u)}`),
  ].join(',')}`;
