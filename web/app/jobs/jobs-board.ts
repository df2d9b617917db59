import {
  Component,
  DestroyRef,
  ElementRef,
  computed,
  effect,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { v4 as uuid } from 'uuid';
import { Icon } from '../controls/icon';
import { Keys } from '../frame/keys';
import { PlaceStrip } from '../frame/place-strip';
import { Preferences } from '../frame/preferences';
import { Tour } from '../frame/tour/tour';
import { Api, type BoardEntry, type Imported, type SiteEntry } from '../job-state/api';
import { Courier } from '../job-state/courier';
import { Desk } from '../job-state/desk';
import { LocalStore } from '../job-state/local-store';
import { Compute } from '../compute/compute';
import type { Missing } from '../compute/plan.worker';
import { boardTrail } from './board-trail';
import { moment } from '@tactron/core/units';

const PAGE = 24;

/** Tag of the sample job that is walked through. */
const SAMPLE = 'FM-DRUM-1';

/** All sites and jobs: what is next on each. Search and filters stay in the address. */
@Component({
  selector: 'tac-jobs-board',
  imports: [RouterLink, MatMenuModule, Icon, PlaceStrip],
  templateUrl: './jobs-board.html',
  styleUrl: './jobs-board.scss',
})
export class JobsBoard {
  private readonly api = inject(Api);
  private readonly compute = inject(Compute);
  private readonly desk = inject(Desk);
  private readonly local = inject(LocalStore);
  private readonly preferences = inject(Preferences);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly query = toSignal(inject(ActivatedRoute).queryParamMap);
  private readonly keys = inject(Keys);
  private readonly tour = inject(Tour);
  protected readonly searchBox = viewChild<ElementRef<HTMLInputElement>>('searchBox');

  protected readonly search = computed(() => this.query()?.get('search') ?? '');
  protected readonly site = computed(() => this.query()?.get('site') ?? '');
  protected readonly archived = computed(() => this.query()?.get('archived') === 'yes');
  protected readonly page = computed(() => Number(this.query()?.get('page') ?? 0) || 0);
  protected readonly sites = signal<readonly SiteEntry[]>([]);
  protected readonly rows = signal<readonly BoardEntry[] | null>(null);
  /** The sample job, where it is on the page. */
  protected readonly sample = computed(() => this.rows()?.find((r) => r.job.tag === SAMPLE)?.id);
  protected readonly total = signal(0);
  /** Made in this browser and not on the server yet. */
  protected readonly made = signal<ReadonlySet<string>>(new Set());
  protected readonly failed = signal<string | null>(null);
  protected readonly said = signal<string | null>(null);
  protected readonly pages = computed(() => Math.max(1, Math.ceil(this.total() / PAGE)));
  protected readonly groups = computed(() => {
    const rows = this.rows() ?? [];
    return this.sites()
      .map((site) => ({
        site,
        rows: rows
          .filter((r) => r.siteId === site.id)
          .map((row) => ({ row, trail: this.trail(row) })),
      }))
      .filter(
        (group) =>
          group.rows.length > 0 ||
          (!group.site.archived &&
            this.rows() !== null &&
            !this.search() &&
            !this.archived() &&
            !this.site() &&
            this.page() === 0),
      );
  });

  protected readonly when = moment;
  /** What is open in each job, as the core counts it. */
  private readonly missing = signal<ReadonlyMap<string, Missing>>(new Map());

  private trail(row: BoardEntry): ReturnType<typeof boardTrail> | undefined {
    const missing = this.missing().get(row.id);
    return missing && boardTrail(row, missing);
  }

  constructor() {
    effect(() => {
      this.query();
      void this.load();
    });
    effect(() => {
      const rows = this.rows() ?? [];
      void this.compute
        .missing(rows.map(({ job: { plate, scheme, profile } }) => ({ plate, scheme, profile })))
        .then((found) => this.missing.set(new Map(rows.map((row, i) => [row.id, found[i]]))));
    });
    const off = this.keys.on('/', () => this.searchBox()?.nativeElement.focus());
    const heard = inject(Courier).news.subscribe(
      (news) => news.kind === 'made' && void this.load(),
    );
    inject(DestroyRef).onDestroy(() => {
      off();
      heard.unsubscribe();
    });
    document.title = 'Jobs · Tactron';
  }

  protected async load(): Promise<void> {
    const query = new URLSearchParams({
      search: this.search(),
      site: this.site(),
      archived: this.archived() ? 'yes' : 'no',
      page: String(this.page()),
      size: String(PAGE),
    });
    this.made.set(new Set((await this.local.madeJobs()).map((m) => m.id)));
    try {
      const [sites, { rows, total }] = await Promise.all([
        this.desk.sites(),
        this.api.board(query.toString()),
      ]);
      this.sites.set(sites.rows);
      this.rows.set(await this.withMade(rows));
      this.total.set(total);
      this.failed.set(null);
    } catch (error) {
      await this.showKept(error as Error);
    }
  }

  /** Without the server: the jobs this browser can open by itself. */
  private async showKept(error: Error): Promise<void> {
    const rows = (await this.desk.keptJobs()).filter((row) => this.wanted(row));
    const sites = await this.desk.sites().catch(() => ({ rows: [] }));
    this.sites.set(sites.rows);
    this.rows.set(this.archived() ? [] : rows);
    this.total.set(rows.length);
    this.failed.set(
      `${error.message} ${rows.length ? 'These jobs are kept in this browser and can be worked on; everything is sent when it is back.' : ''}`.trim(),
    );
  }

  /** Jobs made here that the server has not got yet stand on the first page. */
  private async withMade(rows: readonly BoardEntry[]): Promise<readonly BoardEntry[]> {
    if (this.made().size === 0 || this.page() > 0 || this.archived()) return rows;
    const own = (await this.desk.keptJobs()).filter(
      (row) => this.made().has(row.id) && this.wanted(row),
    );
    return [...own, ...rows.filter((row) => !own.some((o) => o.id === row.id))];
  }

  private wanted({ job, siteId }: BoardEntry): boolean {
    const text = this.search().toLowerCase();
    const site = this.sites().find((s) => s.id === siteId)?.name ?? '';
    return (
      (!this.site() || siteId === this.site()) &&
      `${job.tag}\n${job.machine}\n${site}`.toLowerCase().includes(text)
    );
  }

  protected filter(change: Record<string, string | null>): void {
    void this.router.navigate([], {
      queryParams: { page: null, ...change },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  protected async add(): Promise<void> {
    const { JobDialog } = await import('./job-dialog');
    const id = (await firstValueFrom(
      this.dialog.open(JobDialog, { data: { sites: this.sites }, maxWidth: '640px' }).afterClosed(),
    )) as string | undefined;
    if (id) await this.router.navigate(['/jobs', id, 'plate']);
  }

  protected walk(id: string): void {
    void this.tour.start(id);
  }

  protected async copy(row: BoardEntry): Promise<void> {
    await this.tell(async () => {
      const tag = `${row.job.tag}-copy`.slice(0, 40);
      await this.api.copyJob(row.id, { id: uuid(), tag, author: this.preferences.signed() });
      return `${tag} made.`;
    });
  }

  protected async archive(row: BoardEntry, archived: boolean): Promise<void> {
    await this.tell(async () => {
      await this.api.archiveJob(row.id, archived);
      return archived ? `${row.job.tag} is in the archive.` : `${row.job.tag} is back.`;
    });
  }

  protected async rename(row: BoardEntry): Promise<void> {
    const { RenameDialog } = await import('./rename-dialog');
    const done = (await firstValueFrom(
      this.dialog.open(RenameDialog, { data: row }).afterClosed(),
    )) as string | undefined;
    if (done) await this.tell(() => Promise.resolve(done));
  }

  protected async importFile(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    if (!file) return;
    await this.tell(async () => {
      const answer = await this.api.importFile(await read(file), this.preferences.signed());
      return importText(file.name, answer);
    });
    field.value = '';
  }

  /** "marrowick-f" as it stands on the device: Marrowick F. */
  protected title(family: string): string {
    return family.replace(
      /(^|-)(\w)/gu,
      (_all, dash: string, letter: string) => `${dash ? ' ' : ''}${letter.toUpperCase()}`,
    );
  }

  private async tell(act: () => Promise<string>): Promise<void> {
    try {
      this.said.set(await act());
    } catch (error) {
      this.said.set((error as Error).message);
    }
    await this.load();
  }
}

/** A bundle as it is, a job file as its JSON. */
async function read(file: File): Promise<unknown> {
  if ((await file.slice(0, 2).text()) === 'PK') return file;
  try {
    return JSON.parse(await file.text());
  } catch {
    throw new Error(`${file.name} is no job file: it is neither JSON nor a bundle.`);
  }
}

/** What came in with a file, and what the file could prove of it. */
function importText(name: string, { copied, evidence, proof, server, sealed }: Imported): string {
  const here = copied
    ? `${name} is in as a copy: a job with its id is here already.`
    : `${name} is in.`;
  if (evidence === 0) return here;
  const entries = `${evidence} ${evidence === 1 ? 'entry' : 'entries'} of evidence`;
  const proved =
    proof === 'unsigned'
      ? 'unsigned: the file proves their order, not where they come from'
      : `${sealed} signed by ${proof === 'signedHere' ? 'this server' : `another server (key ${server})`}`;
  return `${here} With ${entries}, ${proved}.`;
}
