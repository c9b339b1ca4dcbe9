export interface RunningServer {
  readonly port: number;
  readonly pid: number;
  readonly ended: Promise<number | null>;
  readonly stop: () => Promise<void>;
}
export const startServer: (env: Readonly<Record<string, string>>) => Promise<RunningServer>;
