import { Component, computed, effect, ElementRef, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { keyName, verifyEvidence, type Job } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import type { Derived } from '@tactron/core/said';
import { Icon } from '../../controls/icon';
import { saveBlob, saveFile } from '../../controls/save-file';
import { Preferences } from '../../frame/preferences';
import { StartPanel } from '../scheme/start-panel';
import { Desk } from '../../job-state/desk';
import { OpenJob } from '../../job-state/open-job';
import { NightCard } from '../../record/night-card';
import {
  missingSigns,
  stamp,
  type RecordInput,
  recordSections,
  recordState,
  labelTable,
  recordPage,
  recordTables,
  recordPictures,
  operatorPage,
} from '@tactron/core/printed';
import { pdfName, RecordPdf } from '../../record/record-pdf';
import { JobBundle, originText, type Provenance } from './job-bundle';
import { OpenPoints } from './open-points';
import { pageFoot } from './page-foot';
import { SigningPanel } from './signing/signing-panel';

/** The record as it will print, with what blocks it first; and the job file. */
@Component({
  selector: 'tac-handover-stage',
  imports: [RouterLink, Icon, OpenPoints, StartPanel, SigningPanel],
  templateUrl: './handover-stage.html',
  styleUrl: './handover-stage.scss',
  providers: [NightCard],
})
export class HandoverStage {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly bundle = inject(JobBundle);
  private readonly preferences = inject(Preferences);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly obstacles = computed(() => this.open.derived()?.obstacles ?? []);
  private readonly site = signal('');
  protected readonly night = inject(NightCard);
  private readonly input = computed<RecordInput>(() => ({
    job: this.job(),
    device: this.open.profile()?.title ?? '',
    site: this.site(),
    derived: this.open.derived() as Derived,
    evidence: this.open.evidence(),
    decimal: this.preferences.decimal(),
    night: this.night.rows(),
    roles: this.open.roles(),
  }));
  /** The record: the same parts on the screen, on paper and in the PDF. */
  protected readonly sections = computed(() =>
    this.open.derived() ? recordSections(this.input()) : [],
  );
  protected readonly state = computed(() => (this.open.derived() ? recordState(this.input()) : ''));
  protected readonly today = new Date().toLocaleDateString('en-GB', {
    day: '2-digit',
    month: 'long',
    year: 'numeric',
  });

  protected readonly pictures = computed(() =>
    this.open.derived() ? recordPictures(this.input()) : [],
  );
  protected readonly chain = computed(() => verifyEvidence(this.open.evidence()));
  protected readonly said = signal('');
  /** Files of the record that are wanted one by one. */
  protected readonly single = [
    { file: 'hand-list.csv', name: 'Hand list CSV' },
    { file: 'connection.svg', name: 'Connections SVG' },
    { file: 'circuit.svg', name: 'Circuit SVG' },
  ] as const;
  protected readonly making = signal(false);
  protected readonly stamp = stamp;
  protected readonly records = inject(RecordPdf);
  /** What the server signs of this evidence now, and where it came from; nothing while it does not answer. */
  protected readonly provenance = signal<Provenance | undefined>(undefined);
  protected readonly origins = computed(() =>
    (this.provenance()?.origins ?? []).map((o) => originText(o, this.job().id)),
  );
  protected readonly keyName = keyName;

  private readonly page = inject<ElementRef<HTMLElement>>(ElementRef);

  protected toSigning(): void {
    this.page.nativeElement.querySelector('#signing')?.scrollIntoView({ block: 'start' });
  }

  constructor() {
    const desk = inject(Desk);
    effect(() => {
      const { siteId } = this.job();
      void desk
        .sites()
        .then(({ rows }) => this.site.set(rows.find((s) => s.id === siteId)?.name ?? ''));
    });
    effect(() => {
      const { id, made } = this.open.state();
      this.chain();
      if (id && !made) void this.bundle.provenance(id).then((p) => this.provenance.set(p));
    });
    pageFoot(() => `${this.job().tag} · revision ${this.open.state().revision} · ${this.today}`);
  }

  /** The record as PDF, made here: without the server too. */
  protected async pdf(): Promise<void> {
    this.making.set(true);
    this.said.set('');
    try {
      saveBlob(pdfName(this.job(), this.open.state().revision), await this.pdfBlob());
      const lost = missingSigns(JSON.stringify(this.sections()));
      if (lost.length)
        this.said.set(
          `${lost.length === 1 ? 'One sign stands' : `${lost.length} signs stand`} as an empty box in the PDF: ${lost.join(' ')}`,
        );
    } catch (error) {
      this.said.set(
        `The PDF could not be made: ${error instanceof Error ? error.message : String(error)}. Print the page instead.`,
      );
    } finally {
      this.making.set(false);
    }
  }

  /** Every table of the record, and the labels. */
  private tables(): Parameters<Compute['csvs']>[0] {
    const names = this.open.derived()?.names ?? {};
    return {
      ...recordTables(this.sections()),
      'tables/labels.csv': labelTable(this.job(), (id) => names[`device.${id}`] ?? ''),
    };
  }

  private async pdfBlob(): Promise<Blob> {
    await this.night.ready();
    return this.records.make(this.input());
  }

  /** Everything in one ZIP: job file with its pictures, the record as PDF and as a page, tables and drawings. */
  protected async everything(): Promise<void> {
    const { profile, revision } = this.open.state();
    if (!profile) return;
    this.making.set(true);
    this.said.set('');
    try {
      const job = this.job();
      const {
        'job.json': jobFile,
        'manifest.json': _made,
        ...files
      } = await this.compute.files(job, profile, this.open.evidence());
      await this.night.ready();
      const { recordWorkbook } = await import('../../record/workbook');
      const more = {
        [pdfName(job, revision)]: await this.pdfBlob(),
        'record.html': recordPage(this.input(), revision),
        ...(job.adopted ? { 'operator.html': operatorPage(this.input(), revision) } : {}),
        ...(await this.compute.csvs(this.tables())),
        'record.xlsx': await recordWorkbook(this.sections()),
        ...files,
      };
      const evidence = this.open.evidence();
      this.told(await this.bundle.save(job.tag, job.id, jobFile, evidence, more));
    } catch (error) {
      this.said.set(
        `The ZIP could not be made: ${error instanceof Error ? error.message : String(error)}.`,
      );
    } finally {
      this.making.set(false);
    }
  }

  /** Every table of the record as a sheet of one workbook. */
  protected async workbook(): Promise<void> {
    this.making.set(true);
    this.said.set('');
    try {
      await this.night.ready();
      const { recordWorkbook } = await import('../../record/workbook');
      const name = `${this.job().tag}-record-r${this.open.state().revision}.xlsx`;
      saveBlob(name, await recordWorkbook(this.sections()));
    } catch (error) {
      this.said.set(
        `The spreadsheet could not be made: ${error instanceof Error ? error.message : String(error)}.`,
      );
    } finally {
      this.making.set(false);
    }
  }

  /** What is not in a file that was saved. */
  private told({ missing, signed }: Awaited<ReturnType<JobBundle['save']>>): void {
    this.said.set(
      [
        missing ? `${missing} pictures could not be had now and are not in the file.` : '',
        signed ? '' : 'The server did not answer: the file is not signed.',
      ]
        .filter(Boolean)
        .join(' '),
    );
  }

  protected print(): void {
    window.print();
  }

  protected async download(file: string): Promise<void> {
    const { profile } = this.open.state();
    if (!profile) return;
    const files = await this.compute.files(this.job(), profile, this.open.evidence());
    const type = file.endsWith('.svg')
      ? 'image/svg+xml'
      : file.endsWith('.csv')
        ? 'text/csv'
        : 'application/json';
    if (file !== 'job.json') return saveFile(`${this.job().tag}-${file}`, files[file], type);
    const { tag, id } = this.job();
    this.told(await this.bundle.save(tag, id, files[file], this.open.evidence()));
  }
}
