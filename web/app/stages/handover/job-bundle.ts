import { Injectable, inject } from '@angular/core';
import type { Evidence, Origin, Seal } from '@tactron/core/job';
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
   * @returns pictures that could not be had now, and whether the file is signed
   */
  async save(
    tag: string,
    jobId: string,
    file: string,
    evidence: readonly Evidence[],
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
    if (named.length === 0) {
      saveFile(`${tag}.tactron.json`, text, 'application/json');
      return { missing: 0, signed: Boolean(seal) };
    }
    let missing = 0;
    const { attachments } = this;
    async function* entries() {
      yield { name: 'job.tactron.json', input: text, lastModified: FIXED };
      for (const sha256 of named) {
        const body = await attachments.fileOf(sha256);
        if (body) yield { name: `files/${sha256}`, input: body, lastModified: FIXED };
        else missing++;
      }
    }
    const { downloadZip } = await import('client-zip');
    saveBlob(`${tag}.tactron.zip`, await downloadZip(entries()).blob());
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
