import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { BadInput, type Outcome } from './bad-input.js';
import { verify } from './verify.js';

/** Checks a bundle: the job file in it, and the pictures and files beside it. */
export async function verifyBundle(path: string): Promise<Outcome> {
  const zip = await openPromise(path, { autoClose: false, lazyEntries: true }).catch(
    (error: Error) => {
      throw new BadInput('', `"${path}" is no bundle: ${error.message}`);
    },
  );
  try {
    const files = new Map<string, Uint8Array>();
    let job: string | undefined;
    for await (const entry of zip.eachEntry()) {
      const body = await bodyOf(zip, entry);
      if (entry.fileName === 'job.tactron.json') job = body.toString('utf8');
      else files.set(entry.fileName.replace(/^files\//u, ''), body);
    }
    if (job === undefined) throw new BadInput('job.tactron.json', 'it is missing in the bundle');
    return verify(JSON.parse(job), files);
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput('', `"${path}" cannot be read: ${(error as Error).message}`);
  } finally {
    zip.close();
  }
}

async function bodyOf(zip: ZipFile, entry: Entry): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of await zip.openReadStreamPromise(entry)) parts.push(part as Buffer);
  return Buffer.concat(parts);
}
