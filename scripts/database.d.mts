export interface Database {
  readonly url: string;
  readonly pid: number;
  /** says at which address the program is, for whoever starts it again */
  readonly tell: (address: string) => void;
  readonly stop: () => Promise<void>;
}
export const startDatabase: (
  dataRoot: string,
  settings?: Readonly<Record<string, string>>,
  wantedPort?: number | null,
  isFresh?: boolean,
  say?: ((words: string) => void) | null,
) => Promise<Database>;
