import yauzl, { type Entry, type ZipFile } from 'yauzl';
import { Problem } from '../http/problem';
import { ARCHIVE_PATH } from './format';

/** What an archive may hold at most: files, bytes of one file, bytes in all, and how many times its packed size. */
export interface Limits {
  readonly files: number;
  readonly bytesEach: number;
  readonly bytes: number;
  readonly ratio: number;
}

export const LIMITS: Limits = { files: 20_000, bytesEach: 512 * 1024 * 1024, bytes: 2 * 1024 * 1024 * 1024, ratio: 200 };

/** Small files may be packed as tightly as they like. */
const RATIO_FROM_BYTES = 4 * 1024 * 1024;

export const damaged = (why: string): Problem => new Problem('invalid', `The archive cannot be read: ${why}. Nothing was written`);

const checkEntry = (entry: Entry, seen: ReadonlySet<string>, limits: Limits): void => {
  const name = entry.fileName;
  if (!ARCHIVE_PATH.test(name)) throw damaged(`it holds “${name.slice(0, 80)}”, which no study archive has`);
  if (seen.has(name)) throw damaged(`it holds ${name} twice`);
  if (entry.uncompressedSize > limits.bytesEach) throw damaged(`${name} would unpack to more than ${limits.bytesEach / 2 ** 20} MB`);
  if (entry.uncompressedSize > RATIO_FROM_BYTES && entry.uncompressedSize > entry.compressedSize * limits.ratio)
    throw damaged(`${name} would unpack to more than ${limits.ratio} times its size, as no study does`);
};

const contentOf = (zip: ZipFile, entry: Entry): Promise<Buffer> =>
  new Promise((done, fail) => {
    zip.openReadStream(entry, (error, stream) => {
      if (error) {
        fail(error);
        return;
      }
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('error', fail);
      stream.on('end', () => done(Buffer.concat(parts)));
    });
  });

const opened = (path: string): Promise<ZipFile> =>
  new Promise((done, fail) => {
    // entries are read one by one, and each must unpack to exactly the size it states
    yauzl.open(path, { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true }, (error, zip) => {
      if (error) fail(error);
      else done(zip);
    });
  });

const entriesOf = (zip: ZipFile, each: (entry: Entry) => void): Promise<void> =>
  new Promise((done, fail) => {
    zip.on('entry', (entry: Entry) => {
      try {
        each(entry);
        zip.readEntry();
      } catch (error) {
        fail(error instanceof Error ? error : new Error(String(error)));
      }
    });
    zip.on('error', fail);
    zip.on('end', done);
    zip.readEntry();
  });

/** The files of a ZIP, by path, read when they are asked for. Names, number and sizes are checked before anything is unpacked. */
export interface Unzipped {
  readonly paths: readonly string[];
  readonly read: (path: string) => Promise<Buffer>;
  readonly close: () => void;
}

export const unzip = async (path: string, limits: Limits = LIMITS): Promise<Unzipped> => {
  let zip: ZipFile | null = null;
  try {
    zip = await opened(path);
    const entries = new Map<string, Entry>();
    let bytes = 0;
    await entriesOf(zip, (entry) => {
      checkEntry(entry, new Set(entries.keys()), limits);
      bytes += entry.uncompressedSize;
      if (bytes > limits.bytes) throw damaged(`it would unpack to more than ${limits.bytes / 2 ** 30} GB`);
      if (entries.size >= limits.files) throw damaged(`it holds more than ${limits.files} files`);
      entries.set(entry.fileName, entry);
    });
    const open = zip;
    return {
      paths: [...entries.keys()],
      read: async (name) => {
        const entry = entries.get(name);
        if (!entry) throw damaged(`${name} is missing`);
        return contentOf(open, entry).catch(() => {
          throw damaged(`${name} is damaged`);
        });
      },
      close: () => open.close(),
    };
  } catch (error) {
    zip?.close();
    if (error instanceof Problem) throw error;
    throw damaged(
      /invalid characters|relative path|absolute path/.test(String(error))
        ? 'it names files outside of itself'
        : 'it is no ZIP file, or cut short',
    );
  }
};
