import { Component, computed, effect, ElementRef, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  keyName,
  sizeText,
  temporaryRegister,
  verifyEvidence,
  type EvidenceBody,
  type Job,
} from '@tactron/core/job';
import { standing } from '../../attachments/attachment-row';
import { formatQuantity, type Quantity } from '@tactron/core/units';
import { Compute } from '../../compute/compute';
import type { SaidRequirement, SaidStep } from '../../compute/compute.types';
import { Icon } from '../../controls/icon';
import { saveFile } from '../../controls/save-file';
import { moment } from '../../frame/moment';
import { temporaryNames } from '../../frame/temporary-names';
import { Preferences } from '../../frame/preferences';
import { StartPanel } from '../scheme/start-panel';
import { OpenJob } from '../../job-state/open-job';
import { nominalText, rangeText, readingText } from '../live/reading-text';
import { JobBundle, originText, type Provenance } from './job-bundle';
import { pageFoot } from './page-foot';
import { SigningPanel } from './signing/signing-panel';

/** The record as it will print, with what blocks it first; and the job file. */
@Component({
  selector: 'tac-handover-stage',
  imports: [RouterLink, Icon, StartPanel, SigningPanel],
  templateUrl: './handover-stage.html',
  styleUrl: './handover-stage.scss',
})
export class HandoverStage {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly bundle = inject(JobBundle);
  private readonly preferences = inject(Preferences);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly obstacles = computed(() => this.open.derived()?.obstacles ?? []);
  protected readonly steps = computed(() => this.open.derived()?.steps ?? []);
  /** Results by the part of the procedure. */
  protected readonly results = computed(() =>
    [
      { title: 'Dead checks', steps: this.open.derived()?.dead ?? [] },
      { title: 'Live tests', steps: this.steps() },
    ].filter((part) => part.steps.length > 0),
  );
  protected readonly past = computed(() => this.open.derived()?.past ?? []);
  protected readonly today = new Date().toLocaleDateString('en-GB', {
    day: '2-digit',
    month: 'long',
    year: 'numeric',
  });

  protected readonly plate = computed(() => {
    const { motor, supply, load, cable } = this.job().plate;
    const q = (value: Quantity | undefined): string =>
      value ? formatQuantity(value, this.preferences.decimal()) : '';
    const both = (low: Quantity | undefined, high: Quantity | undefined): string =>
      [low, high]
        .filter(Boolean)
        .map((x) => q(x))
        .join(' / ');
    const told = (...parts: readonly (string | undefined)[]): string =>
      parts.filter(Boolean).join(', ') || 'not entered';
    return [
      [
        'Supply',
        told(supply.phases ? `${supply.phases}-phase` : '', q(supply.volts), q(supply.hz)),
      ],
      ['Device', `${this.open.profile()?.title} ${this.job().profile.model}`],
      [
        'Motor',
        told(
          q(motor.power),
          both(motor.lowV, motor.highV),
          both(motor.lowA, motor.highA),
          q(motor.rpm),
          q(motor.hz),
        ),
      ],
      ['Links', told(motor.link)],
      [
        'Cable',
        told(
          q(cable.length),
          cable.size ? sizeText(cable.size) : '',
          cable.screened ? 'screened' : '',
        ),
      ],
      [
        'Load',
        told(
          load.name,
          load.torquePct === undefined ? '' : `${load.torquePct} % of rated torque`,
          load.kind,
        ),
      ],
    ];
  });
  protected readonly wires = computed(() => {
    const { adopted } = this.job();
    const name = (landing: string): string =>
      landing.replace(/^[^:]+/u, (id) => adopted?.devices[id]?.tag ?? id);
    return Object.entries(adopted?.wires ?? {})
      .sort(([, x], [, y]) => x.number.localeCompare(y.number, 'en', { numeric: true }))
      .map(([id, w]) => ({
        does: this.open.derived()?.names[`wire.${id}`] ?? w.function,
        number: w.number,
        from: name(w.from),
        to: name(w.to),
        size: sizeText(w.size),
        colour: w.colour,
        cable: w.cable ? `${w.cable} · ${w.core}` : '',
      }));
  });
  protected readonly asBuilt = computed(() => this.open.derived()?.asBuilt ?? []);
  protected readonly links = computed(() => this.open.derived()?.links ?? []);
  protected readonly settings = computed(() =>
    (this.open.derived()?.rows ?? []).filter(
      (row) =>
        row.planned !== row.factory ||
        (row.found !== undefined && row.found !== row.factory) ||
        row.state === 'differs',
    ),
  );
  protected readonly accepted = computed(() =>
    (this.open.derived()?.findings ?? []).filter((f) => f.accepted),
  );

  protected readonly requirements = computed(() => this.open.derived()?.requirements ?? []);
  protected readonly pictures = computed(() =>
    standing(this.open.evidence()).map((e) => ({ e, of: this.subjectName(e.subject) })),
  );
  protected readonly chain = computed(() => verifyEvidence(this.open.evidence()));
  protected readonly temporary = computed(() => temporaryRegister(this.open.evidence()));
  protected readonly temporaryNames = temporaryNames;
  protected readonly said = signal('');
  /** What the server signs of this evidence now, and where it came from; nothing while it does not answer. */
  protected readonly provenance = signal<Provenance | undefined>(undefined);
  protected readonly origins = computed(() =>
    (this.provenance()?.origins ?? []).map((o) => originText(o, this.job().id)),
  );
  protected readonly keyName = keyName;

  /** That every role has signed, and when; empty before. */
  protected readonly signed = computed(() => {
    const { closed, number, signed } = this.open.signing();
    return closed ? `Issue ${number}, signed and closed ${moment(signed.at(-1)?.atClient, true)}` : '';
  });
  private readonly page = inject<ElementRef<HTMLElement>>(ElementRef);

  protected toSigning(): void {
    this.page.nativeElement.querySelector('#signing')?.scrollIntoView({ block: 'start' });
  }

  protected stamp(at: string): string {
    return at.slice(0, 16).replace('T', ' ');
  }

  constructor() {
    effect(() => {
      const { id, made } = this.open.state();
      this.chain();
      if (id && !made) void this.bundle.provenance(id).then((p) => this.provenance.set(p));
    });
    pageFoot(() => `${this.job().tag} · revision ${this.open.state().revision} · ${this.today}`);
  }

  /** What the live tests have shown of a required function: the worst answer of those that are asked for it. */
  protected atMachine(r: SaidRequirement): string {
    if (r.simulatedOnly) return 'shown by simulation only';
    const asked = this.steps().filter((s) => s.step.requirement?.id === r.id);
    if (asked.length === 0) return r.stated ? '' : 'not asked';
    const states = asked.map((s) => s.state);
    if (states.includes('fail')) return 'failed';
    return states.every((x) => x === 'pass')
      ? 'pass'
      : states.includes('stale')
        ? 'stale'
        : 'not tested';
  }

  protected expected({ must, step: { expect } }: SaidStep): string {
    const mark = this.preferences.decimal();
    return expect?.kind === 'range'
      ? `${nominalText(expect, mark)} (${rangeText(expect, mark)})`
      : must;
  }

  protected seen(step: SaidStep): string {
    return step.reading ? this.told(step, step.reading.body) : '';
  }

  protected earlier(step: SaidStep): string {
    return [...step.earlier, ...step.beside]
      .map(({ body }) => `${this.told(step, body)} (${body.verdict})`)
      .join(', ');
  }

  private told(step: SaidStep, body: EvidenceBody<'reading'>): string {
    return readingText(body, step.choices, this.preferences.decimal());
  }

  /** What a picture was taken for, in words. */
  private subjectName(subject: string): string {
    const step = this.results()
      .flatMap((part) => part.steps)
      .find((s) => s.step.key === subject);
    if (step) return step.do;
    const [kind, id = ''] = [
      subject.slice(0, subject.indexOf('.')),
      subject.slice(subject.indexOf('.') + 1),
    ];
    if (kind === 'wire')
      return `Wire ${this.job().adopted?.wires[id]?.number ?? this.job().adopted?.retired[id]?.number ?? id}`;
    if (kind === 'trace') return id === 'start.full' ? 'Recorded start' : `Recorded, ${id}`;
    if (kind === 'setting') {
      const [which, code] = [id.split('.')[0], id.split('.').slice(1).join('.')];
      const when = which === 'asFound' ? 'as found' : 'as left';
      return code ? `${code}, ${when}` : `Settings, ${when}`;
    }
    if (kind === 'plate') return `Plate, ${id}`;
    return subject === 'arrival' ? 'On arrival' : subject;
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
    const { missing, signed } = await this.bundle.save(tag, id, files[file], this.open.evidence());
    this.said.set(
      [
        missing ? `${missing} pictures could not be had now and are not in the file.` : '',
        signed ? '' : 'The server did not answer: the file is not signed.',
      ]
        .filter(Boolean)
        .join(' '),
    );
  }
}
