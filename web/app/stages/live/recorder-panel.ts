import {
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import type { RecorderFile, RecorderMapping } from '@tactron/core/formats';
import { Attachments } from '../../attachments/attachments';
import type { Profile } from '@tactron/core/catalogue';
import { attachmentsOf, type Job } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import { LineChart } from '../../controls/line-chart';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import {
  readFor,
  recordedSeries,
  recordedText,
  type Measured,
  type Simulated,
} from './recorder-curves';

/** Share of the motor's current below which a start counts as over. */
const BYPASS = 1.2;
const KEPT = 'tactron.recorder';
const NONE = -1;

/** Columns that were chosen for files with these heads. */
function remembered(): Record<string, RecorderMapping> {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Record<string, RecorderMapping>;
  } catch {
    return {};
  }
}

const headsOf = (file: RecorderFile): string =>
  file.columns.map((c) => `${c.name}[${c.unit}]`).join('|');

/** A recorder's file of a start or of ramps, laid over the simulated ones, and what is read from it. */
@Component({
  selector: 'tac-recorder-panel',
  imports: [LineChart],
  template: `
    <section aria-label="Recorded curve">
      <label class="add"
        ><input
          class="visually-hidden"
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          (change)="take($event)"
        /><span class="act-like">{{
          measured() ? 'Another recorder’s file' : 'Lay a recorder’s file over the simulation'
        }}</span></label
      >
      @if (problem(); as p) {
        <p class="problem" role="alert">{{ p }}</p>
      }
      @if (file(); as f) {
        <div class="columns">
          @for (q of quantities(); track q.key) {
            <label
              >{{ q.name }}
              <select class="field" (change)="choose(q.key, $any($event.target).value)">
                @if (q.key !== 'time') {
                  <option value="-1" [selected]="chosen(q.key) === -1">not recorded</option>
                }
                @for (c of f.columns; track $index) {
                  <option [value]="$index" [selected]="chosen(q.key) === $index">
                    {{ c.name }}{{ c.unit ? ', ' + c.unit : '' }}
                  </option>
                }
              </select></label
            >
          }
        </div>
      }
      @if (measured()?.recording; as r) {
        <tac-line-chart
          title="Recorded, over the simulated"
          x="s"
          [y]="simulated()?.kind === 'run' ? 'Hz' : 'A'"
          rightY="rpm"
          [series]="series()"
        />
        <p class="small">{{ says() }}</p>
        @if (r.gaps) {
          <p class="small soft">{{ r.gaps }} rows have a gap and are passed over.</p>
        }
        @if (fits(); as value) {
          <button class="act" type="button" (click)="took.emit(value)">
            Enter {{ value }} as the reading
          </button>
        }
      }
    </section>
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
    }
    .add {
      position: relative;
      justify-self: start;
    }
    .columns {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 14px;
    }
    .columns label {
      display: grid;
      gap: 2px;
      font-size: 13px;
      color: var(--ink-soft);
    }
    p {
      margin: 0;
    }
    .problem {
      color: var(--bad);
    }
  `,
})
export class RecorderPanel {
  /** Key of the step that is answered: what of the recording it asks for. */
  readonly step = input.required<string>();
  /** Act that was recorded. */
  readonly act = input.required<string>();
  /** A number read from the recording, as it is to be typed. */
  readonly took = output<string>();
  private readonly open = inject(OpenJob);
  private readonly attachments = inject(Attachments);
  private readonly preferences = inject(Preferences);
  private readonly link = inject(Compute).comparison(() => this.simulated.set(null));
  protected readonly simulated = signal<Simulated | null>(null);
  protected readonly file = signal<RecorderFile | null>(null);
  protected readonly mapping = signal<RecorderMapping | null>(null);
  protected readonly problem = signal('');
  protected readonly measured = signal<Measured | null>(null);
  private shownFile = '';
  private readonly starts = computed(() => this.act() === 'start.full');
  protected readonly quantities = computed(() =>
    quantities.filter(({ key }) => !this.starts() || (key !== 'hz' && key !== 'link')),
  );

  private readonly subject = computed(() => `trace.${this.act()}`);

  constructor() {
    effect(() => {
      const [job, profile] = [this.open.job(), this.open.profile()];
      if (!job || !profile) return;
      void this.simulate(job, profile, this.act()).then((made) =>
        untracked(() => this.simulated.set(made)),
      );
    });
    effect(() => {
      const [file, mapping, simulated] = [this.file(), this.mapping(), this.simulated()];
      if (!file || !mapping || !simulated) return;
      const belowA = simulated.kind === 'start' ? BYPASS * simulated.view.facts.motorA : null;
      void this.link.worker.recording(file, mapping, belowA).then((made) => {
        this.problem.set(made.ok ? '' : made.problem);
        this.measured.set(made.ok ? made : null);
      });
    });
    // The newest file that stands for this act is shown again wherever the job is opened.
    effect(() => {
      const last = attachmentsOf(this.open.evidence(), this.subject()).at(-1);
      if (!last || last.body.sha256 === this.shownFile) return;
      this.shownFile = last.body.sha256;
      void this.attachments
        .fileOf(last.body.sha256)
        .then((blob) => blob?.text())
        .then((text) => (text === undefined ? false : this.read(text)));
    });
    inject(DestroyRef).onDestroy(() => this.link.end());
  }

  protected async take(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const [chosen] = field.files ?? [];
    field.value = '';
    if (!chosen) return;
    if (!(await this.read(await chosen.text()))) return;
    try {
      await this.attachments.add(chosen, this.subject());
      const kept = attachmentsOf(this.open.evidence(), this.subject()).at(-1);
      if (!kept) return;
      this.shownFile = kept.body.sha256;
      this.open.record('traceFile', this.subject(), {
        version: 1,
        sha256: kept.body.sha256,
        name: kept.body.name,
        mapping: JSON.stringify(this.mapping()),
      });
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }

  /** Reads a file and finds its columns. @returns whether it has any */
  private async read(text: string): Promise<boolean> {
    const made = await this.link.worker.recorder(text);
    this.problem.set(made.ok ? '' : made.problem);
    this.file.set(made.ok ? made.file : null);
    if (made.ok) this.mapping.set(remembered()[headsOf(made.file)] ?? made.mapping);
    return made.ok;
  }

  protected chosen(key: keyof RecorderMapping): number {
    return this.mapping()?.[key] ?? NONE;
  }

  protected choose(key: keyof RecorderMapping, text: string): void {
    const { [key]: _old, ...rest } = { time: 0, ...this.mapping() };
    const at = Number(text);
    const mapping = { ...rest, ...(at === NONE ? {} : { [key]: at }) } as RecorderMapping;
    this.mapping.set(mapping);
    const file = this.file();
    if (file)
      localStorage.setItem(KEPT, JSON.stringify({ ...remembered(), [headsOf(file)]: mapping }));
  }

  /** What the act comes to in simulation: the start of a soft starter, or a run. */
  private async simulate(job: Job, profile: Profile, act: string): Promise<Simulated | null> {
    const { worker } = this.link;
    if (this.starts()) {
      const view = await worker.start(job, profile);
      return view && { kind: 'start', view };
    }
    const run = await worker.run(job, profile, act);
    return run && { kind: 'run', run };
  }

  /** What of the recording this step asks for, as it is typed. */
  protected readonly fits = computed(() => {
    const measured = this.measured();
    const value = measured && readFor(this.step(), measured);
    if (value === null) return '';
    const text = value.toPrecision(3);
    return this.preferences.decimal() === ',' ? text.replace('.', ',') : text;
  });

  protected readonly says = computed(() => {
    const [measured, simulated] = [this.measured(), this.simulated()];
    return measured && simulated
      ? recordedText(measured, simulated, (x, unit, digits) =>
          this.preferences.value(x, unit, digits),
        )
      : '';
  });

  protected readonly series = computed(() => {
    const measured = this.measured();
    return measured ? recordedSeries(measured.recording, this.simulated()) : [];
  });
}

/** Columns that a recording may have. */
const quantities = [
  { key: 'time', name: 'Time' },
  { key: 'hz', name: 'Frequency' },
  { key: 'amps', name: 'Current' },
  { key: 'speed', name: 'Speed' },
  { key: 'link', name: 'DC link' },
] as const;
