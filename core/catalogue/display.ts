import * as v from 'valibot';
import { sortedEntries } from '../job/index.js';
import type { Profile } from './profile.js';

const text = v.pipe(v.string(), v.minLength(1), v.maxLength(80));
/** Records keep fields this version does not know. */
const open = v.looseObject;

/** How a monitor writes its value: a number, one mark a terminal, or the terminals added up as a binary word. */
const formSchema = v.variant('as', [
  open({
    as: v.literal('number'),
    decimals: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(3)),
    unit: v.optional(v.string(), ''),
  }),
  open({
    as: v.literal('marks'),
    on: text,
    off: text,
    terminals: v.pipe(v.array(text), v.minLength(1)),
    /** Written between the marks; nothing where they stand side by side. */
    between: v.optional(v.string(), ''),
  }),
  open({
    as: v.literal('word'),
    /** Terminals by their place, the lowest first; 1 for the first, 2 for the second, 4 for the third. */
    terminals: v.pipe(v.array(text), v.minLength(1)),
    digits: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(5)),
    lead: v.optional(v.string(), ''),
  }),
]);

const monitorSchema = open({
  /** Name under which the device or its manual lists it. */
  name: text,
  /** Keys that reach it from the resting display, in their order; none where the display rests there. */
  keys: v.pipe(v.array(text), v.maxLength(12)),
  form: formSchema,
});

/** How a device tells what it does: its monitors, and display and lamps in each of its states. */
export const displaySchema = open({
  /** Lamps by name; one that a state does not name is dark. */
  lamps: v.optional(v.record(text, text), {}),
  /** `{hz}` stands for the output frequency, `{amps}` for the current, `{fault}` for the code of the fault. An empty text is a dark display. */
  states: v.record(
    text,
    open({
      text: v.pipe(v.string(), v.maxLength(40)),
      lamps: v.optional(v.record(text, v.picklist(['lit', 'flashing'])), {}),
    }),
  ),
  /** `hz`, `amps`, `linkVolts`, `inputs`, and `analogue.<terminal>`. */
  monitors: v.record(text, monitorSchema),
});
export type Display = v.InferOutput<typeof displaySchema>;
export type MonitorForm = v.InferOutput<typeof formSchema>;

/** What of a device is shown in a state. */
export interface Shown {
  /** Words or digits on its display; empty while it is dark. */
  readonly text: string;
  readonly lamps: readonly {
    readonly name: string;
    readonly is: 'dark' | 'lit' | 'flashing';
  }[];
}

/** What a device shows in each of its states, with places left for the frequency and the code of a fault. */
export interface DisplayFace {
  readonly states: Readonly<Record<string, Shown>>;
  /** How it writes its output frequency. */
  readonly hz: { readonly decimals: number; readonly unit: string };
  /** Codes of its faults, by their meaning. */
  readonly faults: Readonly<Record<string, string>>;
}

/**
 * Display and lamps of a device in all its states.
 *
 * @returns undefined where its profile does not say
 * @example displayFace(profile)?.states['ready'].text // 'AT REST'
 */
export function displayFace({ display, faults }: Profile): DisplayFace | undefined {
  if (!display) return undefined;
  const form = display.monitors['hz']?.form;
  const states = Object.entries(display.states).map(([state, { text: words, lamps }]) => {
    const all = sortedEntries(display.lamps).map(([id, name]) => ({
      name,
      is: lamps[id] ?? ('dark' as const),
    }));
    return [state, { text: words, lamps: all }] as const;
  });
  return {
    states: Object.fromEntries(states),
    hz:
      form?.as === 'number'
        ? { decimals: form.decimals, unit: form.unit }
        : { decimals: 1, unit: '' },
    faults: Object.fromEntries(Object.entries(faults).map(([id, fault]) => [id, fault.code])),
  };
}

/**
 * What display and lamps of a device show in one of its states.
 *
 * @param hz output frequency; @param fault the fault it keeps, by its meaning
 * @returns undefined where its profile does not say
 * @example shownIn(profile, { state: 'atSpeed', hz: 12.5, fault: null })?.text // '12.5'
 */
export function shownIn(
  profile: Profile,
  {
    state,
    hz,
    fault,
    amps = 0,
  }: {
    readonly state: string;
    readonly hz: number;
    readonly fault: string | null;
    readonly amps?: number;
  },
): Shown | undefined {
  const face = displayFace(profile);
  const shown = face?.states[state];
  if (!face || !shown) return undefined;
  const frequency = written({ as: 'number', ...face.hz }, hz);
  const code = fault === null ? '' : (face.faults[fault] ?? fault);
  return {
    text: shown.text
      .replaceAll('{hz}', frequency)
      .replaceAll('{amps}', `${amps.toFixed(1)} A`)
      .replaceAll('{fault}', code),
    lamps: shown.lamps,
  };
}

/** A monitor of a device with what it shows. */
export interface MonitorShown {
  readonly name: string;
  readonly keys: readonly string[];
  readonly shows: string;
}

/**
 * How a monitor is reached, and what stands there.
 *
 * @param value the number; or whether a terminal is on, for monitors of terminals
 * @returns undefined where the profile has no such monitor
 * @example monitorShown(profile, 'inputs', (terminal) => terminal === 'D1')?.shows // '1 0 0 0'
 */
export function monitorShown(
  { display }: Profile,
  id: string,
  value: number | ((terminal: string) => boolean),
): MonitorShown | undefined {
  const monitor = display?.monitors[id];
  if (!monitor) return undefined;
  return { name: monitor.name, keys: monitor.keys, shows: written(monitor.form, value) };
}

function written(form: MonitorForm, value: number | ((terminal: string) => boolean)): string {
  const on = (terminal: string): boolean => typeof value === 'function' && value(terminal);
  switch (form.as) {
    case 'number': {
      const x = typeof value === 'number' ? value : 0;
      const rounded = x.toFixed(form.decimals);
      return `${/^-0[.0]*$/u.test(rounded) ? rounded.slice(1) : rounded}${form.unit ? ` ${form.unit}` : ''}`;
    }
    case 'marks':
      return form.terminals.map((t) => (on(t) ? form.on : form.off)).join(form.between);
    case 'word': {
      const sum = form.terminals.reduce((word, t, i) => word + (on(t) ? 2 ** i : 0), 0);
      return `${form.lead}${String(sum).padStart(form.digits, '0')}`;
    }
  }
}
