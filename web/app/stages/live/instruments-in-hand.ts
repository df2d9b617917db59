import { Injectable, computed, inject, signal } from '@angular/core';
import { v4 as uuid } from 'uuid';
import { type Author, type Instrument, type InstrumentKind } from '@tactron/core/job';
import { Preferences } from '../../frame/preferences';
import { Keeping } from '../../job-state/keeping';
import { OpenJob } from '../../job-state/open-job';
import { SiteDocuments } from '../../site/site-documents';

const KEY = 'tactron.instruments';
const READER = 'tactron.reader';
type Held = Partial<Record<InstrumentKind, Instrument>>;

function read(): Held {
  try {
    return JSON.parse(sessionStorage.getItem(KEY) ?? '{}') as Held;
  } catch {
    return {};
  }
}

const same = (x: Instrument, y: Instrument): boolean => x.name === y.name && x.serial === y.serial;

/** Instruments of the site and of the open job, and with which of them is measured in this session: named once for each kind. */
@Injectable({ providedIn: 'root' })
export class InstrumentsInHand {
  private readonly open = inject(OpenJob);
  private readonly sites = inject(SiteDocuments);
  private readonly preferences = inject(Preferences);
  private readonly keeping = inject(Keeping);
  private readonly held = signal<Held>(read());
  private readonly ofSite = signal<readonly Instrument[]>([]);

  /** Instruments that can be chosen: those of the site in use, and those noted in this job. */
  readonly all = (): readonly Instrument[] => {
    const noted = this.open.evidence().flatMap((e): Instrument[] => {
      if (e.kind !== 'instrument') return [];
      const { version: _version, ...instrument } = e.body;
      return [instrument];
    });
    const known = this.ofSite();
    return [...known, ...noted.filter((i) => !known.some((k) => same(k, i)))];
  };

  /** Who writes here. */
  readonly writer = computed(() => {
    const me = this.keeping.me();
    return me?.accounts ? me.name : this.preferences.signed().name;
  });
  /** Who reads, where somebody else writes; for this session. */
  readonly reader = signal(sessionStorage.getItem(READER) ?? '');

  readBy(name: string): void {
    this.reader.set(name.trim());
    try {
      sessionStorage.setItem(READER, name.trim());
    } catch {
      // no room: it holds until the window is closed
    }
  }

  private loaded = '';

  /** Reads what the site has, once for each site. @param again it may be another now */
  async load(again = false): Promise<void> {
    const siteId = this.open.job()?.siteId;
    if (!siteId || (siteId === this.loaded && !again)) return;
    this.loaded = siteId;
    const { document, fresh } = await this.sites.of(siteId);
    if (!fresh) this.loaded = '';
    this.ofSite.set(
      Object.values(document.instruments).flatMap(({ outOfUse, ...i }) => (outOfUse ? [] : [i])),
    );
  }

  inHand(kind: InstrumentKind): Instrument | undefined {
    return this.held()[kind];
  }

  take(kind: InstrumentKind, instrument: Instrument | undefined): void {
    const next = { ...this.held(), [kind]: instrument };
    this.held.set(next);
    try {
      sessionStorage.setItem(KEY, JSON.stringify(next));
    } catch {
      // no room: it holds until the window is closed
    }
  }

  /** Notes an instrument: at the site, or with this job where the site cannot be changed now. */
  async note(instrument: Instrument): Promise<void> {
    const siteId = this.open.job()?.siteId ?? '';
    const me = this.keeping.me();
    const author: Author = me?.accounts
      ? { name: me.name, role: me.trade }
      : this.preferences.signed();
    try {
      await this.sites.change(siteId, author, (d) => ({
        ...d,
        instruments: { ...d.instruments, [uuid()]: instrument },
      }));
      await this.load(true);
    } catch {
      // No network, or not allowed: it belongs to this job then.
      this.open.record('instrument', `instrument.${uuid()}`, { version: 1, ...instrument });
    }
  }
}
