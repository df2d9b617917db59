import { Injectable, inject } from '@angular/core';
import {
  attachmentTypes,
  hashOfBytes,
  MAX_ATTACHMENT_BYTES,
  type Evidence,
  type EvidenceBody,
} from '@tactron/core/job';
import { OpenJob } from '../job-state/open-job';
import { LocalStore } from '../job-state/local-store';

const THUMBNAIL_PX = 240;
const endings: Readonly<Record<string, Type>> = {
  csv: 'text/csv',
  txt: 'text/plain',
  log: 'text/plain',
  pdf: 'application/pdf',
  jpg: 'image/jpeg',
  jpeg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};
type Type = (typeof attachmentTypes)[number];

/** Takes pictures and files as evidence: kept here first, sent with the reading they belong to. */
@Injectable({ providedIn: 'root' })
export class Attachments {
  private readonly open = inject(OpenJob);
  private readonly local = inject(LocalStore);

  /**
   * Adds a file to what it was taken for.
   *
   * @param subject a step's key, a block of the plates, a wire: where it is shown
   * @throws Error in words when the file is too large or of a kind that is not taken
   */
  async add(file: File, subject: string, note = ''): Promise<void> {
    const type = typeOf(file);
    if (!type)
      throw new Error(
        `${file.name} is not taken: pictures (JPEG, PNG, WebP), PDF, text and CSV are.`,
      );
    if (file.size === 0) throw new Error(`${file.name} is empty.`);
    if (file.size > MAX_ATTACHMENT_BYTES)
      throw new Error(
        `${file.name} has ${(file.size / 1e6).toFixed(1)} MB; up to ${MAX_ATTACHMENT_BYTES / 1e6} MB are taken. Take it with a lower resolution.`,
      );
    const bytes = new Uint8Array(await file.arrayBuffer());
    const sha256 = await hash(bytes);
    const thumbnail = type.startsWith('image/')
      ? await small(file).catch(() => undefined)
      : undefined;
    const jobId = this.open.state().id;
    const kept = await this.local.file(sha256);
    if (!kept)
      await this.local.keepFile({
        sha256,
        jobId,
        type,
        body: new Blob([bytes], { type }),
        sent: 0,
      });
    const body: EvidenceBody<'attachment'> = {
      sha256,
      name: file.name.slice(0, 200),
      type,
      bytes: file.size,
      ...(thumbnail ? { thumbnail } : {}),
      ...(note ? { note } : {}),
    };
    this.open.record('attachment', subject, body);
  }

  /** SHA-256 of every picture and file that evidence names. */
  named(evidence: readonly Evidence[]): string[] {
    return [...new Set(evidence.flatMap((e) => (e.kind === 'attachment' ? [e.body.sha256] : [])))];
  }

  /** A picture or file, from this browser or else from the server; undefined where it cannot be had now. */
  async fileOf(sha256: string): Promise<Blob | undefined> {
    return (await this.local.file(sha256))?.body ?? (await fetched(sha256));
  }

  /** Where the whole file is: in this browser, else on the server. The caller revokes it when it begins with "blob:". */
  async urlOf(sha256: string): Promise<string> {
    const kept = await this.local.file(sha256);
    return kept ? URL.createObjectURL(kept.body) : `/api/files/${sha256}`;
  }
}

function typeOf(file: File): Type | undefined {
  const named = attachmentTypes.find((t) => t === file.type);
  return (
    named ??
    (file.type === '' || file.type === 'application/vnd.ms-excel'
      ? endings[file.name.split('.').at(-1)?.toLowerCase() ?? '']
      : undefined)
  );
}

async function hash(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  if (typeof crypto.subtle === 'undefined') return hashOfBytes(bytes);
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...digest].map((b) => b.toString(16).padStart(2, '0')).join('');
}

async function small(file: File): Promise<string | undefined> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, THUMBNAIL_PX / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  const pen = canvas.getContext('2d');
  if (!pen) return undefined;
  pen.fillStyle = 'white';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  for (const quality of [0.75, 0.5, 0.3]) {
    const url = canvas.toDataURL('image/jpeg', quality);
    if (url.length <= 40_000) return url;
  }
  return undefined;
}

async function fetched(sha256: string): Promise<Blob | undefined> {
  const answer = await fetch(`/api/files/${sha256}`).catch(() => undefined);
  return answer?.ok ? answer.blob() : undefined;
}
