import { Injectable, inject } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import { verifyEvidence, type Job } from '@tactron/core/job';
import { Compute } from '../compute/compute';
import { moment } from '../frame/moment';
import { OpenJob } from '../job-state/open-job';
import { jobCode } from './job-code';
import type { PdfInput } from './pdf-definition';
import type { PdfWorker } from './pdf.worker';
import type { RecordInput } from './record-cells';
import { recordSections, recordState } from './record-document';

/** Files of the record that are drawings, with their titles. */
const drawings = [
  ['circuit.svg', 'Circuit diagram, as built'],
  ['connection.svg', 'Connections, as built'],
] as const;

/** Makes the PDF of the open job's record, here and without the server. */
@Injectable({ providedIn: 'root' })
export class RecordPdf {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private made: Remote<PdfWorker> | undefined;

  private worker(): Remote<PdfWorker> {
    return (this.made ??= wrap<PdfWorker>(
      new Worker(new URL('./pdf.worker', import.meta.url), { type: 'module' }),
    ));
  }

  /** @throws Error where nothing is reckoned yet, or a font is not there */
  async make(
    input: RecordInput,
    paper: PdfInput['paper'],
    pictures: PdfInput['pictures'] = [],
  ): Promise<Blob> {
    const profile = this.open.profile();
    if (!profile) throw new Error('The job is still being read.');
    const { job, evidence } = input;
    const { frozen, signed, missing } = this.open.signing();
    const chain = verifyEvidence(evidence);
    const files = job.adopted ? await this.compute.files(job, profile, evidence) : {};
    const bytes = await this.worker().pdf(document.baseURI, {
      tag: job.tag,
      machine: job.machine,
      state: recordState(input),
      revision: this.open.state().revision,
      date: moment(new Date().toISOString(), true),
      code: jobCode(job.id, this.open.state().revision),
      paper,
      sections: recordSections(input),
      signatures: signed.map(({ body, author, atClient }) => ({
        role: body.role,
        name: `${author.name}, ${author.role}`,
        when: moment(atClient, true),
        statement: body.statement,
        mark: body.mark,
      })),
      missing,
      open: frozen?.body.open ?? [],
      hashes: [
        ...(frozen ? [`Signed state: SHA-256 ${frozen.body.contentHash}`] : []),
        `Evidence: ${chain.count} entries, the chain ends ${chain.ends || 'nowhere yet'}${chain.ok ? '' : '; it does not hold'}`,
      ],
      pictures,
      drawings: drawings.flatMap(([name, title]) =>
        files[name] ? [{ title, svg: files[name] }] : [],
      ),
    });
    return new Blob([bytes as BlobPart], { type: 'application/pdf' });
  }
}

/** Name of the file: job, issue or revision. */
export const pdfName = (job: Job, revision: number): string => `${job.tag}-record-r${revision}.pdf`;
