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
import type { StartView } from '@tactron/core/compare';
import type {
  RecordedStart,
  RecorderFile,
  RecorderMapping,
  Recording,
} from '@tactron/core/formats';
import { Attachments } from '../../attachments/attachments';
import { attachmentsOf } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import { LineChart, type Series } from '../../controls/line-chart';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';

/** Points of a recorded curve that are drawn at most. */
const DRAWN = 800;
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

/** A recorder's file of a start, laid over the simulated one, and what is read from it. */
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
          recording() ? 'Another recorder’s file' : 'Lay a recorder’s file over the simulation'
        }}</span></label
      >
      @if (problem(); as p) {
        <p class="problem" role="alert">{{ p }}</p>
      }
      @if (file(); as f) {
        <div class="columns">
          @for (q of quantities; track q.key) {
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
      @if (recording(); as r) {
        <tac-line-chart
          title="Recorded, over the simulated start"
          x="s"
          y="A"
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
  private readonly link = inject(Compute).comparison(() => this.view.set(null));
  private readonly view = signal<StartView | null>(null);
  protected readonly file = signal<RecorderFile | null>(null);
  protected readonly mapping = signal<RecorderMapping | null>(null);
  protected readonly problem = signal('');
  protected readonly recording = signal<Recording | null>(null);
  private readonly measured = signal<RecordedStart | null>(null);
  private shownFile = '';
  protected readonly quantities = [
    { key: 'time', name: 'Time' },
    { key: 'amps', name: 'Current' },
    { key: 'speed', name: 'Speed' },
  ] as const;

  private readonly subject = computed(() => `trace.${this.act()}`);

  constructor() {
    effect(() => {
      const [job, profile] = [this.open.job(), this.open.profile()];
      if (!job || !profile) return;
      void this.link.worker
        .start(job, profile)
        .then((made) => untracked(() => this.view.set(made)));
    });
    effect(() => {
      const [file, mapping, view] = [this.file(), this.mapping(), this.view()];
      if (!file || !mapping || !view) return;
      void this.link.worker.recording(file, mapping, BYPASS * view.facts.motorA).then((made) => {
        this.problem.set(made.ok ? '' : made.problem);
        this.recording.set(made.ok ? made.recording : null);
        this.measured.set(made.ok ? made.start : null);
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

  /** What of the recording this step asks for, as it is typed. */
  protected readonly fits = computed(() => {
    const m = this.measured();
    const value =
      this.step() === 'start.peak' ? m?.peakA : this.step() === 'start.time' ? m?.startS : null;
    if (value === null || value === undefined) return '';
    const text = value.toPrecision(3);
    return this.preferences.decimal() === ',' ? text.replace('.', ',') : text;
  });

  protected readonly says = computed(() => {
    const [m, view] = [this.measured(), this.view()];
    if (!m || !view) return '';
    const show = (value: number | null, unit: string): string =>
      value === null ? 'not recorded' : this.preferences.value(value, unit, 3);
    return `Recorded: peak ${show(m.peakA, 'A')}, start over after ${show(m.startS, 's')}. Simulated: ${show(view.set.peakA, 'A')}, ${show(view.set.startS, 's')}.`;
  });

  protected readonly series = computed<Series[]>(() => {
    const [recording, view] = [this.recording(), this.view()];
    if (!recording) return [];
    const every = Math.max(1, Math.ceil(recording.points.length / DRAWN));
    const own = recording.points.filter((_, i) => i % every === 0);
    const line = (of: 'amps' | 'rpm'): { x: number; y: number }[] =>
      own.flatMap((p) => (p[of] === null ? [] : [{ x: p.t, y: p[of] }]));
    const curves: Series[] = [
      { name: 'current, recorded', points: line('amps'), like: 0 },
      { name: 'speed, recorded', points: line('rpm'), right: true, like: 1 },
    ];
    if (view)
      curves.push(
        {
          name: 'current, simulated',
          like: 0,
          shown: 'dashes',
          points: view.set.points.map((p) => ({ x: p.t, y: p.amps })),
        },
        {
          name: 'speed, simulated',
          like: 1,
          shown: 'dashes',
          right: true,
          points: view.set.points.map((p) => ({ x: p.t, y: p.rpm })),
        },
      );
    return curves.filter((c) => c.points.length > 0);
  });
}
