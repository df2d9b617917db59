import { Injectable, inject } from '@angular/core';
import { hashOfBytes, type Evidence, type Origin, type Seal } from '@tactron/core/job';
import { Attachments } from '../../attachments/attachments';
import { saveBlob, saveFile } from '../../controls/save-file';
import { Api } from '../../job-state/api';

/** What the server says of the evidence it holds: its seal over the chain, and what came with files. */
export interface Provenance {
  readonly seal: Seal;
  readonly origins: readonly Origin[];
}

/** The same job gives the same bytes. */
const FIXED = new Date(2000, 0, 1);

/** A job going out: one JSON file, or a ZIP with its pictures beside it. Works without the server, then unsigned. */
@Injectable({ providedIn: 'root' })
export class JobBundle {
  private readonly api = inject(Api);
  private readonly attachments = inject(Attachments);

  /** Undefined while the server does not answer. */
  async provenance(jobId: string): Promise<Provenance | undefined> {
    try {
      const [seal, origins] = await Promise.all([this.api.seal(jobId), this.api.origins(jobId)]);
      return { seal, origins };
    } catch {
      return undefined;
    }
  }

  /**
   * @param file the job file as the core writes it
   * @param more further files of the record by name: then all goes into one ZIP with a manifest at its end
   * @returns pictures that could not be had now, and whether the file is signed
   */
  async save(
    tag: string,
    jobId: string,
    file: string,
    evidence: readonly Evidence[],
    more?: Readonly<Record<string, string | Blob>>,
  ): Promise<{ readonly missing: number; readonly signed: boolean }> {
    const proved = await this.provenance(jobId);
    const { seal, origins = [] } = proved ?? {};
    const whole = {
      ...(JSON.parse(file) as object),
      ...(origins.length ? { origins } : {}),
      ...(seal ? { seal } : {}),
    };
    const text = `${JSON.stringify(whole, null, 2)}\n`;
    const named = this.attachments.named(evidence);
    if (named.length === 0 && !more) {
      saveFile(`${tag}.tactron.json`, text, 'application/json');
      return { missing: 0, signed: Boolean(seal) };
    }
    let missing = 0;
    const { attachments } = this;
    const sums: Record<string, string> = {};
    const entry = async (name: string, input: string | Blob) => {
      const bytes = new Uint8Array(await new Blob([input]).arrayBuffer());
      sums[name] = hashOfBytes(bytes);
      return { name, input, lastModified: FIXED };
    };
    async function* entries() {
      yield entry('job.tactron.json', text);
      for (const sha256 of named) {
        const body = await attachments.fileOf(sha256);
        if (body) yield entry(`files/${sha256}`, body);
        else missing++;
      }
      if (!more) return;
      for (const [name, input] of Object.entries(more)) yield entry(name, input);
      const manifest = `${JSON.stringify({ job: jobId, tag, sha256: sums }, null, 2)}\n`;
      yield { name: 'manifest.json', input: manifest, lastModified: FIXED };
    }
    const { downloadZip } = await import('client-zip');
    saveBlob(
      more ? `${tag}-record.tactron.zip` : `${tag}.tactron.zip`,
      await downloadZip(entries()).blob(),
    );
    return { missing, signed: Boolean(seal) };
  }
}

/** How evidence that came with a file is told: by whom, when, from where, and what the file could prove. */
export function originText(
  { count, by, at, server, proof, sealed, fromJob }: Origin,
  jobId: string,
): string {
  const day = new Date(at).toLocaleDateString('en-GB', {
    day: '2-digit',
    month: 'short',
    year: 'numeric',
  });
  const told =
    proof === 'unsigned'
      ? 'unsigned: the file proves their order, not where they come from'
      : `${sealed} of them signed by ${proof === 'signedHere' ? 'this server' : `another server (${server})`}`;
  const copy = fromJob === jobId ? '' : ' as a copy of another job';
  return `${count} ${count === 1 ? 'entry' : 'entries'} came with a file${copy}, brought by ${by} on ${day}; ${told}.`;
}
