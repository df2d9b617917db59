import { expose } from 'comlink';
import {
  guessMapping,
  readRecorder,
  recordedRamps,
  recordedStart,
  RecorderError,
  recordingOf,
  type RecordedRamps,
  type RecordedStart,
  type RecorderFile,
  type RecorderMapping,
  type Recording,
} from '@tactron/core/formats';
import { simulatedRun, type SimulatedPoint } from '@tactron/core/procedure';
import { changesSpeed, rampsTorque, type Profile } from '@tactron/core/catalogue';
import {
  compareSchools,
  questionsFor,
  startView,
  withSchool,
  type Card,
  type Comparison,
  type StartView,
} from '@tactron/core/compare';
import type { Job, Scheme } from '@tactron/core/job';
import { sayFinding, sayNoPlan, sayReason, saySchool, saySeverity } from '@tactron/core/words';
import { saidStrip, type SaidStrip } from '@tactron/core/said';

/** A behaviour card in words. */
export interface SaidCard {
  readonly id: string;
  readonly name: string;
  readonly chosen: boolean;
  readonly recommended: boolean;
  /** Why this school cannot be had here; empty where it can. */
  readonly impossible: string;
  readonly strip: SaidStrip | null;
  readonly cost: string;
  readonly outcomes: readonly { readonly text: string; readonly bad: boolean }[];
  readonly hazards: readonly {
    readonly severity: string;
    readonly mark: string;
    readonly text: string;
  }[];
  /** The wishes as they are with this school. */
  readonly scheme: Scheme;
}

export interface SaidQuestion {
  readonly id: string;
  readonly name: string;
}

export interface SaidComparison {
  readonly question: string;
  readonly cards: readonly SaidCard[];
  readonly reasons: readonly string[];
}

function outcomesOf(card: Extract<Card, { ok: true }>): SaidCard['outcomes'] {
  const release = card.strip.marks.some(
    (m) => m.what === 'stopReleased' || m.what === 'estopReleased',
  );
  return [
    card.restarts
      ? { text: 'Power back: starts by itself', bad: true }
      : { text: 'Power back: stays stopped', bad: false },
    ...(card.startsOnRelease
      ? [{ text: 'Letting go of a stop starts it', bad: true }]
      : release
        ? [{ text: 'Letting go of a stop does not start it', bad: false }]
        : []),
  ];
}

function said(card: Card, c: Comparison, scheme: Scheme): SaidCard {
  const base = {
    scheme,
    id: card.id,
    name: saySchool(c.question, card.id),
    chosen: c.chosen === card.id,
    recommended: c.recommended === card.id,
  };
  if (!card.ok) {
    return {
      ...base,
      impossible: sayNoPlan(card.plan),
      strip: null,
      cost: '',
      outcomes: [],
      hazards: [],
    };
  }
  const { settings, keystrokes, wires } = card.cost;
  return {
    ...base,
    impossible: '',
    strip: saidStrip(card.strip),
    cost: `${card.devices} ${card.devices === 1 ? 'device' : 'devices'}, ${wires} wires, ${settings} settings, ${keystrokes} key presses`,
    outcomes: outcomesOf(card),
    hazards: card.findings.map((f) => ({
      severity: f.severity,
      mark: saySeverity(f.severity),
      text: sayFinding(f).what,
    })),
  };
}

/** What comes of a file, or what is wrong with it. */
export type OfFile<T> =
  ({ readonly ok: true } & T) | { readonly ok: false; readonly problem: string };

function attempt<T>(make: () => T): OfFile<T> {
  try {
    return { ok: true, ...make() };
  } catch (error) {
    if (error instanceof RecorderError) return { ok: false, problem: error.message };
    throw error;
  }
}

let last: { readonly text: string; readonly asked: readonly [Job, Profile] } | undefined;

/** A job and its device as they were last asked about, where they are the same: what was worked out of them stands. */
function lastAsked(job: Job, profile: Profile): readonly [Job, Profile] {
  const text = JSON.stringify([job, profile]);
  if (last?.text !== text) last = { text, asked: [job, profile] };
  return last.asked;
}

/** A run in simulation, and its ramps by the output and by the shaft. */
export interface SimulatedRamps {
  readonly points: readonly SimulatedPoint[];
  readonly hz: RecordedRamps | null;
  readonly rpm: RecordedRamps | null;
}

const worker = {
  /** A recorder's file with the columns it most likely means. */
  recorder(text: string): OfFile<{ file: RecorderFile; mapping: RecorderMapping }> {
    return attempt(() => {
      const file = readRecorder(text);
      return { file, mapping: guessMapping(file) ?? { time: 0 } };
    });
  },

  /**
   * A recording by its columns, and what it came to.
   *
   * @param belowA current below which a start is over, A; null where no start of a soft starter is recorded
   */
  recording(
    file: RecorderFile,
    mapping: RecorderMapping,
    belowA: number | null,
  ): OfFile<{ recording: Recording; start: RecordedStart | null; ramps: RecordedRamps | null }> {
    return attempt(() => {
      const recording = recordingOf(file, mapping);
      const start = belowA === null ? null : recordedStart(recording, belowA);
      return { recording, start, ramps: recordedRamps(recording) ?? null };
    });
  },

  /** An act of the live tests as it runs in simulation; null where nothing turns in it. */
  run(job: Job, profile: Profile, act: string): SimulatedRamps | null {
    const points = simulatedRun(job, profile, act);
    if (!points) return null;
    const ramps = (of: 'hz' | 'rpm'): RecordedRamps | null =>
      recordedRamps({
        gaps: 0,
        points: points.map((p) => ({
          t: p.t,
          amps: null,
          linkV: null,
          hz: of === 'hz' ? p.hz : null,
          rpm: p.rpm,
        })),
      }) ?? null;
    return { points, hz: ramps('hz'), rpm: ramps('rpm') };
  },

  /** Questions on which practitioners differ that these wishes leave to be decided. */
  questions(job: Job, profile: Profile): SaidQuestion[] {
    return questionsFor(job.scheme, changesSpeed(profile), rampsTorque(profile)).map(({ id }) => ({
      id,
      name: saySchool(id),
    }));
  },

  /** The schools of one question, each planned, rehearsed and checked on this job. */
  compare(job: Job, profile: Profile, question: string): SaidComparison | null {
    const found = questionsFor(job.scheme, changesSpeed(profile), rampsTorque(profile)).find(
      (q) => q.id === question,
    );
    if (!found) return null;
    const c = compareSchools(...lastAsked(job, profile), found);
    return {
      question,
      cards: c.cards.map((card, i) =>
        said(card, c, withSchool(job.scheme, found.schools[i].patch)),
      ),
      reasons: c.reasons.map(sayReason),
    };
  },

  /** The start of a soft starter as it is planned; null for a device that changes the speed. */
  start(job: Job, profile: Profile): StartView | null {
    return startView(job, profile) ?? null;
  },
};

export type CompareWorker = typeof worker;

expose(worker);
