import { NgTemplateOutlet } from '@angular/common';
import { Component, computed, inject } from '@angular/core';
import { landingParts, type Act } from '@tactron/core/job';
import { formatNumber } from '@tactron/core/units';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { Leads } from './leads';
import { voltsAt } from '@tactron/core/trace';
import { byTag } from './by-tag';
import { RehearsalSession } from './session';
import {
  deviceState,
  feedsAtSupply,
  firstShown,
  shownFault,
  shownStateOf,
  shownValue,
} from './shown-state';

/** A key of the device as it can be pressed here. */
interface DeviceKey {
  readonly key: Extract<Act, { do: 'key' }>['key'];
  readonly name: string;
}

/** A key with what stands on it, where anything does. */
interface MarkedKey extends DeviceKey {
  readonly mark: string;
}

interface ShownLanding {
  readonly landing: string;
  readonly name: string;
  /** What it is there for. */
  readonly task: string;
  readonly text: string;
  readonly on: boolean;
}

/** The device as it stands there: display, keys, and the voltage of every landing of the circuit. */
@Component({
  selector: 'tac-device-face',
  imports: [NgTemplateOutlet],
  templateUrl: './device-face.html',
  styleUrl: './device-face.scss',
})
export class DeviceFace {
  protected readonly open = inject(OpenJob);
  protected readonly leads = inject(Leads);
  private readonly session = inject(RehearsalSession);
  private readonly preferences = inject(Preferences);
  protected readonly state = computed(() => deviceState(this.session));
  /** What stands on its display, and its lamps, as its profile says. */
  protected readonly display = computed(() => {
    const face = this.session.opened()?.face;
    const shown = face?.states[shownStateOf(this.session, 'device.state', 'off')];
    if (!face || !shown) return undefined;
    const { decimals, unit } = face.hz;
    const frequency = `${this.at('device.hz').toFixed(decimals)}${unit ? ` ${unit}` : ''}`;
    const code = face.faults[shownFault(this.session) ?? ''] ?? '';
    const amps = `${this.at('device.amps').toFixed(1)} A`;
    const text = shown.text
      .replaceAll('{hz}', frequency)
      .replaceAll('{amps}', amps)
      .replaceAll('{fault}', code);
    return { text, lamps: shown.lamps };
  });
  /** What stands on the glass; a device without words has lights only. */
  protected readonly glass = computed(() => {
    const states = Object.values(this.session.opened()?.face?.states ?? {});
    const words = states.some((s) => s.text !== '');
    return this.display()?.text || (words || states.length === 0 ? 'dark' : 'lights only');
  });
  /** Frequency at which its keypad stands, where its keys can move it. */
  protected readonly keypadHz = computed(() =>
    this.session.opened()?.keypadSpeed
      ? formatNumber(this.at('device.keypadHz'), 2, this.preferences.decimal())
      : null,
  );
  protected readonly keys = computed<readonly MarkedKey[]>(() => {
    if (this.session.opened()?.keys === false) return [];
    const plain: readonly DeviceKey[] = [
      { key: 'start', name: 'start' },
      { key: 'stop', name: 'stop' },
      { key: 'reset', name: 'reset' },
    ];
    const moves: readonly DeviceKey[] = [
      { key: 'up', name: 'faster' },
      { key: 'down', name: 'slower' },
    ];
    const own = this.open.profile()?.keypad.keys as
      Partial<Record<DeviceKey['key'], string>> | undefined;
    return (this.keypadHz() === null ? plain : [...plain, ...moves]).map((k) => ({
      ...k,
      // A device whose keys have no marks of their own has a dash there.
      mark: own?.[k.key]?.replace('–', '') ?? '',
    }));
  });
  /** What is read first: the output frequency, or the current of a device that does not change it. */
  protected readonly first = computed(() => {
    const { value, decimals, unit } = firstShown(this.session);
    return { value: formatNumber(value, decimals, this.preferences.decimal()), unit };
  });
  /** The device feeds its motor at the frequency of the supply. */
  protected readonly feeds = computed(() => feedsAtSupply(this.session));
  /** Heat of the motor’s image, % of what trips it. */
  protected readonly heat = computed(() =>
    this.feeds() ? Math.round(this.at('device.heatPct')) : null,
  );

  /** Id of the drive or starter itself. */
  private readonly device = computed(() => this.session.opened()?.device ?? '');
  private readonly own = computed(
    () => this.groups().find((g) => g.id === this.device())?.landings ?? [],
  );
  private readonly wired = computed(
    () =>
      new Set(Object.values(this.open.job()?.adopted?.wires ?? {}).flatMap((w) => [w.from, w.to])),
  );
  /** Terminals that something is landed on; the others fold away. */
  protected readonly used = computed(() => this.own().filter((l) => this.wired().has(l.landing)));
  protected readonly unused = computed(() =>
    this.own().filter((l) => !this.wired().has(l.landing)),
  );
  protected readonly isText = (text: string): boolean => text !== '';
  protected readonly others = computed(() => this.groups().filter((g) => g.id !== this.device()));

  /** Landings by device: the device's control terminals, and what is wired of the others in the order of the tags. */
  private readonly groups = computed(() => {
    const opened = this.session.opened();
    if (!opened) return [];
    const now = this.session.shownUs();
    const tags = this.open.job()?.adopted?.devices ?? {};
    const wired = this.wired();
    const by = new Map<string, ShownLanding[]>();
    opened.landings.forEach((landing, i) => {
      const { device, terminal } = landingParts(landing);
      if (
        ['motor', 'supply', 'breaker'].includes(device) ||
        (device === opened.device ? this.isPower(terminal) : !wired.has(landing))
      )
        return;
      const list = by.get(device) ?? [];
      list.push({
        landing,
        name: terminal,
        task: device === opened.device ? (opened.tasks[terminal] ?? '') : '',
        text: this.voltText(i, opened.reference, now),
        on: this.isOn(device, terminal),
      });
      by.set(device, list);
    });
    return [...by]
      .map(([id, landings]) => ({ id, tag: tags[id]?.tag ?? id, landings }))
      .sort(byTag);
  });

  protected readonly power = computed(() => {
    const opened = this.session.opened();
    if (!opened) return [];
    const now = this.session.shownUs();
    return opened.landings.flatMap((landing, i): ShownLanding[] => {
      const { device, terminal } = landingParts(landing);
      const shown =
        ['supply', 'breaker'].includes(device) ||
        (device === opened.device && this.isPower(terminal));
      return shown
        ? [
            {
              landing,
              name: this.leads.name(landing),
              task: '',
              text: this.voltText(i, opened.reference, now),
              on: false,
            },
          ]
        : [];
    });
  });

  /** Relays, contactors and fuses of the panel, as they stand. */
  protected readonly coils = computed(() =>
    (this.session.opened()?.devices ?? []).flatMap((d) => {
      if (d.id === 'brake' || (d.kind !== 'coil' && d.kind !== 'fuse')) return [];
      const on = this.at(d.kind === 'coil' ? `${d.id}.on` : `${d.id}.blown`) === 1;
      const words = d.kind === 'coil' ? ['pulled in', 'dropped out'] : ['blown', 'whole'];
      const chatters = d.kind === 'coil' && this.at(`${d.id}.chatters`) === 1;
      const text = chatters ? 'chatters' : words[on ? 0 : 1];
      return [{ id: d.id, tag: d.tag, name: d.name, on, text }];
    }),
  );

  protected key(key: DeviceKey['key'], down: boolean): void {
    void this.session.act({ do: 'key', key, down });
  }

  private at(id: string): number {
    return shownValue(this.session, id);
  }

  private isPower(terminal: string): boolean {
    return ['mains', 'motor', 'power'].includes(
      this.open.profile()?.terminals[terminal]?.kind ?? '',
    );
  }

  private isOn(device: string, terminal: string): boolean {
    return (
      device === this.device() &&
      this.session.trace()?.signals.some((s) => s.id === `device.${terminal}`) === true &&
      this.at(`device.${terminal}`) === 1
    );
  }

  private voltText(landing: number, reference: number, now: number): string {
    const opened = this.session.opened();
    if (!opened) return '';
    const mark = this.preferences.decimal();
    const v = voltsAt(opened.trace, landing, reference, now);
    if (v)
      return v.ac > 1
        ? `${formatNumber(v.ac, 0, mark)} V~`
        : `${formatNumber(Math.abs(v.dc) < 5e-3 ? 0 : v.dc, Math.abs(v.dc) < 15 ? 2 : 1, mark)} V`;
    const earth = opened.landings.indexOf('supply:PE');
    const against = earth >= 0 ? voltsAt(opened.trace, landing, earth, now) : null;
    return against ? `${formatNumber(against.ac, 0, mark)} V~` : 'floating';
  }
}
