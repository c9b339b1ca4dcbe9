import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { blankPiece, type Op, type PieceFields, type StudyFields, type StudyRecord } from '@each-bolt/core/record';
import { buildApp } from '../src/app';
import type { Pool } from '../src/db/pool';

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

export interface Problem {
  readonly code: string;
  readonly message: string;
  readonly issues: readonly {
    readonly code: string;
    readonly recordId: string | null;
    readonly field: string | null;
    readonly message: string;
  }[];
  readonly conflicts: readonly { readonly id: string; readonly current: { readonly version: number; readonly name: string } | null }[];
}

/** The application listening on a port of its own, spoken to over HTTP as any client would. */
export class Api {
  private constructor(
    readonly address: string,
    readonly stop: () => Promise<void>,
  ) {}

  static async over(pool: Pool): Promise<Api> {
    const server = buildApp({ pool, log: pino({ level: 'silent' }), version: '0.0.0', webDir: null }).listen(0, '127.0.0.1');
    await new Promise((ready) => server.once('listening', ready));
    const { port } = server.address() as AddressInfo;
    return new Api(`http://127.0.0.1:${port}`, () => new Promise((done) => server.close(() => done())));
  }

  async get<T>(path: string, headers: Record<string, string> = {}): Promise<Answer<T>> {
    return this.answer<T>(await fetch(this.address + path, { headers }));
  }

  async post<T>(path: string, body: string, type = 'application/json'): Promise<Answer<T>> {
    return this.answer<T>(await fetch(this.address + path, { method: 'POST', headers: { 'Content-Type': type }, body }));
  }

  change<T = { readonly id: string; readonly revision: number }>(
    studyId: string,
    ops: readonly unknown[],
    id: string = randomUUID(),
  ): Promise<Answer<T>> {
    return this.post<T>(`/api/studies/${studyId}/changes`, JSON.stringify({ id, ops }));
  }

  async record(studyId: string): Promise<StudyRecord> {
    return (await this.get<StudyRecord>(`/api/studies/${studyId}`)).body;
  }

  private async answer<T>(response: Response): Promise<Answer<T>> {
    const text = await response.text();
    return { status: response.status, headers: response.headers, body: (text === '' ? null : JSON.parse(text)) as T };
  }
}

export const STUDY_FIELDS: StudyFields = {
  title: 'Last-mile vans',
  questions: '',
  lead: '',
  currency: 'EUR',
  priceYear: 2026,
  volumePerYear: 60_000,
  productionYears: 7,
  region: 'Central Europe',
  fastenersIn: true,
  assembliesAs: 'pieces',
};

export interface Begun {
  readonly studyId: string;
  readonly vehicleId: string;
  readonly otherVehicleId: string;
  readonly subsystemId: string;
  /** fields of a piece straight under the subsystem */
  readonly piece: (fields?: Partial<PieceFields>) => PieceFields;
}

/** A study with two vehicles and one subsystem, at revision 1. */
export const beginStudy = async (api: Api): Promise<Begun> => {
  const [studyId, vehicleId, otherVehicleId, subsystemId] = [randomUUID(), randomUUID(), randomUUID(), randomUUID()] as const;
  const vehicle = {
    sequence: 0,
    name: 'Drayman II',
    maker: 'Halvard & Roe',
    role: 'subject',
    modelYear: 2026,
    builtOn: '2026-02-18',
    acquiredOn: null,
    notes: '',
  } as const;
  const ops: readonly Op[] = [
    { kind: 'study.add', id: studyId, fields: STUDY_FIELDS },
    { kind: 'vehicle.add', id: vehicleId, fields: vehicle },
    { kind: 'vehicle.add', id: otherVehicleId, fields: { ...vehicle, sequence: 1, name: 'Pannier', role: 'competitor' } },
    { kind: 'subsystem.add', id: subsystemId, fields: { parentId: null, sequence: 0, name: 'Sliding cargo door' } },
  ];
  const { status } = await api.change(studyId, ops);
  if (status !== 201) throw new Error(`the study was not begun: ${status}`);
  return {
    studyId,
    vehicleId,
    otherVehicleId,
    subsystemId,
    piece: (fields = {}) => ({ ...blankPiece({ vehicleId, subsystemId, parentId: null }), name: 'carrier plate', ...fields }),
  };
};
