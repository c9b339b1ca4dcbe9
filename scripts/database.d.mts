export interface Database {
  readonly url: string;
  readonly pid: number;
  readonly stop: () => Promise<void>;
}
export const startDatabase: (
  dataRoot: string,
  settings?: Readonly<Record<string, string>>,
  wantedPort?: number | null,
) => Promise<Database>;
