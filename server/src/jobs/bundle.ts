import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { In, type DataSource } from 'typeorm';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import yazl from 'yazl';
import { MAX_ATTACHMENT_BYTES, type Evidence } from '@tactron/core/job';
import { BlobRow } from '../db/entities.js';
import { invalid, Problem } from '../http/problem.js';

/** The job file in a bundle, and the folder of its pictures and files, each by its SHA-256. */
const JOB_NAME = 'job.tactron.json';
const FILES = 'files/';

/** The same job gives the same bytes: when they were packed is in the seal. */
const FIXED = new Date(2000, 0, 1);

/** Largest bundle that is taken, and largest job file in it, bytes. */
const MAX_BUNDLE_BYTES = 4e9;
const MAX_JOB_FILE_BYTES = 64e6;
const MAX_ENTRIES = 5000;

/** Kinds of the files that evidence names, by SHA-256. */
export const namedFiles = (evidence: readonly Evidence[]): Map<string, string> =>
  new Map(
    evidence.flatMap((e): [string, string][] =>
      e.kind === 'attachment' ? [[e.body.sha256, e.body.type]] : [],
    ),
  );

/** A job file and the files its evidence names as a ZIP, each file read when its turn comes. */
export async function bundleOf(
  db: DataSource,
  file: { evidence: readonly Evidence[] },
): Promise<Readable> {
  const zip = new yazl.ZipFile();
  const out = zip.outputStream as Readable;
  // A file that cannot be read ends the stream: half a bundle is no bundle.
  zip.on('error', (error: Error) => out.destroy(error));
  zip.addBuffer(Buffer.from(JSON.stringify(file)), JOB_NAME, { mtime: FIXED });
  const rows = db.getRepository(BlobRow);
  const named = [...namedFiles(file.evidence).keys()];
  const there = await rows.find({ select: { sha256: true }, where: { sha256: In(named) } });
  for (const { sha256 } of there)
    // Pictures are packed already.
    zip.addReadStreamLazy(FILES + sha256, { compress: false, mtime: FIXED }, (give) => {
      rows.findOneByOrFail({ sha256 }).then(
        ({ body }) => give(null, Readable.from([body])),
        (error: unknown) => give(error as Error, null as never),
      );
    });
  zip.end();
  return out;
}

/** A bundle that was received: the job file's text, and its files one by one. */
export interface Bundle {
  readonly job: unknown;
  readonly files: ReadonlySet<string>;
  /** @throws Problem 400 when the file is not the one its hash names */
  file(sha256: string): Promise<Buffer>;
  close(): Promise<void>;
}

/**
 * Receives a ZIP into a file of its own and opens it.
 *
 * @throws Problem 413 too large, 400 no bundle, with the entry that does not fit
 */
export async function receiveBundle(from: Readable): Promise<Bundle> {
  const path = join(tmpdir(), `tactron-${randomUUID()}.zip`);
  const away = (): Promise<void> => rm(path, { force: true });
  try {
    await pipeline(from, limited(MAX_BUNDLE_BYTES), createWriteStream(path, { mode: 0o600 }));
    const zip = await openPromise(path, { autoClose: false, lazyEntries: true }).catch(
      (error: Error) => {
        throw invalid([{ path: '', message: `no ZIP that can be read: ${error.message}` }]);
      },
    );
    const entries = await entriesOf(zip).catch((error: unknown) => {
      zip.close();
      throw error;
    });
    const at = (name: string): Entry => {
      const entry = entries.get(name);
      if (entry) return entry;
      throw invalid([{ path: name, message: 'this is missing in the bundle' }]);
    };
    const bundle: Bundle = {
      job: JSON.parse((await bytesOf(zip, at(JOB_NAME), MAX_JOB_FILE_BYTES)).toString('utf8')),
      files: new Set(
        [...entries.keys()].flatMap((n) => (n.startsWith(FILES) ? [n.slice(FILES.length)] : [])),
      ),
      file: async (sha256) => {
        const bytes = await bytesOf(zip, at(FILES + sha256), MAX_ATTACHMENT_BYTES);
        if (createHash('sha256').update(bytes).digest('hex') === sha256) return bytes;
        throw invalid([
          { path: `files.${sha256}`, message: 'the file is not the one its hash names' },
        ]);
      },
      close: async () => {
        zip.close();
        await away();
      },
    };
    return bundle;
  } catch (error) {
    await away();
    if (error instanceof SyntaxError)
      throw invalid([{ path: JOB_NAME, message: 'the job file is not JSON' }]);
    throw error;
  }
}

async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  if (zip.entryCount > MAX_ENTRIES)
    throw invalid([{ path: '', message: `more than ${MAX_ENTRIES} entries` }]);
  const entries = new Map<string, Entry>();
  for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
  return entries;
}

async function bytesOf(zip: ZipFile, entry: Entry, most: number): Promise<Buffer> {
  if (entry.uncompressedSize > most)
    throw new Problem(
      413,
      'tooLarge',
      `${entry.fileName} is larger than ${Math.round(most / 1e6)} MB. Nothing was stored.`,
    );
  const stream = await zip.openReadStreamPromise(entry);
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

function limited(most: number): Transform {
  let bytes = 0;
  return new Transform({
    transform(part: Buffer, _encoding, done) {
      bytes += part.length;
      if (bytes <= most) return done(null, part);
      done(new Problem(413, 'tooLarge', 'The bundle is too large. Nothing was stored.'));
    },
  });
}
