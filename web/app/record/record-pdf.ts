import { Injectable, inject, signal } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { Profile } from '@tactron/core/catalogue';
import type { Job } from '@tactron/core/job';
import { printOf, type RecordInput } from '@tactron/core/printed';
import { Compute } from '../compute/compute';
import { OpenJob } from '../job-state/open-job';
import type { PdfWorker } from './pdf.worker';

/** Makes the PDF of the open job's record, here and without the server. */
@Injectable({ providedIn: 'root' })
export class RecordPdf {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  /** What is being done for the PDF, in words; empty while none is made. */
  readonly progress = signal('');
  private made: Remote<PdfWorker> | undefined;

  private worker(): Remote<PdfWorker> {
    return (this.made ??= wrap<PdfWorker>(
      new Worker(new URL('./pdf.worker', import.meta.url), { type: 'module' }),
    ));
  }

  /** @throws Error where nothing is reckoned yet, or a font is not there */
  async make(input: RecordInput): Promise<Blob> {
    const profile = this.open.profile();
    if (!profile) throw new Error('The job is still being read.');
    this.progress.set('PDF: drawings …');
    try {
      return await this.written(input, profile);
    } finally {
      this.progress.set('');
    }
  }

  private async written(input: RecordInput, profile: Profile): Promise<Blob> {
    const { job, evidence } = input;
    const drawings = job.adopted ? await this.compute.files(job, profile, evidence) : {};
    const base = document.baseURI;
    const print = printOf(input, {
      revision: this.open.state().revision,
      at: new Date().toISOString(),
      base,
      drawings,
    });
    this.progress.set('PDF: pages …');
    const told = proxy((percent: number) => this.progress.set(`PDF: ${percent} % written`));
    const bytes = await this.worker().pdf(base, print, told);
    return new Blob([bytes as BlobPart], { type: 'application/pdf' });
  }
}

/** Name of the file: job, issue or revision. */
export const pdfName = (job: Job, revision: number): string => `${job.tag}-record-r${revision}.pdf`;
